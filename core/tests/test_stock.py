"""Van stock against brute force, SciPy, and a published example of drawing rates together."""

from dataclasses import replace
from itertools import product
from random import Random
from unittest import TestCase, mock

import numpy
from scipy.optimize import minimize
from scipy.stats import poisson

from twincore.stock import (
    Beta,
    Change,
    Kind,
    Piece,
    Van,
    Wanted,
    changes,
    curve,
    drawn,
    expected_served,
    next_pieces,
    plan,
    prior_of,
)


class Demand(TestCase):
    def test_what_pieces_serve_is_the_mean_of_the_lesser_of_failures_and_pieces(self) -> None:
        """Against SciPy's Poisson distribution."""
        for failures in (0.0, 0.01, 0.7, 3.2, 11.0):
            for count in range(5):
                mean = (
                    poisson(failures).expect(lambda found, most=count: numpy.minimum(found, most)) if failures else 0.0
                )
                self.assertAlmostEqual(expected_served(count, failures), mean, places=7)


class Rates(TestCase):
    def test_a_published_example(self) -> None:
        """Rat tumours: Beta(1.4, 8.6) before, 4 of 14; after it Beta(5.4, 18.6), mean 0.223 and deviation 0.083, told there of
        numbers that are not rounded (Gelman and others, Bayesian Data Analysis, section 5.1; from memory).
        """
        after = drawn(Beta(1.4, 8.6), 4, 14)
        self.assertEqual((round(after.a, 9), round(after.b, 9)), (5.4, 18.6))
        self.assertAlmostEqual(after.mean, 0.223, delta=0.003)
        self.assertAlmostEqual(after.deviation, 0.083, delta=0.001)

    def test_what_is_usual_has_the_moments_of_what_was_counted(self) -> None:
        counts = [(2, 20), (1, 20), (5, 20), (0, 20), (4, 40)]
        rates = [failed / years for failed, years in counts]
        mean = sum(rates) / 5
        variance = sum((rate - mean) ** 2 for rate in rates) / 4
        usual = prior_of(counts, 0.1)
        self.assertAlmostEqual(usual.mean, mean)
        self.assertAlmostEqual(usual.deviation**2, variance)

    def test_few_counts_say_what_is_usual_and_rates_that_do_not_scatter_are_not_certain(self) -> None:
        self.assertEqual(prior_of([(1, 2)], 0.05), Beta(0.5, 9.5))
        self.assertEqual(prior_of([(2, 20), (2, 20)], 0.05).a, 100)
        for wrong in ([(3, 2)], [(-1, 2)]):
            with self.assertRaises(ValueError):
                prior_of(wrong, 0.05)
        with self.assertRaises(ValueError):
            prior_of([], 0)
        with self.assertRaises(ValueError):
            drawn(Beta(1, 1), 2, 1)


def some(seed: int) -> Wanted:
    """A small thing to plan: two vans, one lends to the other."""
    chance = Random(seed)
    kinds = [
        Kind(f"k{index}", f"v{index % 2}", chance.uniform(0.05, 1.5), {
            f"p{piece}": chance.choice((1.0, 1.0, 0.6)) for piece in range(3) if chance.random() < 0.6
        })
        for index in range(4)
    ]  # fmt: skip
    pieces = [Piece(f"p{index}", chance.randint(1, 4), chance.randint(1, 2), 2) for index in range(3)]
    return Wanted(kinds, pieces, [Van("v0", 6, 4), Van("v1", 6, 3)], {("v0", "v1"): 0.5})


def served_by(wanted: Wanted, counts: dict[tuple[str, str], int]) -> float:
    """What counts serve at best, by a general method (SLSQP) and the Poisson distribution itself."""
    ways = [
        (kind, (van.id, piece), worth * (1.0 if van.id == kind.van else wanted.lending.get((van.id, kind.van), 0.0)))
        for kind in wanted.kinds for van in wanted.vans for piece, worth in kind.ways.items() if counts.get((van.id, piece))
    ]  # fmt: skip
    ways = [each for each in ways if each[2] > 0]
    if not ways:
        return 0.0

    def loss(shares: list[float]) -> float:
        planned = dict.fromkeys(counts, 0.0)
        left = 0.0
        for (kind, held, worth), share in zip(ways, shares, strict=True):
            planned[held] += kind.failures * share
            left += (1 - worth) * kind.failures * share
        return left - sum(
            sum(poisson.sf(number, planned[held]) for number in range(count)) for held, count in counts.items() if planned[held] > 0
        )  # fmt: skip

    rules = [
        {"type": "ineq", "fun": lambda x, kind=kind: 1 - sum(x[i] for i, each in enumerate(ways) if each[0] is kind)}
        for kind in wanted.kinds
    ]
    found = minimize(loss, [0.3] * len(ways), bounds=[(0, 1)] * len(ways), constraints=rules, options={"ftol": 1e-9})
    return -float(found.fun)


class BruteForce(TestCase):
    def test_every_count_tried(self) -> None:
        for seed in range(2):
            wanted = some(seed)
            size = {piece.id: piece for piece in wanted.pieces}
            slots = [(van, piece) for van in wanted.vans for piece in wanted.pieces]
            every = (
                {(van.id, piece.id): n for (van, piece), n in zip(slots, held, strict=True) if n}
                for held in product(range(3), repeat=6)
            )
            best = max(served_by(wanted, counts) for counts in every if is_full(counts, wanted, size))
            with self.subTest(seed=seed):
                found = plan(wanted, 0.0, 5.0)
                self.assertAlmostEqual(found.served, best, delta=2e-4)
                self.assertLess(found.gap, 1e-4)


def is_full(counts: dict[tuple[str, str], int], wanted: Wanted, size: dict[str, Piece]) -> bool:
    """Whether it all goes in, and nothing more does: what could still take a piece is never better than what has it."""
    for van in wanted.vans:
        cost, room = (
            most - sum(n * getattr(size[p], what) for (v, p), n in counts.items() if v == van.id)
            for what, most in (("cost", van.budget or 0), ("size", van.shelf or 0))
        )
        more = [
            p for p in wanted.pieces if counts.get((van.id, p.id), 0) < p.most and p.cost <= cost and p.size <= room
        ]
        if cost < 0 or room < 0 or more:
            return False
    return True


class Plans(TestCase):
    def test_a_kind_that_no_carried_piece_serves_is_named_and_shares_say_what_serves_the_rest(self) -> None:
        kinds = [Kind("often", "v", 0.5, {"wide": 1.0}), Kind("seldom", "v", 0.1, {"narrow": 1.0})]
        found = plan(Wanted(kinds, [Piece("wide", 3), Piece("narrow", 3)], [Van("v", 4)]))
        self.assertEqual((found.counts, found.uncovered), ({"v": {"wide": 1}}, ["seldom"]))
        self.assertEqual([(each.kind, each.piece, each.share) for each in found.shares], [("often", "wide", 1.0)])
        self.assertAlmostEqual(found.served, expected_served(1, 0.5))

    def test_one_more_piece_brings_what_the_plan_with_it_is_worth(self) -> None:
        kinds = [Kind("often", "v", 0.5, {"wide": 1.0}), Kind("seldom", "v", 0.1, {"narrow": 1.0})]
        wanted = Wanted(kinds, [Piece("wide", 3, most=2), Piece("narrow", 3)], [Van("v", 4)])
        more = next_pieces(wanted, plan(wanted))
        self.assertEqual([each[:2] for each in more], [("v", "narrow"), ("v", "wide")])
        self.assertAlmostEqual(more[0][2], expected_served(1, 0.1))
        self.assertAlmostEqual(more[1][2], expected_served(2, 0.5) - expected_served(1, 0.5))

    def test_more_money_never_serves_less(self) -> None:
        served = [found.served for _, found in curve(some(4), [0, 2, 4, 8, 16], gap=0.0)]
        self.assertEqual(served[0], 0.0)
        self.assertEqual([round(each, 5) for each in served], sorted(round(each, 5) for each in served))

    def test_what_names_nothing_is_refused_with_its_place(self) -> None:
        good = Kind("k", "v", 1, {"p": 1.0})
        for wrong, words in (
            (Wanted([good], [Piece("p")], []), "k: there is no van v"),
            (Wanted([good], [], [Van("v")]), "k: there is no piece p"),
            (Wanted([Kind("k", "v", -1, {})], [], [Van("v")]), "k: failures"),
            (Wanted([], [Piece("p", most=0)], [Van("v")]), "p: from 1 to 20"),
            (Wanted([], [Piece("p", cost=-1)], [Van("v")]), "p: from 1 to 20"),
            (Wanted([], [], [Van("v")], {("v", "w"): 1.0}), "lending v to w"),
        ):
            with self.assertRaisesRegex(ValueError, words):
                plan(wrong)

    def test_a_plan_that_is_stopped_is_bounded_all_the_same(self) -> None:
        found = plan(some(5), gap=0.0, seconds=0.0, stop=lambda: True)
        self.assertGreaterEqual(found.bound, found.served)

    def test_a_van_that_nothing_serves_does_not_keep_a_plan_from_ending(self) -> None:
        """Defect: it was never looked at, and so the others were looked at until the time was over."""
        kinds = [*some(6).kinds, Kind("alone", "v2", 1.0, {})]
        wanted = replace(some(6), kinds=kinds, vans=[*some(6).vans, Van("v2", 5)], lending={})
        with mock.patch("twincore.stock.search.Search.step", autospec=True) as step:
            step.side_effect = lambda search, gap, seconds: setattr(search, "bound", search.best.served)
            plan(wanted, 0.01, 2.0)
        self.assertEqual(step.call_count, 2)

    def test_nothing_to_serve_is_a_plan(self) -> None:
        found = plan(Wanted([], [Piece("p")], [Van("v")]))
        self.assertEqual((found.served, found.bound, found.gap, found.counts), (0.0, 0.0, 0.0, {"v": {}}))


class Changing(TestCase):
    def test_what_is_left_over_is_moved_before_anything_is_bought(self) -> None:
        there = {"a": {"p": 3, "q": 1}, "b": {"r": 1}}
        planned = {"a": {"p": 1}, "b": {"p": 1, "r": 2}, "c": {"q": 1}}
        self.assertEqual(
            changes(there, planned),
            [Change("p", 1, "a", "b"), Change("p", 1, "a", None), Change("q", 1, "a", "c"), Change("r", 1, None, "b")],
        )
