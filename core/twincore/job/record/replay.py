"""A job played again from its entries alone: what they lead to, and where a record says otherwise."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from datetime import datetime
from typing import Any, cast

from twincore.errors import DocumentError, Fault
from twincore.job.record.reading import shape_faults
from twincore.job.record.sealed import as_recorded
from twincore.job.rules.boards import BOARD_NAMES, board_of, names_of
from twincore.job.rules.changing import changed
from twincore.job.rules.order import STEPS
from twincore.job.rules.state import ConfirmedSaid, State, empty_state
from twincore.job.target import FIRST, EntryMade, Step, checked
from twincore.job.targets import CONFIRMATIONS, TARGETS


@dataclass(frozen=True, slots=True)
class Replayed:
    """Where entries lead; `untold` names the parts that entries of an earlier version do not tell, and `touched` the number of
    the entry that changed each part last. `void` are entries that say nothing that can stand, each with what is wrong.
    """

    state: State
    untold: frozenset[str]
    touched: dict[str, int]
    void: dict[int, Fault]


def entry_of(node: Mapping[str, Any], number: int) -> EntryMade:
    """An entry from a record. Raises DocumentError where its target is none, its time or its value."""
    place = f"entries[{number - 1}]"
    kind, _, name = str(node["target"]).partition(".")
    if not (kind in TARGETS and bool(name) == TARGETS[kind].named) and not (kind == "confirmed" and name in STEPS):
        raise DocumentError([Fault(f"{place}.target", f"expected a target of a job, found {node['target']}")])
    try:
        at = datetime.fromisoformat(node["at"]) if node.get("at") else None
    except (TypeError, ValueError) as error:
        raise DocumentError([Fault(f"{place}.at", "expected a time in UTC")]) from error
    after = node["after"]
    if after is not None and kind == "confirmed":
        checked(ConfirmedSaid, after, f"{place}.after")
    elif after is not None and not _kept_form(kind, after):
        TARGETS[kind].checked(after, f"{place}.after")
    return EntryMade(
        number, at, str(node["by"]), node["target"], after, node.get("reason") or "", node.get("read_how") or "",
        node.get("adds") or {}, _board_of(node, place),
    )  # fmt: skip


def _board_of(node: Mapping[str, Any], place: str) -> str:
    named = node.get("board", FIRST)
    if named not in BOARD_NAMES:
        raise DocumentError([Fault(f"{place}.board", f"expected one of {', '.join(BOARD_NAMES)}, found {named}")])
    if board_of(str(node["target"]), named) != named:
        raise DocumentError([Fault(f"{place}.board", "expected none: this is said of the machine, not of one board")])
    return str(named)


def _kept_form(kind: str, after: Any) -> bool:
    """Whether a value is written as it is kept, with what was worked out from it (an angle's mark, a second reading)."""
    return kind in ("angle", "blind") and isinstance(after, dict) and bool({"nearest", "value"} & set(after))


def replay(entries: Sequence[Mapping[str, Any]], skipping: bool = False) -> Replayed:
    """What entries lead to, in their order. An entry that says nothing that can stand, and was taken back later, is passed over.

    Raises DocumentError at the first other that is none; with `skipping` every such entry is passed over.
    """
    state = empty_state()
    untold: set[str] = set()
    touched: dict[str, int] = {}
    void: dict[int, Fault] = {}
    emptied = {_about(node): number for number, node in enumerate(entries, 1) if node["after"] is None}
    for number, node in enumerate(entries, 1):
        try:
            entry = entry_of(node, number)
            after = _after(state, entry)
        except DocumentError as error:
            taken_back = emptied.get(_about(node), 0) > number
            if not taken_back and not skipping:
                raise
            if not taken_back:
                void[number] = error.faults[0]
            continue
        if not entry.adds:
            untold.update(_untold(entry))
        for key, value in after.items():
            if value is not cast(dict[str, Any], state)[key] if key in state else True:
                touched[key] = number
        state = after
    return Replayed(state, frozenset(untold), touched, void)


def _after(state: State, entry: EntryMade) -> State:
    place = f"entries[{entry.number - 1}]"
    if entry.board not in names_of(state):
        raise DocumentError([Fault(f"{place}.board", f"expected a board of this job, found {entry.board}")])
    try:
        return changed(state, entry)
    except (KeyError, TypeError, AttributeError, ValueError) as error:
        raise DocumentError([Fault(place, f"expected a value that can stand at {entry.target}")]) from error


def _untold(entry: EntryMade) -> Sequence[str]:
    """The parts of the state that an entry would tell if it had brought along what it rested on."""
    kind, _, name = entry.target.partition(".")
    if kind == "confirmed":
        settles = CONFIRMATIONS[cast(Step, name)].settles
        return [settles] if settles and entry.after is not None else []
    target = TARGETS[kind]
    return target.untold if entry.after is not None or target.captures_always else []


def _about(node: Mapping[str, Any]) -> tuple[str, str]:
    """What an entry speaks of: its target, and of which board."""
    return str(node["target"]), str(node.get("board", FIRST))


def partings(entries: Sequence[Mapping[str, Any]], stored: Mapping[str, Any]) -> list[Fault]:
    """Where a record's state is not what its entries lead to: at the last entry that speaks of it; or is no state at all, also
    in those parts that entries of an earlier version do not tell.
    """
    found = replay(entries)
    kept = cast(dict[str, Any], {**empty_state(), **stored})
    faults = []
    last = {str(node["target"]): number for number, node in enumerate(entries, 1)}
    for key, value in found.state.items():
        if key in found.untold or key in ("version", "closed_as"):
            continue
        for name in _differing(*(as_recorded({key: each}).get(key) for each in (value, kept.get(key)))):
            number = _last_about(last, key, name) or found.touched.get(key, len(entries))
            where = f"state.{key}" + (f".{name}" if name else "")
            faults.append(
                Fault(
                    f"entries[{max(number, 1) - 1}]",
                    f"expected what entries up to {number} lead to, but the record has something else at {where}",
                )
            )
    return sorted(faults, key=lambda fault: int(fault.place[8:-1])) or shape_faults(dict(stored))


def _differing(led_to: Any, kept: Any) -> list[str]:
    """The names under which two parts differ; an empty name where they are no parts with names."""
    if isinstance(led_to, dict) and isinstance(kept, dict):
        return [name for name in dict.fromkeys([*led_to, *kept]) if led_to.get(name) != kept.get(name)]
    return [] if led_to == kept else [""]


def _last_about(last: Mapping[str, int], key: str, name: str) -> int:
    kinds = [target.kind for target in TARGETS.values() if target.key == key]
    kinds += ["confirmed"] if key == "confirmed" else []
    return max((last.get(f"{kind}.{name}" if name else kind, 0) for kind in kinds), default=0)
