"""The exact search held against the explicit one in ticks, pair by pair."""

from collections.abc import Iterable
from typing import Any

from django.test import SimpleTestCase

from tests.tick_search import Settles, fewest_changes
from twincore import behaviour, profile
from twincore.behaviour.simulate import run_values
from twincore.errors import EndlessLoopError

Made = tuple[dict[str, Any], list[dict[str, Any]], behaviour.Twin] | None
"""A family, two boards and their twin; None where one was refused."""


def both_ways(made: Made) -> tuple[int | str | None, behaviour.Proof] | None:
    """The fewest changes by the search in ticks ("endless", or None where there is no difference), and the proof by the exact
    one; None for a pair that was refused, never settles at rest, or is too large for ticks.
    """
    if made is None:
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
