"""500 tasks of practice from seeds: whoever does all right ends in register, planted mistakes show themselves, and nothing hangs on
what the learner cannot see.
"""

import re
from collections.abc import Callable
from dataclasses import replace
from itertools import permutations
from random import Random
from typing import Any
from unittest import TestCase

from tests.cost import rounds
from tests.test_practice import boards, demo
from twincore.behaviour import simulate
from twincore.measure.stored_energy import discharge_s
from twincore.practice import LEVELS, Boards, Level, NoTask, Task, make_task, play, solved
from twincore.practice.finding import is_told
from twincore.practice.metering import places_of_output
from twincore.practice.runs import mistakes, parts, proof_of
from twincore.practice.signals import input_of, kind_of, pins_of
from twincore.practice.task import ALIKE
from twincore.practice.twins import replacements
from twincore.practice.whole import begin, bench, room
from twincore.profile import Record, Scenario, factory_record, written_positions
from twincore.profile.faults import FaultList
from twincore.profile.record import build_record
from twincore.programming import panels_of, plan_presses
from twincore.rule_out import Done, Report, next_tests, stand
from twincore.settings import carry

TASKS = 500
PLANTED = 2
"""So many single mistakes of a task are planted."""

Actions = list[dict[str, Any]]
Seen = dict[str, Any]
"""What a task shows."""


def drawn_tasks(count: int) -> list[Task]:
    """Tasks of all levels and of any two boards of the demo, from seeds."""
    known, found, seed = demo().boards, [], 1000
    pairs = [(one, other) for one, other in permutations(known, 2) if known[one].family == known[other].family]
    while len(found) < count:
        seed += 1
        level = LEVELS[seed % len(LEVELS)]
        try:
            found.append(make_task(level, boards(*Random(seed).choice(pairs)), seed))
        except NoTask:
            continue
    return found


# Whoever sees what is shown and has the leaflets of the boards, and nothing else ------------------------------------------------


def reads(_: Boards, seen: Seen, __: Callable[[Actions], Seen]) -> Actions:
    return [{"do": "read", "positions": seen["positions"]}]


def sets(data: Boards, seen: Seen, _: Callable[[Actions], Seen]) -> Actions:
    faults = FaultList()
    stood = build_record(seen.get("original", {}), data.original, "positions", faults)
    assert not faults.faults
    carried = carry(data.original, stood, data.replacement, data.family, seen.get("wanted", {}))
    assert carried.record is not None
    return [{"do": "set", "positions": written_positions(data.replacement, carried.record.points)}]


def moves_wires(_: Boards, seen: Seen, __: Callable[[Actions], Seen]) -> Actions:
    place = {each["title"]: each["place"] for each in seen["places"]}
    return [{"do": "put", "wire": each["id"], "place": place[each["carried"]]} for each in seen["wires"]]


def keys_in(data: Boards, seen: Seen, _: Callable[[Actions], Seen]) -> Actions:
    start, faults = factory_record(data.replacement), FaultList()
    written = written_positions(data.replacement, start.points)
    kinds = {name: type(value) for name, value in written.items()}
    said = {each["element"]: kinds[each["element"]](each["value"]) for each in seen["wanted_keys"]}
    target = build_record(written | said, data.replacement, "positions", faults)
    assert not faults.faults
    panels, found = panels_of(data.replacement), []
    for each in plan_presses(data.replacement, start, target).panels:
        for press in each.presses:
            times = 0 if press.action == "open" else press.times
            found += [{"do": "press", "panel": panels.index(each.panel), "action": press.action}] * times
    return found


def measures(data: Boards, seen: Seen, after: Callable[[Actions], Seen]) -> Actions:
    """Supply, output, inputs: what is not there that should be is the fault, else the board; with all there what hangs on it."""
    output = next(name for name in data.family.compared if data.family.titles.get(name, name) == seen["missing"])
    found: Actions = [{"do": "measure", "place": each["place"]} for each in seen["pins"]]
    volts = {each["place"]: each["volts"] for each in after(found)["pins"]}
    carries = {pin.place: str(pin.carries) for pin in pins_of(data.original, data.family)}
    supplies = [place for place in volts if kind_of(data.family, carries[place])["kind"] == "supply"]
    scenario = next(each for each in data.family.scenarios if each.title == seen["doing"])
    stands = dict(data.family.rest)
    for step in scenario.steps:
        stands |= dict(step.set) if float(step.at) <= seen["at"] else {}
    inputs = {place: input_of(data.family, carries[place]) for place in volts}
    if supplies and not any(volts[place] for place in supplies):
        blamed = "supply"
    elif any(volts[place] for place in places_of_output(data, output)):
        blamed = "load"
    elif any(name and stands.get(name) and not volts[place] for place, name in inputs.items()):
        blamed = "input"
    else:
        blamed = "board"
    return [*found, {"do": "blame", "what": blamed}]


def finds(data: Boards, seen: Seen, after: Callable[[Actions], Seen]) -> Actions:
    assert data.rule_out is not None
    report = Report({each.id: each.title in seen["symptoms"] for each in data.rule_out.symptoms})
    found: Actions = []
    while True:
        results = {each["id"]: each["result"] for each in after(found)["tests"] if each["result"]}
        done = [
            Done(name, next(each.id for each in test.results if each.title == results[name]))
            for name in (each["test"] for each in found)
            if (test := data.rule_out.test(name))
        ]
        standing = stand(data.rule_out, report, done)
        following = next_tests(data.rule_out, standing, [each["test"] for each in found])
        if standing.conclusion != "open" or not following:
            return [*found, {"do": "name", "suspect": max(standing.weights, key=lambda each: standing.weights[each])}]
        found.append({"do": "test", "test": following[0].test.id})


LEARNER: dict[Level, Callable[[Boards, Seen, Callable[[Actions], Seen]], Actions]] = {
    "read": reads, "set": sets, "carry": sets, "wires": moves_wires, "keys": keys_in, "meter": measures, "find": finds,
}  # fmt: skip


def differs(data: Boards, stood: Record, record: Record, scenario: Scenario) -> bool:
    """Whether the machine does otherwise with the replacement, set so, than it did."""
    sides = ((data.original, stood), (data.replacement, record))
    one, other = (
        [
            (each.at, set(each.on) & set(data.family.compared))
            for each in simulate(board, each_stands, data.family, scenario)
        ]
        for board, each_stands in sides
    )
    return one != other


class Seeds(TestCase):
    @classmethod
    def setUpClass(cls) -> None:
        cls.tasks = drawn_tasks(rounds(TASKS, 4 * TASKS))

    def test_whoever_does_all_right_ends_in_register(self) -> None:
        for task in self.tasks:
            with self.subTest(level=task.level, seed=task.seed, boards=task.boards.replacement.part_number):
                ended = play(task, solved(task)).outcome
                assert ended is not None
                self.assertIsNone(ended.first)
                if task.level in ("set", "carry", "whole"):
                    self.assertIn(ended.verdict, ALIKE)

    def test_whoever_knows_only_what_is_shown_can_do_all_right(self) -> None:
        for task in self.tasks:
            if task.level not in LEARNER:
                continue
            with self.subTest(level=task.level, seed=task.seed, boards=task.boards.replacement.part_number):
                actions = LEARNER[task.level](
                    task.boards, play(task, []).shown, lambda done, task=task: play(task, done).shown
                )
                ended = play(task, [*actions, {"do": "done"}]).outcome
                assert ended is not None
                self.assertTrue(all(row.right for row in ended.rows), ended.rows)

    def test_a_mistake_that_changes_what_the_machine_does_shows_in_some_run(self) -> None:
        planted = 0
        for task in self.tasks:
            if task.level not in ("set", "carry", "whole"):
                continue
            assert task.carried is not None and task.carried.record is not None
            right = task.carried.record
            wrong = list(mistakes(task.boards, right))
            for each in Random(task.seed).sample(wrong, min(PLANTED, len(wrong))):
                if proof_of(task.boards, task.stood, each).verdict != "different":
                    continue
                planted += 1
                with self.subTest(level=task.level, seed=task.seed, boards=task.boards.replacement.part_number):
                    self.assertTrue(any(parts(task.boards, each, right, run.scenario) for run in task.runs))
        self.assertGreater(planted, len(self.tasks) / 20)

    def test_a_mistake_that_takes_forty_changes_to_be_seen_shows_in_some_run(self) -> None:
        """Defect: a count too high by one showed in no run, for nobody looked further than a few changes from the start."""
        task = make_task("carry", boards("ISB 300", "ISB 320"), 2)
        assert task.carried is not None and task.carried.record is not None
        right, deep = task.carried.record, 0
        for each in mistakes(task.boards, right):
            if not any(each.points[f"S2.{place}"] != right.points[f"S2.{place}"] for place in range(1, 5)):
                continue  # S2 says after how many of something it drains
            case = proof_of(task.boards, task.stood, each).counter_case
            deep += case is not None and case.changes >= 40
            self.assertTrue(any(parts(task.boards, each, right, run.scenario) for run in task.runs))
        self.assertGreater(deep, 0)

    def test_a_board_that_cannot_take_its_place_shows_in_some_run(self) -> None:
        seen = 0
        for task in self.tasks:
            if task.level != "whole":
                continue
            can = replacements(task.boards, task.stood)
            for name, board in task.boards.offered.items():
                carried = carry(task.boards.original, task.stood, board, task.boards.family)
                missed = any(each.verdict in ("off", "not on this board") for each in carried.functions)
                if name in can or board is task.boards.original or missed or carried.record is None:
                    continue  # what is missed stands on the sheet
                data = replace(task.boards, replacement=board)
                if proof_of(data, task.stood, carried.record).verdict == "different":
                    seen += 1
                    runs = bench(task, replace(begin(task), chosen=name)).runs
                    with self.subTest(seed=task.seed, board=name):
                        self.assertTrue(differs(data, task.stood, carried.record, runs[-1].scenario))
        self.assertGreater(seen, 3)

    def test_what_tests_of_a_machine_show_never_says_otherwise_than_it_is(self) -> None:
        """Defect: what tests showed was drawn by chance, and of every fifth machine it blamed another part."""
        for task in self.tasks:
            if task.level in ("find", "whole"):
                self.assertTrue(is_told(room(task, "find")), (task.level, task.seed))

    def test_how_long_to_wait_is_said_or_follows_from_the_leaflet(self) -> None:
        waits = 0
        for task in self.tasks:
            if task.level != "safe":
                continue
            said = " ".join(line for point in play(task, []).shown["points"] for line in point["say"])
            for wait in (each["seconds"] for each in solved(task) if each["do"] == "wait"):
                waits += 1
                known = [float(each) for each in re.findall(r"([0-9.]+) s[ .]", said)]
                known += [
                    discharge_s(*(float(each) for each in found))
                    for found in re.findall(r"([0-9.]+) µF, ([0-9.]+) V, ([0-9.]+) kΩ", said)
                ]
                self.assertAlmostEqual(max(known), wait)
        self.assertGreater(waits, 0)
