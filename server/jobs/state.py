"""The state of a job as plain data, and what one entry does to it. Nothing here reads the database or the clock."""

from copy import deepcopy
from typing import Any

State = dict[str, Any]

STEPS = (
    "rule_out", "recognise", "choose", "make_safe", "record", "carry_over", "fit", "prove", "hand_over",
)  # fmt: skip
SINGLE = {
    "family": "rule_out", "serial": "recognise", "original": "recognise", "replacement": "choose",
    "power": "make_safe", "answers": "record", "school": "carry_over", "order": "carry_over", "energised": "fit",
    "learned": "fit", "old_board": "hand_over", "signed": "hand_over",
}  # fmt: skip
"""Targets that stand for themselves, with the step in which they are worked on."""
NAMED = {
    "symptom": ("symptoms", "rule_out"), "report": ("report", "rule_out"), "test": ("tests", "rule_out"),
    "cause": ("causes", "rule_out"), "plate": ("plates", "recognise"), "fact": ("facts", "recognise"),
    "revision": ("revisions", "recognise"), "feature": ("features", "recognise"), "wish": ("wishes", "choose"),
    "cost": ("costs", "choose"), "hold": ("holds", "make_safe"), "found": ("found", "record"),
    "angle": ("angles", "record"), "blind": ("blind", "record"), "kept": ("kept", "record"),
    "trace": ("traces", "record"), "picture": ("pictures", "record"), "wire": ("wires", "record"),
    "plug": ("plugs", "record"), "settled": ("settled", "record"), "removed": ("removed", "record"),
    "moving": ("moving", "record"), "temporary": ("temporary", "record"),
    "override": ("overrides", "carry_over"), "decision": ("decisions", "carry_over"),
    "reason": ("reasons", "carry_over"), "kit": ("kit", "fit"), "readback": ("readbacks", "fit"),
    "look": ("looks", "fit"), "ticked": ("ticked", "fit"), "reentered": ("reentered", "fit"), "run": ("runs", "prove"),
    "reading": ("readings", "prove"), "forced": ("forced", "prove"), "defect": ("defects", "hand_over"),
    "numbered": ("numbered", "hand_over"), "spent": ("spent", "hand_over"),
    "correction": ("corrections", "hand_over"), "feedback": ("feedback", "hand_over"),
}  # fmt: skip
"""Targets with a name (`found.S1`): where they stand in the state, and the step in which they are worked on."""
WITHOUT_HOLD = ("kept", "trace", "picture", "answers")
"""What of the record is done before the machine is dead, or does not need it to be."""
AFTER_CLOSING = ("correction", "feedback")
"""What may be added to a job that is closed."""
ANY_TIME = ("defect", "numbered", "spent", "old_board", "forced")
"""What is noted whenever it comes up; that an override is off can always be said."""
WITH_POWER = "on "
"""How the names of looks begin that are taken with the supply on."""
OF_THE_NEW_BOARD = ("kit", "readbacks", "looks", "ticked", "reentered")
"""What was done with the board that was chosen; another one starts anew. Runs that were made are kept."""
OVER_PORT = "read over the port"
NOTED = ("defects", "numbered", "spent", "old_board")
"""What is noted of the work itself, whichever board it turns out to be."""
KEPT_BY_FAMILY = ("report", "facts", "plates", "holds", "power", *NOTED)
FOUND_OUT = (
    "family", "serial", "symptoms", "report", "tests", "causes", "plates", "facts", "revisions", "features", "holds",
    "power", *NOTED,
)  # fmt: skip
"""What stays when the family, or the original, turns out to be another."""


def empty_state() -> State:
    """A job about which nothing is known yet."""
    return {
        "family": None, "original": None, "replacement": None, "serial": None, "choice": None, "how": {},
        "confirmed": {}, "left": None, "verdict": None, "power": "on", "answers": None, "school": None, "order": None,
        "powered": [], "remembered": [], "rejudged": None, "energised": None, "learned": None, "old_board": None,
        "signed": None, "refused": [], **{key: {} for key, _ in NAMED.values()},
    }  # fmt: skip


def value_at(state: State, target: str) -> Any:
    """What stands at a target now; None where nothing does."""
    kind, _, name = target.partition(".")
    if kind in SINGLE:
        return _as_sent(state.get(kind))
    if kind in NAMED:
        return _as_sent(state.get(NAMED[kind][0], {}).get(name))
    return _as_sent(state["confirmed"].get(name))


KEPT_BESIDE = ("by", "by_id", "at", "n", "blocks", "held", "board", "began", "how")
"""What the server adds to a value: who, when and how, its turn, what held before the supply came back, which board."""


def _as_sent(value: Any) -> Any:
    """What a client sends and sees: without who did it, when, as which one, and what the family's data adds."""
    if isinstance(value, dict):
        return {name: each for name, each in value.items() if name not in KEPT_BESIDE}
    return value


def changed(state: State, target: str, value: Any, read_how: str = "") -> State:
    """The state after an entry; what the change makes untrue (a plan, a verdict) goes with it."""
    state = empty_state() | deepcopy(state)
    kind, _, name = target.partition(".")
    match kind:
        case "family":
            state = empty_state() | {key: state[key] for key in KEPT_BY_FAMILY} | {
                "family": value, "serial": state["serial"],
            }  # fmt: skip
        case "serial":
            state["serial"] = value
        case "original":
            kept = {step: c for step, c in state["confirmed"].items() if step in ("rule_out", "make_safe")}
            state = empty_state() | {key: state[key] for key in FOUND_OUT} | {"original": value, "confirmed": kept}
        case "replacement":
            state["replacement"], state["choice"], state["rejudged"] = value, None, None
            state["overrides"], state["reasons"], state["decisions"], state["school"] = {}, {}, {}, None
            state |= {key: {} for key in OF_THE_NEW_BOARD} | {"energised": None, "learned": None}
            _reopen(state, "carry_over", "fit", "prove")
        case "power":
            # the supply came back: every hold point starts anew
            state["power"], state["holds"] = "on", {}
            _reopen(state, "make_safe")
        case "energised":
            state["energised"] = value
            if value is not None:
                state["power"], state["holds"] = "on", {}
            _reopen(state, "make_safe", "fit", "prove")
        case "signed":
            state["signed"] = value
            if value is not None and not value["ok"]:
                state["refused"] = [*state["refused"], value]
                state["signed"] = None
                _reopen(state, "hand_over")
        case "answers" | "school" | "order" | "learned" | "old_board":
            state[kind] = value
            _reopen(state, *_untrue_after(kind))
        case "confirmed":
            _set(state["confirmed"], name, value)
            if value is None:
                _reopen(state, *({"carry_over": ("fit", "prove"), "fit": ("prove",)}.get(name, ())))
        case _:
            _set(state[NAMED[kind][0]], name, value)
            _reopen(state, *_untrue_after(kind))
            if kind == "ticked" and value is None:
                # what was moved back is not looked at a second time any more
                state["energised"] = None
            if kind == "found":
                # set anew by hand, it is what stands: an angle that was read before does not count any more
                _set(state["how"], name, read_how or None)
                state["angles"].pop(name, None)
            if kind == "blind" and value is not None and value["value"] != state["found"].get(name):
                _reopen(state, "record", "carry_over", "fit", "prove")
    return state


def _untrue_after(kind: str) -> tuple[str, ...]:
    """The confirmations that a change takes back."""
    return {
        "test": ("rule_out",), "symptom": ("rule_out",), "hold": ("make_safe",), "reason": ("carry_over",),
        **dict.fromkeys(("found", "angle", "wire", "plug", "settled"), ("record", "carry_over", "fit", "prove")),
        **dict.fromkeys(("override", "wish", "decision", "school", "order"), ("carry_over", "fit", "prove")),
        # the leaflet's table hangs on them
        **dict.fromkeys(("fact", "plate"), ("carry_over", "fit", "prove")),
        **dict.fromkeys(("kit", "readback", "look", "ticked", "reentered", "learned"), ("fit", "prove")),
        **dict.fromkeys(("run", "reading", "forced"), ("prove",)),
    }.get(kind, ())  # fmt: skip


def _set(names: dict[str, Any], name: str, value: Any) -> None:
    if value is None:
        names.pop(name, None)
    else:
        names[name] = value


def _reopen(state: State, *steps: str) -> None:
    for step in steps:
        state["confirmed"].pop(step, None)
    if "prove" in steps:
        state["verdict"] = None
    if "fit" in steps:
        state["left"] = None


def done(state: State, step: str) -> bool:
    """Whether a step is finished."""
    if step == "recognise":
        return state["original"] is not None
    if step == "choose":
        return state["replacement"] is not None and not state.get("rejudged")
    return step in state["confirmed"]


def needs(step: str) -> tuple[str, ...]:
    """The steps that must be done before one can be worked on; the hold point stands before everything that is touched."""
    return {
        "choose": ("recognise",),
        "record": ("recognise", "make_safe"),
        "carry_over": ("choose", "record"),
        "fit": ("make_safe", "carry_over"),
        "prove": ("fit", "cause"),
        "hand_over": ("rule_out", "prove"),
    }.get(step, ())


def uncleared_causes(state: State) -> list[str]:
    """Causes of the board's death that are still there and block power to the new board."""
    return [name for name, cause in state.get("causes", {}).items() if cause["blocks"] and not cause["cleared"]]


def settled(state: State, step: str) -> bool:
    """Whether nothing more is to be done in a step: done, or, of making safe, past, for the supply is back on purpose."""
    return done(state, step) or (step == "make_safe" and state.get("energised") is not None)


def waiting_for(state: State, step: str) -> list[str]:
    """The steps that a step still waits for; "cause" where what killed the board is still there."""
    wanted = needs(step)
    if step == "fit" and state.get("energised") is not None:
        wanted = ("carry_over",)
    return _undone(state, wanted)


def target_waits_for(state: State, target: str, read_how: str = "") -> list[str]:
    """The steps that an entry still waits for: those of its step, but for what is read before the machine is dead."""
    kind, _, name = target.partition(".")
    live = name in state.get("powered", []) or read_how == OVER_PORT
    if kind in WITHOUT_HOLD or (kind == "found" and live):
        return _undone(state, ("recognise",))
    if kind in ("power", "hold", *AFTER_CLOSING, *ANY_TIME):
        return []
    if kind in ("kit", "readback"):
        return _undone(state, ("carry_over",))
    if kind in ("look", "ticked"):
        return _undone(state, ("carry_over", "energised" if name.startswith(WITH_POWER) else "make_safe"))
    if kind == "energised":
        return _undone(state, ("carry_over", "make_safe", "cause"))
    if kind in ("reentered", "learned") or target == "confirmed.fit":
        return _undone(state, ("carry_over", "energised"))
    if step_of(target) == "record" and state.get("energised") is not None:
        # the old board is out: what was read off it can be put right without touching the machine
        return _undone(state, ("recognise",))
    return waiting_for(state, step_of(target))


def _undone(state: State, wanted: tuple[str, ...]) -> list[str]:
    def open_still(each: str) -> bool:
        if each == "cause":
            return bool(uncleared_causes(state))
        return state.get("energised") is None if each == "energised" else not done(state, each)

    return [each for each in wanted if open_still(each)]


def unread_powered(state: State) -> list[str]:
    """What only a board with power can tell and nobody has read yet; nothing where it was found not to answer."""
    if state.get("answers") == "no":
        return []
    unread = [name for name in state.get("powered", []) if name not in state["found"]]
    return unread + [name for name in state.get("remembered", []) if name not in state["kept"]]


def step_in_hand(state: State) -> str:
    """The first step, in the order of the work, that is not done and waits for nothing; the last one in the end.

    What needs power is recorded before the machine is made safe.
    """
    for step in STEPS:
        if step == "make_safe" and not done(state, "record") and done(state, "choose") and unread_powered(state):
            return "record"
        if not settled(state, step) and not waiting_for(state, step):
            return step
    return STEPS[-1]


def step_of(target: str) -> str:
    """The step in which a target is worked on."""
    kind, _, name = target.partition(".")
    if kind in SINGLE:
        return SINGLE[kind]
    if kind in NAMED:
        return NAMED[kind][1]
    return name
