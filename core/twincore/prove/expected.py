"""When each event is due, and how much earlier or later it may come: the family's tolerances carried to each event.

Every duration is moved to either end of its tolerance by itself, and the board is run again with it; how far an event
moves is what that duration may do to it. What several durations may do adds up (sensitivities, first order).
"""

from collections.abc import Mapping
from dataclasses import dataclass
from fractions import Fraction

from twincore.behaviour.simulate import Shown, run_values
from twincore.profile import Board, Family, Number, Scenario, Value
from twincore.profile.values import as_number


@dataclass(frozen=True, slots=True)
class Expected:
    """An output goes on or off: when it is due, and the earliest and latest that tolerances allow, all in seconds."""

    output: str
    on: bool
    at: float
    low: float
    high: float


def expected_events(board: Board, values: Mapping[str, Value], family: Family, scenario: Scenario) -> list[Expected]:
    """What a board whose functions have these values shows over a scenario, event by event, in order of time.

    Only outputs that the family compares. Events that tolerances may bring in before the scenario's end are among them.
    """
    assert board.behaviour is not None  # callers ask for boards whose behaviour is known
    named = board.behaviour.named_functions()
    movable = [
        each for each in family.functions if each.type == "duration" and each.id in named and each.id in values
        and (each.below or each.above)
    ]  # fmt: skip
    slack: Number = sum((each.below for each in movable), Fraction(0))
    longer = Scenario(scenario.title, scenario.steps, Fraction(scenario.until) + Fraction(slack))
    base = changes(run_values(board, dict(values), family, longer), family)
    low = [Fraction(at) for _, _, at in base]
    high = list(low)
    for each in movable:
        for by in (-Fraction(each.below), Fraction(each.above)):
            moved = max(Fraction(0), Fraction(as_number(values[each.id])) + by)
            if by == 0:
                continue
            # what comes later in this run may only come after the scenario's end
            patient = Scenario("", longer.steps, longer.until + abs(by) * (len(base) + 1))
            run = changes(run_values(board, {**values, each.id: moved}, family, patient), family)
            for index, shift in _shifts(base, run, abs(by)):
                if shift < 0:
                    low[index] += shift
                else:
                    high[index] += shift
    return [
        Expected(output, on, float(at), float(max(low[index], Fraction(0))), float(high[index]))
        for index, (output, on, at) in enumerate(base)
        if low[index] <= scenario.until
    ]


Change = tuple[str, bool, Number]


def changes(shown: list[Shown], family: Family) -> list[Change]:
    """The events of a run: which output, on or off, when; what is on at 0 s goes on then."""
    found: list[Change] = []
    before: set[str] = set()
    for entry in shown:
        now = {name for name in entry.on if name in family.compared}
        found += [(name, name in now, entry.at) for name in sorted(before ^ now)]
        before = now
    return found


def _shifts(base: list[Change], run: list[Change], by: Fraction) -> list[tuple[int, Fraction]]:
    """How far each event of the base moved in another run, output by output in order.

    A duration that runs once for every event before moves an event by no more than that; where it moved further, the
    run took another course (a try more, a lockout less), and says nothing about this event and those after it.
    """
    found = []
    for output in {name for name, _, _ in base}:
        mine = [index for index, each in enumerate(base) if each[0] == output]
        theirs = [each for each in run if each[0] == output]
        for index, other in zip(mine, theirs, strict=False):
            shift = Fraction(other[2]) - Fraction(base[index][2])
            if abs(shift) > by * (index + 1):
                break
            found.append((index, shift))
    return found
