"""What one entry does to a job: what stands at its target afterwards, and what it makes untrue."""

from typing import Any, cast

from twincore.job.rules.boards import fresh_board, own_part, speaks_of_all, turned
from twincore.job.rules.order import cleared
from twincore.job.rules.state import ConfirmedKept, State, empty_state
from twincore.job.target import FIRST, EntryMade, Step, Subject
from twincore.job.targets import CONFIRMATIONS, TARGETS
from twincore.job.touching import put, reopen

Parts = dict[str, Any]
"""A state by the names of its parts, while it is changed."""
GONE_WITH: dict[Subject, tuple[Subject, ...]] = {
    "kind": ("kind", "original", "replacement"), "original": ("original", "replacement"), "replacement": ("replacement",),
}  # fmt: skip
OUTLIVE_THE_ORIGINAL: tuple[Step, ...] = ("rule_out", "make_safe")
"""Confirmations that stay true whichever board it turns out to be."""


KEPT_BESIDE = tuple(sorted({"by_id", *(name for target in TARGETS.values() for name in target.keep.beside)}))
"""What is kept beside what was said: who, when and how, its turn, what held before the supply came back, which board."""


def value_at(state: State, target: str) -> Any:
    """What stands at a target now, as it was said; None where nothing does."""
    return as_said(_kept_at(cast(Parts, state), target))


def as_said(value: Any) -> Any:
    """A value without what is kept beside it."""
    if isinstance(value, dict):
        return {name: each for name, each in value.items() if name not in KEPT_BESIDE}
    return value


def _kept_at(state: Parts, target: str) -> Any:
    kind, _, name = target.partition(".")
    declared = TARGETS.get(kind)
    if declared is None:
        return state["confirmed"].get(name)
    kept = state[declared.key]
    return kept.get(name) if declared.named else kept


def changed(state: State, entry: EntryMade) -> State:
    """The state after an entry; what it makes untrue (a plan, a verdict) goes with it.

    The state before stays as it was; parts that the entry does not touch are the same objects in both.
    """
    after = _sheet_changed(turned(state, entry.board), entry)
    target = TARGETS.get(entry.target.partition(".")[0])
    if after["boards"] and not (target and target.opens_sheet):
        after = {**after, "boards": {name: _beside(state, after, name, entry) for name in after["boards"]}}
    return turned(after, state["board"])


def _beside(state: State, after: State, name: str, entry: EntryMade) -> dict[str, Any]:
    """What another board has of its own after an entry: what is said of the machine is said of each of its boards."""
    if speaks_of_all(entry.target):
        return own_part(_sheet_changed(turned(state, name), entry))
    if state["energised"] is None or after["energised"] is not None:
        return after["boards"][name]
    # somebody has to go back into the machine: what was found in order before is looked at again
    sheet = dict(turned(after, name))
    reopen(sheet, "fit", "prove")
    return own_part(cast(State, sheet))


def _sheet_changed(state: State, entry: EntryMade) -> State:
    after = _changed(dict(state), entry)
    if cleared(state) and not cleared(cast(State, after)):
        # what was looked at was looked at on a machine whose board was not the matter
        reopen(after, "prove")
    return cast(State, after)


def _changed(state: Parts, entry: EntryMade) -> Parts:
    """A state of its own, changed by an entry."""
    kind, _, name = entry.target.partition(".")
    if kind == "confirmed":
        _confirm(state, cast(Step, name), entry)
        return state
    target = TARGETS[kind]
    before = _kept_at(state, entry.target)
    value = None if entry.after is None else target.keep.kept(entry.after, entry, before, state)
    forgotten = target.forgets(state, entry) if callable(target.forgets) else target.forgets
    if forgotten is not None:
        state = _without(state, forgotten)
    if target.named:
        put(state, target.key, name, value)
    else:
        state[target.key] = value
    reopen(state, *target.takes_back)
    target.follows(state, name, value, entry)
    if target.opens_sheet:
        _sheet_opened(state, name, value, entry)
    _close(state, entry)
    return state


def _without(state: Parts, subject: Subject) -> Parts:
    """The state without what speaks of something that turned out to be another."""
    gone = {target.key for target in TARGETS.values() if target.of in GONE_WITH[subject]}
    if subject != "replacement":
        gone |= {"how", "powered", "remembered", "refused", "left", "verdict", "confirmed"}
    fresh = cast(Parts, empty_state())
    found = {**state, **{name: fresh[name] for name in (*gone, "choice", "rejudged")}}
    kept: dict[str, ConfirmedKept] = {} if subject != "original" else {
        step: said for step, said in state["confirmed"].items() if step in OUTLIVE_THE_ORIGINAL
    }  # fmt: skip
    if subject != "replacement":
        found["confirmed"] = kept
    return found


def _sheet_opened(state: Parts, name: str, value: Any, entry: EntryMade) -> None:
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


def _confirm(state: Parts, step: Step, entry: EntryMade) -> None:
    confirmation = CONFIRMATIONS[step]
    if entry.after is None:
        put(state, "confirmed", step, None)
        reopen(state, *confirmation.takes_back)
        return
    by_id = {"by_id": entry.adds["by_id"]} if "by_id" in entry.adds else {}
    put(state, "confirmed", step, {**entry.after, **by_id, **entry.signed()})
    if confirmation.settles:
        state[confirmation.settles] = entry.adds.get(confirmation.settles)
    _close(state, entry)


def _close(state: Parts, entry: EntryMade) -> None:
    """A job that closes with this entry keeps its head as it stood."""
    if closed_as := entry.adds.get("closed_as"):
        state["closed_as"] = closed_as
