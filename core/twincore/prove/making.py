"""How each change of a run is made on the machine, in the order of the work: by a hand, or by itself from what the machine does.

An input that follows an output (a flame follows the gas valve) begins and ends by itself only while that output says so; at any
other time a hand makes it, and where a run wants it to stay away while the output is on, a hand keeps it away beforehand.
"""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass

from twincore.behaviour.simulate import Shown
from twincore.profile import Scenario
from twincore.prove.data import Forcing


@dataclass(frozen=True, slots=True)
class PlannedStep:
    """One input change of a run: by which way it comes here, and how."""

    at: float
    input: str
    value: bool | float
    """On or off; of a level where it goes."""
    forcing: Forcing
    way: str
    how: str
    undo: str


@dataclass(frozen=True, slots=True)
class Kept:
    """What a hand does before a run so that an input stays away all through it, and how that is undone."""

    input: str
    how: str
    undo: str


def steps_made(
    scenario: Scenario, forcing: Mapping[str, Forcing], shown: Sequence[Shown] | None, exact: bool = False
) -> tuple[tuple[PlannedStep, ...], tuple[Kept, ...]]:
    """Every change with how it is made, and what is kept away beforehand; `shown` is what the board does in this run, None
    where nobody knows.

    The times of a checkout run are about when things happen: what follows an output that comes on begins with it. In a
    counter-case (`exact`) an input that begins while its output is off is made by a hand.
    """
    steps = tuple(
        _step(float(step.at), name, value, forcing[name], shown, exact)
        if isinstance(value, bool)
        else _brought(float(step.at), name, float(value), forcing[name])
        for step in scenario.steps
        for name, value in step.set
    )
    begun = {step.input for step in steps if step.value is True}
    kept = tuple(
        Kept(each.input, each.keep_off, each.undo)
        for each in forcing.values()
        if each.keep_off and each.input not in begun and _comes_on(each.output, shown)
    )
    return steps, kept


def _brought(at: float, name: str, value: float, forcing: Forcing) -> PlannedStep:
    """A level that is brought to a value: by heating, filling, or setting what it is read by."""
    return PlannedStep(at, name, value, forcing, forcing.way, forcing.begin, forcing.undo)


def _step(
    at: float, name: str, value: bool, forcing: Forcing, shown: Sequence[Shown] | None, exact: bool
) -> PlannedStep:
    own = forcing.begin if value else forcing.end
    if forcing.way != "follows" or not forcing.output or shown is None:
        return PlannedStep(at, name, value, forcing, forcing.way, own, forcing.undo)
    if _is_on(forcing.output, at, shown) == value or (value and not exact and _comes_on(forcing.output, shown)):
        return PlannedStep(at, name, value, forcing, "follows", own, "")
    by_hand = forcing.make_begin if value else forcing.make_end
    return PlannedStep(at, name, value, forcing, "hand", by_hand, forcing.undo)


def _is_on(output: str, at: float, shown: Sequence[Shown]) -> bool:
    """Whether an output is on just before an instant; at the very beginning, as the board then stands."""
    before = [each for each in shown if float(each.at) < at] or list(shown[:1])
    return bool(before) and output in before[-1].on


def _comes_on(output: str, shown: Sequence[Shown] | None) -> bool:
    return any(output in each.on for each in shown or ())
