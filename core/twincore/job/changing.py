"""What one entry does to a job: what stands at its target afterwards, and what it makes untrue."""

from typing import Any, cast

from twincore.job.boards import own_part, speaks_of_all, turned
from twincore.job.following import FOLLOWING, OF_THE_KIND, close, nothing
from twincore.job.order import cleared
from twincore.job.state import State
from twincore.job.target import EntryMade, Step, Target
from twincore.job.targets import TARGETS
from twincore.job.touching import put, reopen, without

ADDING: dict[str, tuple[str, ...]] = {
    "original": ("family", "powered", "remembered", *OF_THE_KIND, "confirmed"), "replacement": ("choice",),
    "original_profile": ("powered", "remembered", "confirmed"),
    "original_joined": ("original", "original_profile", "family", "powered", "remembered", *OF_THE_KIND, "confirmed"),
    "cause": ("causes",), "hold": ("power", "holds", "confirmed", "energised"),
    "test": ("power", "holds", "confirmed"), "confirmed.record": ("rejudged",), "confirmed.fit": ("left",), "confirmed.prove": ("verdict",),
}  # fmt: skip
"""Targets whose entries bring along what no entry holds (`adds`), and what of the state hangs on that."""
KEPT_BESIDE = ("by", "by_id", "at", "n", "blocks", "held", "board", "began", "how", "undo")
"""What is kept beside what was said: who, when and how, its turn, what held before the supply came back, which board."""
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
    reopen(sheet, "fit", "prove")
    return own_part(sheet)


def _sheet_changed(state: State, entry: EntryMade) -> State:
    was_cleared = cleared(state)
    after = _changed(cast(State, dict(state)), entry)
    if was_cleared and not cleared(after):
        # what was looked at was looked at on a machine whose board was not the matter
        reopen(after, "prove")
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
        state = without(state, target.of)
    _set(state, target, name, value)
    reopen(state, *target.takes_back)
    FOLLOWING.get(kind, nothing)(state, name, value, entry)
    return state


def _set(state: State, target: Target, name: str, value: Any) -> None:
    if target.named:
        put(state, target.key, name, value)
    else:
        cast(dict[str, Any], state)[target.key] = value


def _confirm(state: State, step: str, entry: EntryMade) -> None:
    if entry.after is None:
        put(state, "confirmed", step, None)
        reopen(state, *RESTS_ON.get(step, ()))
        return
    by_id = {"by_id": entry.adds["by_id"]} if "by_id" in entry.adds else {}
    put(state, "confirmed", step, {**entry.after, **by_id, **entry.signed()})
    match step:
        case "record":
            state["rejudged"] = entry.adds.get("rejudged")
        case "fit":
            state["left"] = entry.adds.get("left")
        case "prove":
            state["verdict"] = entry.adds.get("verdict")
    close(state, entry)
