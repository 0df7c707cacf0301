"""What a twin verdict comes from, in words: why two boards part, or what it rests on that they never do."""

from collections.abc import Iterator

from twincore.behaviour import Because, CounterCase, Move, Proof, Twin, why
from twincore.carry_over import Closest, Single, rate
from twincore.profile import Board, Family, Number
from twincore.profile.levels import Band
from twincore.profile.times import time_words
from twincore.profile.values import stands
from twinshown.comparison.wording import number, position_words, value_words

MOST_TOLD = 3
"""Transitions of one instant that are told."""


def why_words(twin: Twin, case: CounterCase) -> list[str]:
    """A sentence or more for each board."""
    one, other = why(twin, case)
    return [_because("The original", one, twin.family), _because("The replacement", other, twin.family)]


LIMITS = {"from": "at {} or above", "below": "below {}"}
LOOKED_AT = {
    "stepwise": "Step for step: wherever both can be ({count}), the same leads on to the same, after the same times and counts.",
    "lockstep": "Instant by instant: wherever both can be ({count}), the same is shown, whatever the inputs and the times.",
    "zones": "Every series of input changes, at any time, down to exact ages of the timers ({count}).",
}


def rests_words(proof: Proof, family: Family) -> list[str]:
    """What it rests on that two boards are in register: what was looked at, and what was taken for granted."""
    found = []
    if proof.method in LOOKED_AT:
        count = f"{proof.explored:,} situation{'' if proof.explored == 1 else 's'}"
        found.append(LOOKED_AT[proof.method].format(count=count))
    if proof.symbols:
        levels = any(family.inputs.values())
        what = f"input{'' if proof.symbols == 1 else 's'}{' and thresholds that a level passes' if levels else ''}"
        found.append(f"Followed: every change of {proof.symbols} {what}; whatever else changes, neither reads it.")
    for combination in family.never_together:
        told = " and ".join(f"“{family.titles[name]}” {stands(value)}" for name, value in combination.items())
        found.append(f"Taken for granted: {told} never come together.")
    return found


def single_words(singles: list[Single]) -> str:
    """Which single settings of the replacement bring it into register; empty where none does."""
    if not singles:
        return ""
    told = [f"{each.point} at {position_words(each.position)}" for each in singles]
    within = " (within tolerance)" if all(each.verdict != "identical" for each in singles) else ""
    return f"One setting alone would bring them into register{within}: {', or '.join(told)}."


def closest_words(closest: Closest | None, case: CounterCase, family: Family) -> str:
    """Which settings together come closer to the original than these, and how much; empty where none does."""
    if closest is None:
        return ""
    told = " and ".join(f"{point} at {position_words(value)}" for point, value in closest.positions.items())
    if closest.case is None:
        return f"With {told} they are in register."
    now, then = rate(case, family), rate(closest.case, family)
    if now is not None and then is not None and then < now:
        better = f"it comes up at most {_times(then)} a day that the two differ, not {_times(now)}"
    elif closest.case.changes > case.changes:
        better = f"it takes {closest.case.changes} input changes to tell the two apart, not {case.changes}"
    else:
        better = f"the two part at {time_words(closest.case.at)} at the earliest, not at {time_words(case.at)}"
    return f"Closer by what they do, though not by every function: with {told} {better}."


def _times(rate: float) -> str:
    """How often in words: "twice", "0.1 times"."""
    return {1.0: "once", 2.0: "twice"}.get(rate, f"{rate:g} times")


def _because(who: str, because: Because, family: Family) -> str:
    if because.does:
        moves = because.does[-MOST_TOLD:]
        told = [f"from “{each.left}” to “{each.entered}”{_for(each, because.board, family)}" for each in moves]
        return f"{who} goes {', then '.join(told)}."
    stays = f"{who} stays as it is"
    if because.states:
        stays = f"{who} stays in {', '.join(f'“{state}”' for state in because.states)}"
    if not because.waits:
        return f"{stays}."
    first = because.waits[0]
    return f"{stays}, and would go on at {time_words(first.at)}{_for(first, because.board, family)}."


def _for(move: Move, board: Board, family: Family) -> str:
    """The conditions of a transition with the settings behind them; empty where it has none."""
    told = list(_conditions(move, board, family))
    return f", because {' and '.join(told)}" if told else ""


def _conditions(move: Move, board: Board, family: Family) -> Iterator[str]:
    transition = move.transition
    for name, wanted in transition.conditions:
        title = family.titles.get(name, name)
        if isinstance(wanted, Band):
            level = family.inputs[name]
            unit = f" {level.unit}" if level is not None and level.unit else ""
            limits = [
                LIMITS[key].format(f"{number(limit.at(move.values))}{unit}") for key, limit in wanted.limits.items()
            ]
            yield f"“{title}” is {' and '.join(limits)}" + _set_at(
                [x.function for x in wanted.limits.values() if x.function], board
            )
        else:
            yield f"“{title}” is {stands(wanted)}"
    if transition.after is not None:
        yield _amount(transition.after, move, board, family, "s") + " are over"
    limit = transition.reached if transition.reached is not None else transition.below
    if limit is not None:
        reached = "has reached" if transition.reached is not None else "is below"
        yield f"“{transition.counter}” {reached} {_amount(limit, move, board, family, '')}"
    for name, value in transition.when:
        definition = family.function(name)
        said = value_words(value, definition) if definition else str(value)
        yield f"“{family.titles.get(name, name)}” is {said}" + _set_at([name], board)


def _amount(amount: Number | str, move: Move, board: Board, family: Family, unit: str) -> str:
    """A number, or what a function stands at with where it is set."""
    if not isinstance(amount, str):
        return f"{number(amount)} {unit}".rstrip()
    definition = family.function(amount)
    value = move.values[amount]
    said = value_words(value, definition) if definition else f"{value} {unit}".rstrip()
    return f"{said} of “{family.titles.get(amount, amount)}”" + _set_at([amount], board)


def _set_at(functions: list[str], board: Board) -> str:
    """Where functions are set on a board, in brackets; empty where nothing sets them."""
    points = [point for name in functions if name in board.functions for point in board.functions[name].scope]
    absent = [name for name in functions if name not in board.functions]
    if points:
        return f" (set at {', '.join(dict.fromkeys(points))})"
    return " (no setting on this board)" if absent else ""
