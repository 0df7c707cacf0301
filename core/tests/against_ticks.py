"""The exact search held against the explicit one in ticks, pair by pair."""

from collections.abc import Iterable
from fractions import Fraction
from random import Random
from typing import Any

from django.test import SimpleTestCase

from tests import random_boards
from tests.builders import twin_of
from tests.tick_search import TICKS, Plain, Settles, at_rest, fewest_changes
from twincore import behaviour, profile
from twincore.behaviour.simulate import run_values
from twincore.errors import DocumentError, EndlessLoopError

TICK = Fraction(1, TICKS)
Made = tuple[dict[str, Any], list[dict[str, Any]], behaviour.Twin] | None
"""A family, two boards and their twin; None where one was refused."""


def made_of(rng: Random, family: dict[str, Any], boards: list[dict[str, Any]]) -> Made:
    """Two random boards, both standing alike."""
    try:
        stand = random_boards.positions(rng, boards[0])
        alike = boards[0]["settings"] == boards[1]["settings"]
        return (
            family,
            boards,
            twin_of(family, boards, [stand, stand if alike else random_boards.positions(rng, boards[1])]),
        )
    except DocumentError:
        return None


def both_ways(made: Made) -> tuple[int | str | None, behaviour.Proof] | None:
    """The fewest changes by the search in ticks ("endless", or None where there is no difference), and the proof by the exact
    one; None for a pair that was refused, never settles at rest, or is too large for ticks.
    """
    if made is None or made[2].undecided:
        return None
    family, boards, twin = made
    try:
        expected = fewest_changes(family, boards, [dict(v) for v in twin.values], most=40_000)
        return None if expected == "large" else (expected, behaviour.prove(twin))
    except (Settles, EndlessLoopError):
        return None


def agree(expected: int | str | None, proof: behaviour.Proof) -> bool:
    """Whether both searches say the same."""
    changes = proof.counter_case.changes if proof.counter_case else None
    if expected == "endless":
        return proof.verdict == "not proved" and changes is None and bool(proof.endless)
    return changes == expected and (changes is not None or (proof.verdict != "not proved" and not proof.endless))


class ShownAsInTicks(SimpleTestCase):
    """The simulator held against the separate one in ticks, over random input changes."""

    def shown_alike(self, pairs: Iterable[tuple[int, Made]]) -> int:
        """How many boards were played; each shows the same at the same times."""
        compared = 0
        for seed, made in pairs:
            if made is None:
                continue
            family, boards, twin = made
            rng = Random(seed + 10_000)
            names = [each["id"] for each in family["inputs"]]
            steps = [
                profile.Step(float(at * TICK), ((rng.choice(names), rng.random() < 0.5),))
                for at in sorted(rng.choices(range(80), k=8))
            ]
            try:
                slow = _in_ticks(family, boards[0], dict(twin.values[0]), steps)
            except Settles:
                continue
            shown = run_values(twin.original, twin.values[0], twin.family, profile.Scenario("", tuple(steps), 22))
            fast = [(e.at, set(e.on)) for i, e in enumerate(shown) if i == 0 or e.on != shown[i - 1].on]
            self.assertEqual(fast, slow, seed)
            compared += 1
        return compared


def _in_ticks(family: Any, board: Any, values: Any, steps: list[profile.Step]) -> list[tuple[Fraction, set[str]]]:
    plain = Plain(board, values)
    outputs = {each["id"] for each in family["outputs"]}
    inputs = at_rest(family)
    config = plain.settle(plain.start(), inputs)
    found: list[tuple[Fraction, set[str]]] = []
    for tick in range(22 * TICKS + 1):
        if tick:
            config = plain.tick(config, inputs)
        for name, value in (change for step in steps if Fraction(step.at) / TICK == tick for change in step.set):
            if inputs[name] != value:
                inputs = inputs | {name: bool(value)}
                config = plain.power(config, inputs) if name == "power" else config
                config = plain.settle(config, inputs)
        on = plain.on(config, inputs) & outputs
        if not found or found[-1][1] != on:
            found.append((tick * TICK, on))
    return found


class AgainstTicks(SimpleTestCase):
    def agreeing(self, pairs: Iterable[tuple[int, Made]]) -> dict[str, int]:
        """Every pair, by its seed: the same fewest changes, or none. How often each verdict was met."""
        met = {"different": 0, "identical": 0, "endless": 0}
        for seed, made in pairs:
            found = both_ways(made)
            if found is None or made is None:
                continue
            expected, proof = found
            self.assertTrue(agree(expected, proof), (seed, expected, proof.verdict, proof.method))
            if expected == "endless":
                self.check_ways_in(proof, made[2])
            met["endless" if expected == "endless" else "identical" if expected is None else "different"] += 1
        return met

    def check_ways_in(self, proof: behaviour.Proof, twin: behaviour.Twin) -> None:
        """Each way to an endless loop, played on its board alone, ends in one."""
        self.assertTrue(proof.endless)
        for each in proof.endless:
            index = [board.part_number for board in (twin.original, twin.replacement)].index(each.board)
            board, last = (twin.original, twin.replacement)[index], each.steps[-1].at if each.steps else 0
            with self.assertRaises(EndlessLoopError):
                run_values(board, twin.values[index], twin.family, profile.Scenario("", each.steps, last + 100))
