"""What one entry does to a job: what stands at its target afterwards, and what it makes untrue."""

from typing import Any, cast

from twincore.job.boards import fresh_board, own_part, speaks_of_all, turned
from twincore.job.order import cleared, done
from twincore.job.state import FIRST, ConfirmedKept, State, empty_state
from twincore.job.target import EntryMade, Step, Subject, Target
from twincore.job.targets import TARGETS
from twincore.job.targets.record import NOTHING_READ
from twincore.profile.record import UNREADABLE

OF_THE_KIND = ("symptoms", "tests", "causes")
"""What was said of another kind of machine does not speak of this one."""
ADDING: dict[str, tuple[str, ...]] = {
    "original": ("family", "powered", "remembered", *OF_THE_KIND, "confirmed"), "replacement": ("choice",),
    "original_profile": ("powered", "remembered", "confirmed"),
    "original_joined": ("original", "original_profile", "family", "powered", "remembered", *OF_THE_KIND, "confirmed"),
    "cause": ("causes",), "hold": ("power", "holds", "confirmed", "energised", "boards"),
    "test": ("power", "holds", "confirmed"), "confirmed.record": ("rejudged",), "confirmed.fit": ("left",), "confirmed.prove": ("verdict",),
}  # fmt: skip
"""Targets whose entries bring along what no entry holds (`adds`), and what of the state hangs on that."""
KEPT_BESIDE = ("by", "by_id", "at", "n", "blocks", "held", "board", "began", "how", "undo")
"""What is kept beside what was said: who, when and how, its turn, what held before the supply came back, which board."""
GONE_WITH: dict[Subject, tuple[Subject, ...]] = {
    "kind": ("kind", "original", "replacement"), "original": ("original", "replacement"), "replacement": ("replacement",),
}  # fmt: skip
OUTLIVE_THE_ORIGINAL: tuple[Step, ...] = ("rule_out", "make_safe")
"""Confirmations that stay true whichever board it turns out to be."""
RESTS_ON: dict[str, tuple[Step, ...]] = {"carry_over": ("fit", "prove"), "fit": ("prove",)}
"""What goes when a confirmation is taken back."""


def value_at(state: State, target: str) -> Any:
    """What stands at a target now, as it was said; None where nothing does."""
    return as_said(_kept_at(state, target))


def as_said(value: Any) -> Any:
    """A value without what is kept beside it."""
    if isinstance(value, dict):
        return {name: each for name, each in value.items() if name not in KEPT_BESIDE}
    return value


def _kept_at(state: State, target: str) -> Any:
    kind, _, name = target.partition(".")
    declared = TARGETS.get(kind)
    if declared is None:
        return state["confirmed"].get(name)
    kept = cast(dict[str, Any], state)[declared.key]
    return kept.get(name) if declared.named else kept


def changed(state: State, entry: EntryMade) -> State:
    """The state after an entry; what it makes untrue (a plan, a verdict) goes with it.

    The state before stays as it was; parts that the entry does not touch are the same objects in both.
    """
    after = _sheet_changed(turned(state, entry.board), entry)
    kind = entry.target.partition(".")[0]
    if after["boards"] and kind != "board":
        after = {**after, "boards": {name: _beside(state, after, name, entry) for name in after["boards"]}}
    return turned(after, state["board"])


def _beside(state: State, after: State, name: str, entry: EntryMade) -> dict[str, Any]:
    """What another board has of its own after an entry: what is said of the machine is said of each of its boards."""
    if speaks_of_all(entry.target):
        return own_part(_sheet_changed(turned(state, name), entry))
    if state["energised"] is None or after["energised"] is not None:
        return after["boards"][name]
    # somebody has to go back into the machine: what was found in order before is looked at again
    sheet = cast(State, dict(turned(after, name)))
    _reopen(sheet, "fit", "prove")
    return own_part(sheet)


def _sheet_changed(state: State, entry: EntryMade) -> State:
    was_cleared = cleared(state)
    after = _changed(cast(State, dict(state)), entry)
    if was_cleared and not cleared(after):
        # what was looked at was looked at on a machine whose board was not the matter
        _reopen(after, "prove")
    return after


def _changed(state: State, entry: EntryMade) -> State:
    """A state of its own, changed by an entry."""
    kind, _, name = entry.target.partition(".")
    if kind == "confirmed":
        _confirm(state, name, entry)
        return state
    target = TARGETS[kind]
    before = _kept_at(state, entry.target)
    value = None if entry.after is None else target.keep(entry.after, entry, before, cast(dict[str, Any], state))
    if kind in ("family", "original", "replacement"):
        state = _without(state, target.of)
    _set(state, target, name, value)
    _reopen(state, *target.takes_back)
    FOLLOWING.get(kind, _nothing)(state, name, value, entry)
    return state


def _without(state: State, subject: Subject) -> State:
    """The state without what speaks of something that turned out to be another."""
    gone = {target.key for target in TARGETS.values() if target.of in GONE_WITH[subject]}
    if subject != "replacement":
        gone |= {"how", "powered", "remembered", "refused", "left", "verdict", "confirmed"}
    fresh = empty_state()
    emptied = {name: fresh[name] for name in (*gone, "choice", "rejudged")}  # type: ignore[literal-required]
    kept: dict[str, ConfirmedKept] = {} if subject != "original" else {
        step: said for step, said in state["confirmed"].items() if step in OUTLIVE_THE_ORIGINAL
    }  # fmt: skip
    found = cast(State, {**state, **emptied})
    if subject != "replacement":
        found["confirmed"] = kept
    return found


def _set(state: State, target: Target, name: str, value: Any) -> None:
    if target.named:
        _put(state, target.key, name, value)
    else:
        cast(dict[str, Any], state)[target.key] = value


def _put(state: State, key: str, name: str, value: Any) -> None:
    """Put a value under a name, or take it out, in a part of its own: the state before shares the others."""
    everything = cast(dict[str, Any], state)
    part = everything[key]
    if value is not None:
        everything[key] = {**part, name: value}
    elif name in part:
        everything[key] = {each: kept for each, kept in part.items() if each != name}


def _reopen(state: State, *steps: Step) -> None:
    for step in steps:
        _put(state, "confirmed", step, None)
    if "prove" in steps:
        state["verdict"] = None
    if "fit" in steps:
        state["left"] = None


def _supply_is_back(state: State) -> None:
    """Every hold point starts anew."""
    state["power"], state["holds"] = "on", {}
    _reopen(state, "make_safe")


# what some targets bring with them, besides what their declaration takes back ------------------------------------------


def _nothing(state: State, name: str, value: Any, entry: EntryMade) -> None:
    """Nothing follows."""


def _after_original(state: State, name: str, value: Any, entry: EntryMade) -> None:
    """What the board tells only while it lives, and hold points that it brings along."""
    adds = entry.adds
    if (family := adds.get("family")) and family != state["family"]:
        state["family"] = family
        for key in OF_THE_KIND:
            state[key] = {}  # type: ignore[literal-required]
    state["powered"], state["remembered"] = adds.get("powered", []), adds.get("remembered", [])
    if done(state, "make_safe") and any(point not in state["holds"] for point in adds.get("holds", ())):
        _reopen(state, "make_safe")


def _after_original_profile(state: State, name: str, value: Any, entry: EntryMade) -> None:
    """What its next revision tells of it; entries of earlier versions brought nothing along."""
    if entry.adds:
        _after_original(state, name, value, entry)


def _after_original_joined(state: State, name: str, value: Any, entry: EntryMade) -> None:
    """The same board under its own number: what was found on it stays, and what went in for another kind goes."""
    if (family := entry.adds.get("family")) and family != state["family"]:
        state.update(_without(state, "replacement"))
    state["original"], state["original_profile"] = value, None
    _after_original(state, name, value, entry)


def _after_replacement_joined(state: State, name: str, value: Any, entry: EntryMade) -> None:
    state["replacement"], state["replacement_profile"] = value, None


def _after_board(state: State, name: str, value: Any, entry: EntryMade) -> None:
    """A board that comes to the job has a sheet of its own; why it is changed along condemns it."""
    if name == FIRST:
        return
    boards = {each: part for each, part in state["boards"].items() if each != name}
    if value is not None:
        boards[name] = state["boards"].get(name) or fresh_board()
        if value.get("why") and name not in state["boards"]:
            condemned = {"note": value["why"], "end": "condemned", **entry.signed()}
            boards[name] = {**boards[name], "confirmed": {"rule_out": condemned}}
    state["boards"] = boards


def _after_asked(state: State, name: str, value: Any, entry: EntryMade) -> None:
    """What is asked anew is not answered yet."""
    state["answered"] = None


def _after_replacement(state: State, name: str, value: Any, entry: EntryMade) -> None:
    state["choice"] = entry.adds.get("choice")
    _reopen(state, "carry_over", "fit", "prove")


def _after_power(state: State, name: str, value: Any, entry: EntryMade) -> None:
    _supply_is_back(state)


def _after_hold(state: State, name: str, value: Any, entry: EntryMade) -> None:
    if value is not None and state["energised"] is not None:
        # somebody goes back to dead work: what was found in order before is looked at again
        state["energised"] = None
        _reopen(state, "make_safe", "fit", "prove")
    if entry.adds.get("isolates"):
        if value is None:
            _supply_is_back(state)
        state["power"] = "on" if value is None or value.get("skipped") else "off"


def _after_test(state: State, name: str, value: Any, entry: EntryMade) -> None:
    """A test that was made on a machine with power."""
    if entry.adds.get("powered"):
        _supply_is_back(state)


def _after_energised(state: State, name: str, value: Any, entry: EntryMade) -> None:
    if value is not None:
        state["power"], state["holds"] = "on", {}


def _after_signed(state: State, name: str, value: Any, entry: EntryMade) -> None:
    if value is not None and not value["ok"]:
        state["refused"] = [*state["refused"], value]
        state["signed"] = None
        _reopen(state, "hand_over")
    _close(state, entry)


def _after_ticked(state: State, name: str, value: Any, entry: EntryMade) -> None:
    if value is None:
        # what was moved back is not looked at a second time any more
        state["energised"] = None


def _after_found(state: State, name: str, value: Any, entry: EntryMade) -> None:
    """Set anew by hand, it is what stands: an angle that was read before does not count any more."""
    _put(state, "how", name, entry.read_how or None)
    _put(state, "angles", name, None)
    if UNREADABLE not in str(value):
        # what was read needs no assumption
        _put(state, "assumed", name, None)


def _after_unread(state: State, name: str, value: Any, entry: EntryMade) -> None:
    """All that nobody read stands as unreadable, and the board is not asked any more; taken back, it is to be read again."""
    state["answers"] = None if value is None else "no"
    if value is None:
        for element in [each for each, how in state["how"].items() if how == NOTHING_READ]:
            for key in ("found", "how", "assumed"):
                _put(state, key, element, None)
        return
    for element, unreadable in entry.adds.get("found", {}).items():
        _put(state, "found", element, unreadable)
        _put(state, "how", element, NOTHING_READ)


def _after_serial(state: State, name: str, value: Any, entry: EntryMade) -> None:
    """Where the new board is told the number, another number is another plan."""
    if entry.adds.get("planned"):
        _reopen(state, "carry_over", "fit", "prove")


def _after_angle(state: State, name: str, value: Any, entry: EntryMade) -> None:
    if value is not None:
        _put(state, "found", name, value["nearest"])
        _put(state, "how", name, "by angle")


def _after_blind(state: State, name: str, value: Any, entry: EntryMade) -> None:
    if value is not None and value["value"] != state["found"].get(name):
        _reopen(state, "record", "carry_over", "fit", "prove")


FOLLOWING = {
    "board": _after_board,
    "asked": _after_asked,
    "original": _after_original, "original_profile": _after_original_profile,
    "original_joined": _after_original_joined, "replacement_joined": _after_replacement_joined,
    "replacement": _after_replacement, "power": _after_power, "hold": _after_hold,
    "test": _after_test, "energised": _after_energised, "signed": _after_signed, "ticked": _after_ticked,
    "serial": _after_serial, "found": _after_found, "unread": _after_unread, "angle": _after_angle, "blind": _after_blind,
}  # fmt: skip


def _confirm(state: State, step: str, entry: EntryMade) -> None:
    if entry.after is None:
        _put(state, "confirmed", step, None)
        _reopen(state, *RESTS_ON.get(step, ()))
        return
    by_id = {"by_id": entry.adds["by_id"]} if "by_id" in entry.adds else {}
    _put(state, "confirmed", step, {**entry.after, **by_id, **entry.signed()})
    match step:
        case "record":
            state["rejudged"] = entry.adds.get("rejudged")
        case "fit":
            state["left"] = entry.adds.get("left")
        case "prove":
            state["verdict"] = entry.adds.get("verdict")
    _close(state, entry)


def _close(state: State, entry: EntryMade) -> None:
    """A job that closes with this entry keeps its head as it stood."""
    if closed_as := entry.adds.get("closed_as"):
        state["closed_as"] = closed_as
