"""Certificates: what is shown to be the same can be checked by who shares nothing with the search; what is damaged is refused."""

import contextlib
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
from tests.free_certificates import FreeMade
from tests.test_behaviour import random_pair
from tests.test_levels import random_pair as with_level
from tests.test_running_time import random_pair as with_running_time
from twincore import behaviour, certificate, profile, settings
from twincore.certificate.about import digests
from twincore.certificate.deciding import decide
from twincore.errors import DocumentError, EndlessLoopError, TwinError

ALIKE = ("identical", "within tolerance")


def written(twin: behaviour.Twin) -> dict[str, Any]:
    """A certificate as it comes out of its file."""
    found = certificate.certificate(twin)
    assert found is not None
    kept: dict[str, Any] = json.loads(profile.dump(found))
    return kept


def about(twin: behaviour.Twin) -> dict[str, Any]:
    """What a certificate of a twin must say that it is about."""
    boards = (twin.original, twin.replacement)
    return {
        "original": boards[0].part_number, "replacement": boards[1].part_number,
        "digests": digests(twin.family.document, [board.document for board in boards], twin.positions),
        "replaced": [{"id": o.id, "original": o.original, "replacement": o.replacement} for o in twin.offsets],
    }  # fmt: skip


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
        self.assertGreater(max(shown), 30)

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
                certificate.check_twin(twin, found | about(twin))
            refused += 1
            if refused == 200:
                return
        self.fail(f"only {refused} pairs that differ")

    def differing(self, seeds: range) -> Iterator[tuple[dict[str, Any], list[dict[str, Any]], behaviour.Twin]]:
        """Random pairs that differ, whatever they are made of."""
        for seed in seeds:
            for pair in (random_pair, with_running_time, with_level):
                made = pair(seed)
                with contextlib.suppress(EndlessLoopError):
                    if made is not None and behaviour.prove(made[2]).verdict == "different":
                        yield made

    def test_free_made_ones_of_pairs_that_differ(self) -> None:
        rng, tried, met = Random(5), 0, set[str]()
        for family, boards, twin in self.differing(range(40_000, 42_000)):
            for _ in range(20):
                free = FreeMade(rng, family, boards)
                made = {**about(twin), "places": free.places()}
                with self.assertRaises(certificate.NotShown) as refused:
                    certificate.check_twin(twin, made)
                met.add(str(refused.exception).split("“")[0][-30:])
                tried += 1
            if tried >= 5_000:
                break
        self.assertGreaterEqual(tried, 5_000)
        self.assertGreater(len(met), 3)

    def test_a_level_whose_thresholds_lie_outside_what_it_can_be_is_no_signal(self) -> None:
        family = small_family()
        family["inputs"].append({"id": "w", "level": True, "from": 0, "to": 20})
        boards = [
            small_board({"start": "s0", "states": {
                "s0": {"go": [{"to": "s1", "if": {"w": {"from": -5}}, "after": 5}]}, "s1": {"on": shows}}}, number)
            for number, shows in (("S-1", ["x"]), ("S-2", []))
        ]  # fmt: skip
        twin = twin_of(family, boards)
        self.assertEqual(behaviour.prove(twin).verdict, "different")
        places = [{"original": ["s0"], "replacement": ["s0"], "power": power, "ages": []} for power in (True, False)]
        made = {**about(twin), "places": places}
        with self.assertRaisesRegex(certificate.NotShown, "the two differ in “x”"):
            certificate.check_twin(twin, made)

    def test_what_is_about_other_documents_settings_numbers_or_wishes(self) -> None:
        family = small_family(
            functions=[{"id": "t", "type": "duration", "importance": "behaviour", "tolerance": {"above": 2}}]
        )
        machine = {"start": "s", "states": {"s": {"go": [{"to": "on", "after": "t"}]}, "on": {"on": ["x"]}}}
        switch = [{"id": "S1", "kind": "dip", "positions": 1, "factory": "0"}]
        boards = [
            small_board(machine, number, settings=switch, functions={
                "t": {"table": [{"when": {"S1.1": "off"}, "value": 5}, {"when": {"S1.1": "on"}, "value": on}]}})
            for number, on in (("S-1", 6), ("S-2", 9))
        ]  # fmt: skip
        twin = twin_of(family, boards, {"S1": "1"})
        self.assertEqual(behaviour.prove(twin).verdict, "different")  # 6 s and 9 s
        same = twin_of(family, boards, {"S1": "0"})
        whole = written(same)
        self.assertEqual(certificate.check_twin(same, whole), len(whole["places"]))
        for other in (
            twin,
            twin_of(family | {"title": "another"}, boards, {"S1": "0"}),
            twin_of(family, [boards[0], boards[1] | {"title": "another"}], {"S1": "0"}),
        ):
            with self.assertRaisesRegex(certificate.NotShown, "about another family, other boards or other settings"):
                certificate.check_twin(other, whole)
        with self.assertRaisesRegex(certificate.NotShown, "other numbers"):
            certificate.check_twin(same, whole | {"replaced": [{"id": "t", "original": 5, "replacement": 9}]})
        with self.assertRaisesRegex(certificate.NotShown, "other wishes"):
            certificate.check_twin(same, whole | {"wished": ["t"]})

    def test_the_checker_decides_what_functions_stand_at_as_the_core_does(self) -> None:
        compared = 0
        for seed in range(300):
            made = random_pair(seed)
            if made is None:
                continue
            _, boards, twin = made
            values, replaced = decide(twin.family.document, boards, twin.positions)
            for mine, theirs in zip(values, twin.values, strict=True):
                self.assertEqual(mine, theirs, seed)
            self.assertEqual([each["id"] for each in replaced], [each.id for each in twin.offsets], seed)
            compared += 1
        self.assertGreater(compared, 250)

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
        with self.assertRaisesRegex(certificate.NotShown, "the two differ in “y”"):
            certificate.check_twin(stops, whole | about(stops))

    def test_of_other_boards(self) -> None:
        twin = case_twin("oven-in-register")
        whole = written(twin)
        with self.assertRaisesRegex(certificate.NotShown, "other boards"):
            certificate.check_twin(twin, whole | {"original": "TVH-9999"})
