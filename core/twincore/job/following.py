"""What some entries bring with them, besides what their targets' declarations take back."""

from typing import Any

from twincore.job.boards import fresh_board
from twincore.job.order import done
from twincore.job.state import State
from twincore.job.target import FIRST, EntryMade
from twincore.job.targets.record import NOTHING_READ
from twincore.job.touching import put, reopen, without
from twincore.profile.record import UNREADABLE

OF_THE_KIND = ("symptoms", "tests", "causes")
"""What was said of another kind of machine does not speak of this one."""


def _supply_is_back(state: State) -> None:
    """Every hold point starts anew."""
    state["power"], state["holds"] = "on", {}
    reopen(state, "make_safe")


def nothing(state: State, name: str, value: Any, entry: EntryMade) -> None:
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
        reopen(state, "make_safe")


def _after_original_profile(state: State, name: str, value: Any, entry: EntryMade) -> None:
    """What its next revision tells of it; entries of earlier versions brought nothing along."""
    if "powered" in entry.adds:
        _after_original(state, name, value, entry)


def _after_original_joined(state: State, name: str, value: Any, entry: EntryMade) -> None:
    """The same board under its own number: what was found on it stays, and what went in for another kind goes."""
    if (family := entry.adds.get("family")) and family != state["family"]:
        state.update(without(state, "replacement"))
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
    reopen(state, "carry_over", "fit", "prove")


def _after_power(state: State, name: str, value: Any, entry: EntryMade) -> None:
    _supply_is_back(state)


def _after_hold(state: State, name: str, value: Any, entry: EntryMade) -> None:
    if value is not None and state["energised"] is not None:
        # somebody goes back to dead work: what was found in order before is looked at again
        state["energised"] = None
        reopen(state, "make_safe", "fit", "prove")
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
        reopen(state, "hand_over")
    close(state, entry)


def _after_ticked(state: State, name: str, value: Any, entry: EntryMade) -> None:
    if value is None:
        # what was moved back is not looked at a second time any more
        state["energised"] = None


def _after_found(state: State, name: str, value: Any, entry: EntryMade) -> None:
    """Set anew by hand, it is what stands: an angle that was read before does not count any more."""
    put(state, "how", name, entry.read_how or None)
    put(state, "angles", name, None)
    if UNREADABLE not in str(value):
        # what was read needs no assumption
        put(state, "assumed", name, None)


def _after_unread(state: State, name: str, value: Any, entry: EntryMade) -> None:
    """All that nobody read stands as unreadable, and the board is not asked any more; taken back, it is to be read again."""
    state["answers"] = None if value is None else "no"
    if value is None:
        for element in [each for each, how in state["how"].items() if how == NOTHING_READ]:
            for key in ("found", "how", "assumed"):
                put(state, key, element, None)
        return
    for element, unreadable in entry.adds.get("found", {}).items():
        put(state, "found", element, unreadable)
        put(state, "how", element, NOTHING_READ)


def _after_serial(state: State, name: str, value: Any, entry: EntryMade) -> None:
    """Where the new board is told the number, another number is another plan."""
    if entry.adds.get("planned"):
        reopen(state, "carry_over", "fit", "prove")


def _after_angle(state: State, name: str, value: Any, entry: EntryMade) -> None:
    if value is not None:
        put(state, "found", name, value["nearest"])
        put(state, "how", name, "by angle")


def _after_blind(state: State, name: str, value: Any, entry: EntryMade) -> None:
    if value is not None and value["value"] != state["found"].get(name):
        reopen(state, "record", "carry_over", "fit", "prove")


FOLLOWING = {
    "board": _after_board,
    "asked": _after_asked,
    "original": _after_original, "original_profile": _after_original_profile,
    "original_joined": _after_original_joined, "replacement_joined": _after_replacement_joined,
    "replacement": _after_replacement, "power": _after_power, "hold": _after_hold,
    "test": _after_test, "energised": _after_energised, "signed": _after_signed, "ticked": _after_ticked,
    "serial": _after_serial, "found": _after_found, "unread": _after_unread, "angle": _after_angle, "blind": _after_blind,
}  # fmt: skip


def close(state: State, entry: EntryMade) -> None:
    """A job that closes with this entry keeps its head as it stood."""
    if closed_as := entry.adds.get("closed_as"):
        state["closed_as"] = closed_as
