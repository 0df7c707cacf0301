"""The order of the work: what is done, what waits for what, and which step is in hand."""

from collections.abc import Container, Sequence
from typing import Literal, get_args

from twincore.job.rules.boards import names_of, other_sheets, sheets, turned
from twincore.job.rules.state import State
from twincore.job.target import Need, Step, Target
from twincore.job.targets import TARGETS

STEPS: tuple[Step, ...] = get_args(Step)
OVER_PORT = "read over the port"
NEEDS: dict[Step, tuple[Need, ...]] = {
    "choose": ("recognise",),
    "record": ("recognise", "make_safe"),
    "carry_over": ("choose", "record"),
    "fit": ("make_safe", "choose", "carry_over"),
    "prove": ("fit", "cause"),
    "hand_over": ("rule_out", "prove"),
}
"""What must be done before a step can be worked on; hold points stand before everything that is touched."""


LEFT_OUT: tuple[Step, ...] = ("recognise", "choose", "record", "carry_over", "fit")
"""Steps that a machine whose board was cleared does not go through."""


def cleared(state: State) -> bool:
    """Whether it turned out not to be the board: then what was wrong is put right, and nothing is exchanged."""
    said = state["confirmed"].get("rule_out")
    return said is not None and said.get("end") == "cleared"


def step_of(target: str) -> Step:
    """The step in which a target is worked on."""
    kind, _, name = target.partition(".")
    if kind in TARGETS:
        return TARGETS[kind].step
    return next(step for step in STEPS if step == name)


def done(state: State, step: str) -> bool:
    """Whether a step is finished."""
    if step == "recognise":
        return state["original"] is not None
    if step == "choose":
        return state["replacement"] is not None and not state["rejudged"]
    return step in state["confirmed"]


def settled(state: State, step: str) -> bool:
    """Whether nothing more is to be done in a step: done, or, of making safe, past, for the supply is back on purpose."""
    return done(state, step) or (step == "make_safe" and state["energised"] is not None)


def uncleared_causes(state: State) -> list[str]:
    """Causes of the board's death that are still there and block power to the new board."""
    return [name for name, cause in state["causes"].items() if cause["blocks"] and not cause["cleared"]]


def waiting_for(state: State, step: str) -> list[Need]:
    """What a step still waits for."""
    others = _others_undone(state) if step == "hand_over" else []
    if cleared(state):
        off: list[Need] = ["energised"] if step == "prove" and state["power"] == "off" else []
        return off or (_undone(state, ("prove",)) + others if step == "hand_over" else [])
    if step == "fit" and state["energised"] is not None:
        return _undone(state, ("carry_over",))
    if step == "record" and state["energised"] is not None:
        # the old board is out: what was read off it can be put right without touching the machine
        return _undone(state, ("recognise",))
    return _undone(state, next((needs for each, needs in NEEDS.items() if each == step), ())) + others


def _others_undone(state: State) -> list[Need]:
    return [] if all(proved(each) for each in other_sheets(state)) else ["boards"]


def proved(state: State) -> bool:
    """Whether nothing more is to be done on a board but to hand it over."""
    return done(state, "prove") and (cleared(state) or done(state, "rule_out"))


def target_waits_for(state: State, target: str, read_how: str = "") -> list[Need]:
    """What an entry still waits for: its target's own needs, else those of its step."""
    kind, _, name = target.partition(".")
    if target == "confirmed.fit":
        return _undone(state, ("carry_over", "energised"))
    if kind == "energised" and state["boards"]:
        # what of each board is not done yet is said there, and may be left with a reason
        return _undone(state, ("make_safe", "cause"))
    if cleared(state) and kind == "energised":
        return []
    declared = TARGETS.get(kind)
    if declared is not None and read_live(state, declared, name, read_how):
        return _undone(state, ("recognise",))
    if declared is not None and said_live(declared, name):
        return _undone(state, ("carry_over", "energised"))
    if declared is not None and declared.waits_for is not None:
        return _undone(state, declared.waits_for)
    return waiting_for(state, step_of(target))


def read_live(state: State, target: Target, name: str, read_how: str) -> bool:
    """Whether what is said was read of a board with power: nothing else shows it, or it was asked over the port."""
    return target.live_reading and (name in state["powered"] or read_how == OVER_PORT)


def said_live(target: Target, name: str) -> bool:
    """Whether a name of a target is one that is said with the supply on."""
    return bool(target.live_names) and name.startswith(target.live_names)


def _undone(state: State, wanted: tuple[Need, ...]) -> list[Need]:
    def still_open(each: Need) -> bool:
        if each == "cause":
            return any(map(uncleared_causes, sheets(state)))
        return state["energised"] is None if each == "energised" else not done(state, each)

    return [each for each in wanted if still_open(each)]


def unread_powered(state: State) -> list[str]:
    """What only a board with power can tell and nobody has read yet; nothing where it was found not to answer."""
    if state["answers"] == "no":
        return []
    unread = [name for name in state["powered"] if name not in state["found"]]
    return unread + [name for name in state["remembered"] if name not in state["kept"]]


def step_in_hand(state: State) -> Step:
    """The first step, in the order of the work, that is not done and waits for nothing; the last one in the end.

    What needs power is recorded before the machine is made safe. Where the board was cleared, what was put right is said
    first; then the supply is back on, and the machine is looked at.
    """
    if cleared(state):
        if not state["repairs"]:
            return "rule_out"
        return "make_safe" if state["power"] == "off" else "hand_over" if done(state, "prove") else "prove"
    for step in STEPS:
        if step == "make_safe" and not done(state, "record") and done(state, "choose") and unread_powered(state):
            return "record"
        if not settled(state, step) and not waiting_for(state, step):
            return step
    return STEPS[-1]


def board_in_hand(state: State, order: Sequence[str] = (), ready: Container[str] = ()) -> str:
    """The board to go on with: the one that is least far, for all are known before the machine is opened and all recorded
    before a wire comes off; of those that are equally far, the first in `order`. A board that is `ready` waits for power.
    """
    names = [name for name in order if name in names_of(state)]
    names += [name for name in names_of(state) if name not in names]
    return min(names, key=lambda name: _far(turned(state, name)) + (0.5 if name in ready else 0))


def _far(state: State) -> float:
    """How far a board is; what only a board with power tells is read before the machine is made safe."""
    if proved(state) or (cleared(state) and done(state, "prove")):
        return STEPS.index("hand_over")
    step = step_in_hand(state)
    early = step == "record" and not done(state, "make_safe") and state["energised"] is None
    return STEPS.index("make_safe") - 0.5 if early else STEPS.index(step)


Standing = Literal["done", "open", "waiting", "left out"]


def standing(state: State, step: str, closed: bool) -> Standing:
    """How a step stands. Handing over is done with the closing; of the record, what needs power opens with the board."""
    if cleared(state) and step in LEFT_OUT and not settled(state, step):
        return "left out"
    if settled(state, step) and (step != "hand_over" or closed):
        return "done"
    if not waiting_for(state, step) or (step == "record" and done(state, "recognise")):
        return "open"
    return "waiting"


def still_forced(state: State) -> list[str]:
    """The overrides that nobody has switched off, on any board; one that ends by itself is on the list all the same."""
    return [each["what"] for sheet in sheets(state) for each in sheet["forced"].values() if not each["off"]]
