"""Levels: inputs that have a value. Checked against an explicit search in ticks that shares no code with the product."""

from random import Random
from typing import Any

from django.test import SimpleTestCase

from tests import random_boards
from tests.against_ticks import AgainstTicks, Made, made_of
from tests.builders import CHAMBER, chamber, encoded, small_board, twin_of
from tests.cost import rounds
from tests.tick_search import Plain, Settles, changes_from, floors
from twincore import behaviour, profile
from twincore.behaviour.drafting import draft_behaviour
from twincore.behaviour.simulate import run_values
from twincore.errors import DocumentError, EndlessLoopError, TwinError
from twincore.workshop.sentences import names_of, state_cells, state_node


def heater(on_below: Any, off_from: Any) -> dict[str, Any]:
    return {
        "start": "idle",
        "states": {
            "idle": {"go": [{"to": "heat", "if": {"temp": {"below": on_below}}}]},
            "heat": {"on": ["x"], "go": [{"to": "idle", "if": {"temp": {"from": off_from}}}]},
        },
    }


def random_pair(seed: int) -> Made:
    rng = Random(seed)
    family = random_boards.with_level(rng, random_boards.family_document(rng))
    one = random_boards.reading_level(rng, random_boards.board_document(rng, family, "A"))
    other = random_boards.changed_copy(rng, one, "B")
    if rng.random() < 0.4:
        other = random_boards.reading_level(rng, other)
    return made_of(rng, family, [one, other])


class Proving(AgainstTicks):
    def twin(self, one: dict[str, Any], other: dict[str, Any], sets: tuple[int, int] = (30, 30)) -> behaviour.Twin:
        boards = [
            small_board(each, number, functions={"set": {"fixed": at}})
            for each, number, at in zip((one, other), ("A", "B"), sets, strict=True)
        ]
        return twin_of(chamber(), boards)

    def test_another_hysteresis_is_a_difference_between_two_thresholds(self) -> None:
        lower = {"function": "set", "plus": -5}
        proof = behaviour.prove(self.twin(heater(lower, "set"), heater(lower, 33)))
        assert proof.counter_case is not None
        case = proof.counter_case
        # below 25 both heat; from 30 on the original stops, the replacement goes on to 33
        self.assertEqual((proof.verdict, case.changes, case.fewest), ("different", 3, True))
        self.assertEqual(case.between, (("temp", 30, 33),))
        last = dict(case.steps[-1].set)["temp"]
        self.assertTrue(30 <= last < 33, last)
        self.assertEqual((case.original, case.replacement), ((), ("x",)))

    def test_the_same_thresholds_are_no_difference_and_those_within_tolerance_are_the_original_s(self) -> None:
        lower = {"function": "set", "plus": -5}
        self.assertEqual(behaviour.prove(self.twin(heater(lower, "set"), heater(25, 30))).verdict, "identical")
        within = behaviour.prove(self.twin(heater(lower, "set"), heater(lower, "set"), (30, 29)))
        self.assertEqual((within.verdict, [each.id for each in within.offsets]), ("within tolerance", ["set"]))
        beyond = behaviour.prove(self.twin(heater(lower, "set"), heater(lower, "set"), (30, 27)))
        self.assertEqual(beyond.verdict, "different")

    def test_thresholds_that_nothing_reaches_are_always_or_never_met(self) -> None:
        self.assertEqual(behaviour.prove(self.twin(heater(-30, 70), heater(-40, 60.5))).verdict, "identical")
        # the last cell has one value only
        proof = behaviour.prove(self.twin(heater(-30, 60), heater(-30, 61)))
        self.assertEqual(proof.verdict, "identical")  # nothing is below the lowest: neither ever heats
        proof = behaviour.prove(self.twin(heater(0, 60), heater(0, 61)))
        assert proof.counter_case is not None
        self.assertEqual(dict(proof.counter_case.steps[-1].set), {"temp": 60})

    def test_fewest_changes_agree_with_a_search_in_ticks(self) -> None:
        met = self.agreeing((seed, random_pair(seed)) for seed in range(rounds(160, 5000)))
        self.assertGreater(min(met.values()), 6, met)


class Running(SimpleTestCase):
    def test_a_level_passes_every_threshold_between_and_the_board_settles_at_each(self) -> None:
        # 20 counts, 40 counts again: from 10 to 50 both are passed
        machine = {
            "start": "low", "counters": [{"id": "n"}],
            "states": {
                "low": {"go": [{"to": "mid", "if": {"temp": {"from": 20}}, "add": ["n"]}]},
                "mid": {"go": [{"to": "low", "if": {"temp": {"below": 20}}}, {"to": "high", "if": {"temp": {"from": 40}}, "add": ["n"]}]},
                "high": {"on": [{"output": "x"}], "go": [{"to": "both", "count": {"counter": "n", "reached": 2}}]},
                "both": {"on": ["x", "y"]},
            },
        }  # fmt: skip
        board = profile.parse_board(encoded(small_board(machine, functions={"set": {"fixed": 30}})))
        family = profile.parse_family(encoded({**chamber(), "rest": {"power": True, "temp": 10}}))
        steps = (profile.Step(1, (("temp", 50),)),)
        shown = run_values(board, {"set": 30}, family, profile.Scenario("", steps, 2))
        self.assertEqual(
            [(each.at, each.states, each.on) for each in shown], [(0, ("low",), ()), (1, ("both",), ("x", "y"))]
        )

    def test_runs_agree_with_a_separate_simulator(self) -> None:
        compared = 0
        for seed in range(120):
            made = random_pair(seed + 7000)
            if made is None:
                continue
            family, boards, twin = made
            rng, cells = Random(seed), floors(family, boards[:1], [dict(twin.values[0])])
            plain = Plain(boards[0], dict(twin.values[0]))
            names = [each["id"] for each in family["inputs"]]
            inputs = {name: family["rest"].get(name, name == "power") for name in names}
            inputs["w"] = max(floor for floor in cells["w"] if floor <= inputs["w"])
            steps, expected = [], []
            try:
                config = plain.settle(plain.start(), inputs)
                for second in range(1, 9):
                    for _ in range(4):
                        config = plain.tick(config, inputs)
                    name, value = rng.choice(changes_from(inputs, cells))
                    inputs = inputs | {name: value}
                    config = plain.settle(plain.power(config, inputs) if name == "power" else config, inputs)
                    steps.append(profile.Step(second, ((name, value),)))
                    expected.append(plain.on(config, inputs) & {"x", "y", "z"})
            except Settles:
                continue
            shown = run_values(twin.original, dict(twin.values[0]), twin.family, profile.Scenario("", tuple(steps), 9))
            for second, on in enumerate(expected, 1):
                last = [each for each in shown if each.at <= second][-1]
                self.assertEqual(set(last.on), on, (seed, second))
            compared += 1
        self.assertGreater(compared, 40)


class Documents(SimpleTestCase):
    def refused(self, family: dict[str, Any], place: str) -> None:
        with self.assertRaises(DocumentError) as caught:
            profile.parse_family(encoded(family))
        self.assertIn(place, [fault.place for fault in caught.exception.faults])

    def test_what_a_family_may_not_say_of_a_level(self) -> None:
        family = chamber()
        others = family["inputs"][:-1]
        for level, place in (
            ({**CHAMBER, "to": -30}, "inputs[{n}].to"), ({"id": "temp", "level": True, "from": 0}, "inputs[{n}]"),
            ({"id": "temp", "unit": "°C"}, "inputs[{n}].unit"),
        ):  # fmt: skip
            self.refused({**family, "inputs": [*others, level]}, place.replace("{n}", str(len(others))))
        self.refused({**family, "rest": {"temp": 61}}, "rest.temp")
        self.refused({**family, "rest": {"temp": True}}, "rest.temp")
        self.refused({**family, "rest": {"power": 1}}, "rest.power")
        self.refused({**family, "never_together": [{"temp": True, "a": True}]}, "never_together[0].temp")
        self.refused(
            {**family, "scenarios": [{"id": "s", "title": "s", "until": 5, "steps": [{"at": 1, "set": {"temp": 99}}]}]},
            "scenarios[0].steps[0].set.temp",
        )

    def test_what_a_board_may_not_ask(self) -> None:
        family = profile.parse_family(encoded(chamber()))
        for asked, place in (
            ({"temp": True}, "temp"),
            ({"a": {"from": 3}}, "a"),
            ({"temp": {"from": "nowhere"}}, "temp.from"),
        ):
            machine = {"start": "s", "states": {"s": {"go": [{"to": "s", "if": asked, "after": 1}]}}}
            board = profile.parse_board(encoded(small_board(machine)))
            with self.assertRaises(DocumentError) as caught:
                profile.check_board_in_family(board, family)
            self.assertEqual(caught.exception.faults[0].place, f"behaviour.states.s.go[0].if.{place}")

    def test_a_guard_that_asks_for_what_cannot_be_is_never_met(self) -> None:
        machine = heater({"function": "set", "plus": 5}, 10)
        machine["states"]["idle"]["go"][0]["if"]["temp"] = {"from": 20, "below": 20}
        board = profile.parse_board(encoded(small_board(machine, functions={"set": {"fixed": 30}})))
        family = profile.parse_family(encoded(chamber()))
        steps = tuple(profile.Step(at, (("temp", value),)) for at, value in ((1, 20), (2, -30), (3, 60)))
        self.assertEqual(len(run_values(board, {"set": 30}, family, profile.Scenario("", steps, 5))), 1)

    def test_the_workshop_s_sentences_say_bands_and_read_them_again(self) -> None:
        names = names_of(profile.parse_family(encoded(chamber())))
        for asked in (
            {"temp": {"from": 20, "below": 33.5}}, {"temp": {"below": {"function": "set", "plus": -5}}, "a": True}, {"temp": {"from": "set"}},
            {"temp": {"from": {"function": "set", "plus": 2}}},
        ):  # fmt: skip
            node = {"go": [{"to": "s", "if": asked}], "on": [{"output": "x", "if": asked}]}
            cells = state_cells("s", node)
            read = state_node(cells, {}, names)
            self.assertEqual(profile.document.jsonable(read["go"]), node["go"], cells)
            self.assertEqual(profile.document.jsonable(read["on"]), node["on"], cells)

    def test_no_draft_is_made_of_runs_in_which_a_level_changes(self) -> None:
        family = profile.parse_family(encoded(chamber()))
        board = profile.parse_board(encoded(small_board(None, functions={"set": {"fixed": 30}})))
        seen = [{"at": 2, "output": "x", "on": True}]
        trace = {"format": "worthy-twin/trace", "version": 1, "part_number": "S-1", "until": 9, "seen": seen}
        run = profile.parse_trace(encoded({**trace, "steps": [{"at": 1, "set": {"temp": 40}}]}), family)
        with self.assertRaisesRegex(TwinError, "no level changes"):
            draft_behaviour(board, family, [run])

    def test_where_a_board_goes_round_is_said_with_the_level(self) -> None:
        ring = {"start": "s", "states": {
            "s": {"go": [{"to": "r", "if": {"temp": {"from": 20}}}]}, "r": {"go": [{"to": "s", "if": {"temp": {"from": 20}}}]}}}  # fmt: skip
        board = profile.parse_board(encoded(small_board(ring, functions={"set": {"fixed": 30}})))
        family = profile.parse_family(encoded({**chamber(), "rest": {"power": True, "temp": 0}}))
        steps = (profile.Step(1, (("temp", 50),)),)
        with self.assertRaisesRegex(EndlessLoopError, "power on, .*temp 40"):
            run_values(board, {"set": 30}, family, profile.Scenario("", steps, 2))
