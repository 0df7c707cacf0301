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


class AgainstTicks(SimpleTestCase):
    def agreeing(self, pairs: Iterable[tuple[int, Made]]) -> dict[str, int]:
        """Every pair, by its seed: the same fewest changes, or none. How often each verdict was met."""
        met = {"different": 0, "identical": 0, "endless": 0}
        for seed, made in pairs:
            if made is None:
                continue
            family, boards, twin = made
            try:
                expected = fewest_changes(family, boards, [dict(v) for v in twin.values], most=40_000)
                proof = behaviour.prove(twin)
            except (Settles, EndlessLoopError):
                continue
            if expected == "large":
                continue
            changes = proof.counter_case.changes if proof.counter_case else None
            if expected == "endless":
                self.assertEqual((proof.verdict, changes), ("not proved", None), seed)
                self.check_ways_in(proof, twin)
                met["endless"] += 1
                continue
            self.assertEqual(changes, expected, (seed, proof.verdict, proof.method))
            if changes is None:
                self.assertEqual(proof.endless, (), seed)
            met["different" if changes is not None else "identical"] += 1
        return met

    def check_ways_in(self, proof: behaviour.Proof, twin: behaviour.Twin) -> None:
        """Each way to an endless loop, played on its board alone, ends in one."""
        self.assertTrue(proof.endless)
        for each in proof.endless:
            index = [board.part_number for board in (twin.original, twin.replacement)].index(each.board)
            board, last = (twin.original, twin.replacement)[index], each.steps[-1].at if each.steps else 0
            with self.assertRaises(EndlessLoopError):
                run_values(board, twin.values[index], twin.family, profile.Scenario("", each.steps, last + 100))
