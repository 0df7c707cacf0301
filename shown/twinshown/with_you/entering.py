"""An entry that is made without the depot's server: taken or refused by the same rules, until the server has it."""

from collections.abc import Callable, Mapping
from datetime import UTC, datetime
from typing import Any

from twincore.errors import TwinError
from twincore.job import FIRST, EntryMade, Target, board_of, changed, names_of, turned, value_at
from twincore.job.adding import brought, confirmation, declared, in_form, settled_by, value_of
from twincore.job.given import Given
from twinshown.refusals import NotThere, Refused, refused_as
from twinshown.sheet.accepting import LastSaid, NewEntry, check_open, check_unchanged, check_waiting, takes_back
from twinshown.with_you.stored import as_stored
from twinshown.with_you.taken import TakenJob, entry_id

AT_THE_DEPOT = "This is looked up at the depot. It can be said again once there is a connection."


def enter(taken: TakenJob, new: NewEntry, now: datetime) -> None:
    """Add an entry; one that is there already changes nothing. Raises Refused."""
    if any(entry_id(each) == new.id for each in taken.entries):
        return
    try:
        _enter(taken, new, now)
    except TwinError as error:
        raise refused_as(error) from error


def _enter(taken: TakenJob, new: NewEntry, now: datetime) -> None:
    target = declared(new.target)
    board = board_of(new.target, new.board)
    head = taken.head()
    check_open(taken.case(FIRST).state, taken.closed_at is not None, head.origin is not None, new.target)
    mends = takes_back(taken.void, new)
    state = taken.case(board).state
    check_unchanged(state, new, _last_said(taken, new.target, board))
    if not mends:
        check_waiting(state, new)
    given = Given(taken.person["shown_name"], now, new.reason, new.read_how, taken.person["id"])
    before, held = value_at(state, new.target), taken.holds(board)
    name = new.target.partition(".")[2]
    value: Any
    try:
        value, adds = _said(taken, target, name, new, board, given)
    except BaseException:
        taken.held[board] = held
        raise
    made = EntryMade(
        len(taken.entries) + 1, now.astimezone(UTC), given.by, new.target, value, new.reason.strip(), new.read_how, adds or {}, board
    )  # fmt: skip
    state = changed(state, made)
    if mends:
        taken.void = tuple(each for each in taken.void if (each.target, each.board) != (made.target, made.board))
    if made.adds.get("closed_as"):
        taken.closed_at = now
    taken.state, taken.changed_at = as_stored(turned(state, FIRST)), now
    taken.entries.append(
        {
            "id": str(new.id), "number": made.number, "at": now.astimezone(UTC).isoformat(timespec="milliseconds"),
            "by": given.by, **({} if board == FIRST else {"board": board}), "target": new.target, "before": as_stored(before),
            "after": as_stored(value), "reason": made.reason, "read_how": new.read_how,
        }
    )  # fmt: skip
    boards = names_of(taken.case(FIRST).state)
    taken.held = {name: each for name, each in taken.held.items() if name in boards}


def _said(
    taken: TakenJob, target: Target | None, name: str, new: NewEntry, board: str, given: Given
) -> tuple[Any, dict[str, Any] | None]:
    """What stands at the target from now on, and what the entry brings along."""
    if target is None:
        said = confirmation(taken.case(board), name, new.after)
        return said, None if said is None else _settled(taken, board, name, given)
    if target.kind in AT_THE_DEPOT_ONLY:
        raise Refused(AT_THE_DEPOT)
    if target.kind in CHOSEN:
        held = {**taken.holds(board)}
        value: Any = CHOSEN[target.kind](taken, held, in_form(target, new.after))
        taken.held[board] = held
    else:
        value = value_of(taken.case(board), target, name, new.after, given)
    adds = brought(taken.case(board), target, name, value)
    if target.kind == "replacement" and value is not None:
        adds = {"choice": _choice(taken, value, given)}
    if target.kind == "signed" and value is not None and value["ok"]:
        adds = {"closed_as": _closed_as(taken)}
    return value, adds


def _settled(taken: TakenJob, board: str, step: str, given: Given) -> dict[str, Any] | None:
    match step:
        case "record":
            # whether another board would be better now is judged against the depot's whole catalogue
            return {"rejudged": None}
        case "hand_over":
            closing = {} if taken.head().rules.second_person else {"closed_as": _closed_as(taken)}
            return {"by_id": given.person_id, **closing}
    return settled_by(taken.case(board), step)


def _closed_as(taken: TakenJob) -> dict[str, Any]:
    found: dict[str, Any] = taken.document["head"]
    return found


def _choice(taken: TakenJob, part_number: str, given: Given) -> dict[str, Any]:
    """A choice with the candidates as they stood when the job was taken along."""
    stood = taken.document["looked_up"]["alternatives"]
    chosen = next((each for each in stood if each["part_number"] == part_number), None)
    return {
        "reason": given.reason.strip(),
        "by": given.by,
        "at": given.now.isoformat(timespec="seconds"),
        "verdict": chosen["verdict"] if chosen else "to check",
        "alternatives": stood,
    }


def _family(taken: TakenJob, held: dict[str, str | None], after: str | None) -> str | None:
    held.update(original=None, replacement=None, family=None if after is None else _now(taken, "families", after))
    return after


def _original(taken: TakenJob, held: dict[str, str | None], after: str | None) -> str | None:
    held["replacement"] = None
    held["original"] = None if after is None else _now(taken, "boards", after)
    if held["original"]:
        kind = taken.document["boards"][held["original"]]["kind"]
        if held["family"] is None or taken.document["families"][held["family"]]["code"] != kind:
            held["family"] = _now(taken, "families", kind)
    return after


def _replacement(taken: TakenJob, held: dict[str, str | None], after: str | None) -> str | None:
    held["replacement"] = None if after is None else _now(taken, "boards", after)
    return after


def _now(taken: TakenJob, what: str, name: str) -> str:
    """The key of the revision that was the current one of a board or a kind of machine when the job was taken along."""
    found: str | None = taken.document["now"][what].get(name)
    if found is None:
        raise NotThere(f"{name} was not taken along. It can be chosen once there is a connection.")
    return found


CHOSEN: Mapping[str, Callable[[TakenJob, dict[str, str | None], Any], str | None]] = {
    "family": _family, "original": _original, "replacement": _replacement,
}  # fmt: skip
AT_THE_DEPOT_ONLY = ("original_profile", "replacement_profile", "original_joined", "replacement_joined")
"""What stands in the depot's catalogue alone: other revisions, and what the parts lead joined."""


def _last_said(taken: TakenJob, target: str, board: str) -> LastSaid | None:
    for each in reversed(taken.entries):
        if (each["target"], each.get("board", FIRST)) == (target, board):
            told = {name: each[name] for name in ("target", "before", "after", "by", "at")}
            return LastSaid((entry_id(each),), each["by"], told)
    return None
