"""Certificates: what is shown to be the same can be checked by who shares nothing with the search; what is damaged is refused."""

import json
from collections.abc import Iterator
from copy import deepcopy
from itertools import product
from random import Random
from typing import Any

from django.test import SimpleTestCase

from tests import random_boards
from tests.builders import DEMO, case_twin, small_board, small_family, twin_of
from tests.cost import rounds
from tests.test_behaviour import random_pair
from tests.test_running_time import random_pair as with_running_time
from twincore import behaviour, certificate, profile, settings
from twincore.errors import DocumentError, EndlessLoopError, TwinError

ALIKE = ("identical", "within tolerance")


def written(twin: behaviour.Twin) -> dict[str, Any]:
    """A certificate as it comes out of its file."""
    found = certificate.certificate(twin)
    assert found is not None
    kept: dict[str, Any] = json.loads(profile.dump(found))
    return kept


def alike(seeds: range) -> Iterator[behaviour.Twin]:
    """Random pairs that are the same."""
    for seed in seeds:
        made = random_pair(seed)
        try:
            if made is not None and behaviour.prove(made[2]).verdict in ALIKE:
                yield made[2]
        except EndlessLoopError:
            continue


class Shown(SimpleTestCase):
    def test_of_random_pairs_that_are_the_same(self) -> None:
        shown = [certificate.check_twin(twin, written(twin)) for twin in alike(range(2000, 2240))]
        self.assertGreater(len(shown), 60)
        self.assertGreater(max(shown), 60)

    def test_of_random_pairs_with_a_clock_of_running_time(self) -> None:
        shown = 0
        for seed in range(rounds(260, 2_000)):
            made = with_running_time(seed)
            found = certificate.certificate(made[2]) if made is not None and self.same(made[2]) else None
            if made is not None and found is not None:
                certificate.check_twin(made[2], found)
                shown += 1
        self.assertGreater(shown, 60)

    def same(self, twin: behaviour.Twin) -> bool:
        try:
            return behaviour.prove(twin).verdict in ALIKE
        except EndlessLoopError:
            return False

    def test_of_every_demo_pair_in_register(self) -> None:
        families = {
            each.id: each
            for path in (DEMO / "families").glob("*.json")
            for each in [profile.parse_family(path.read_bytes())]
        }
        every = [profile.parse_board(path.read_bytes()) for path in sorted((DEMO / "boards").glob("*.json"))]
        boards = [board for board in every if board.behaviour is not None]
        seen = set()
        for one, other in product(boards, boards):
            twin = self.in_register(one, other, families[one.family]) if one.family == other.family else None
            if twin is None:
                continue
            key = repr(
                [(board.document["behaviour"], values) for board, values in zip((one, other), twin.values, strict=True)]
            )
            if key not in seen:
                seen.add(key)
                certificate.check_twin(twin, written(twin))
        self.assertGreater(len(seen), 25)

    def in_register(self, one: profile.Board, other: profile.Board, family: profile.Family) -> behaviour.Twin | None:
        """Two boards, the second set as the first as far as it can be; None where they are not the same then."""
        found = profile.factory_record(one)
        try:
            carried = settings.carry(one, found, other, family).record or profile.factory_record(other)
            twin = behaviour.make_twin(one, found, other, carried, family)
            return twin if behaviour.prove(twin).verdict in ALIKE else None
        except TwinError:
            return None

    def test_levels_and_what_cannot_occur_together_are_kept(self) -> None:
        family = small_family() | {"never_together": [{"a": True, "b": True}]}
        family["inputs"].append({"id": "temp", "level": True, "unit": "°C", "from": 0, "to": 90})
        guards = {"s": {"go": [{"to": "t", "if": {"temp": {"from": 40, "below": 60}, "a": True}, "after": 3}]},
                  "t": {"on": ["x"], "go": [{"to": "s", "if": {"temp": {"below": 30}}}]}}  # fmt: skip
        twin = twin_of(family, [small_board({"start": "s", "states": guards}, number) for number in ("S-1", "S-2")])
        self.assertGreater(certificate.check_twin(twin, written(twin)), 2)

    def test_there_is_none_for_boards_that_differ_nor_where_one_goes_round(self) -> None:
        self.assertIsNone(certificate.certificate(case_twin("oven-lockout-forgotten")))
        ring = {"start": "s", "states": {
            "s": {"go": [{"to": "r", "if": {"a": True}}]}, "r": {"go": [{"to": "s", "if": {"a": True}}]}}}  # fmt: skip
        twin = twin_of(small_family(), [small_board(ring), small_board(ring, "S-2")])
        self.assertIsNone(certificate.certificate(twin))


class Refused(SimpleTestCase):
    def test_what_shows_a_board_to_be_as_itself_shows_nothing_of_one_that_differs(self) -> None:
        refused = 0
        for seed in range(6000, 9000):
            rng = Random(seed)
            family = random_boards.family_document(rng)
            one = random_boards.board_document(rng, family, "A")
            other = random_boards.changed_copy(rng, one, "B")
            try:
                twin = twin_of(family, [one, other])
                same = twin_of(family, [one, one | {"part_number": "B"}])
                found = certificate.certificate(same)
                if found is None or behaviour.prove(twin).verdict != "different":
                    continue
            except (DocumentError, EndlessLoopError):
                continue
            with self.assertRaises(certificate.NotShown):
                certificate.check_twin(twin, found)
            refused += 1
            if refused == 200:
                return
        self.fail(f"only {refused} pairs that differ")

    def test_damaged_ones(self) -> None:
        rng = Random(8)
        refused, tried = 0, 0
        for twin in alike(range(2000, 2140)):
            for damaged in self.damages(written(twin), rng, twin):
                tried += 1
                try:
                    certificate.check_twin(twin, damaged)
                except certificate.NotShown:
                    refused += 1
        # a place that something else covers, or a bound that nothing needs, may be missing
        self.assertGreater(refused / tried, 0.75)
        self.assertGreater(refused, 120)

    def damages(self, whole: dict[str, Any], rng: Random, twin: behaviour.Twin) -> Iterator[dict[str, Any]]:
        """A place left out, in another state, with the power otherwise, a bound shifted."""
        number = rng.randrange(len(whole["places"]))
        damaged = deepcopy(whole)
        del damaged["places"][number]
        yield damaged
        damaged = deepcopy(whole)
        assert twin.original.behaviour
        others = [
            s for s in twin.original.behaviour.machines[0].states if s != damaged["places"][number]["original"][0]
        ]
        if others:
            damaged["places"][number]["original"][0] = rng.choice(others)
            yield damaged
        damaged = deepcopy(whole)
        damaged["places"][number]["power"] ^= True
        yield damaged
        equal = [
            (at, n)
            for at, place in enumerate(whole["places"])
            for n, each in enumerate(place["ages"])
            if len(each) == 2
        ]
        if equal:
            at, n = rng.choice(equal)
            damaged = deepcopy(whole)
            damaged["places"][at]["ages"][n] += [-1, False]
            yield damaged

    def test_what_cannot_be_read_is_refused_in_words(self) -> None:
        twin = case_twin("oven-in-register")
        whole = written(twin)
        for name, value in (("power", None), ("ages", [["original/state 9", ""]]), ("original", ["nowhere"]), ("original", []),
                            ("inputs", [{"call": {"from": 3}}]), ("ages", [["", "original/state 1", -5, False], ["original/state 1", "", 1, True]]),
                            ("ages", [["original/clock none", ""]]), ("ages", 3)):  # fmt: skip
            damaged = deepcopy(whole)
            damaged["places"] = [damaged["places"][0] | {name: value}]
            with self.assertRaises(certificate.NotShown, msg=(name, value)):
                certificate.check_twin(twin, damaged)

    def test_that_of_clocks_that_run_always_is_none_where_one_stands_meanwhile(self) -> None:
        def board(number: str, shows: list[str]) -> dict[str, Any]:
            clocks = [{"id": "k"}, {"id": "ran"}]
            return small_board({"start": "s", "clocks": clocks, "states": {
                "s": {"on": ["x"], "go": [{"to": "t", "after": 5, "clock": "k"}]},
                "t": {"go": [{"to": "last", "after": 9, "clock": "ran"}, {"to": "part", "after": 10, "clock": "k"}]},
                "part": {"on": shows}, "last": {},
            }}, number)  # fmt: skip

        # with both clocks running it goes on at 9 s; where one stands in between, at 10 s, where the boards part
        boards = [board("A", []), board("B", ["y"])]
        twin = twin_of(small_family(), boards)
        whole = written(twin)
        certificate.check_twin(twin, whole)
        for each in boards:
            each["behaviour"]["clocks"][1]["runs_while"] = "x"
        stops = twin_of(small_family(), boards)
        self.assertEqual(behaviour.prove(stops).verdict, "different")
        with self.assertRaises(certificate.NotShown):
            certificate.check_twin(stops, whole)

    def test_of_other_boards(self) -> None:
        twin = case_twin("oven-in-register")
        whole = written(twin)
        with self.assertRaisesRegex(certificate.NotShown, "about other boards"):
            certificate.check_twin(twin, whole | {"original": "TVH-9999"})
