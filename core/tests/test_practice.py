"""Practice: who does all right ends in register, every mistake shows itself, and skills rise and fall as published."""

from dataclasses import replace
from datetime import UTC, datetime, timedelta
from functools import cache
from pathlib import Path
from unittest import TestCase

from tests.builders import DEMO
from twincore.behaviour import simulate
from twincore.cli.catalogue import Catalogue
from twincore.practice import (
    LEVELS,
    SKILLS,
    Boards,
    Level,
    NoTask,
    Row,
    Skill,
    Task,
    WrongAction,
    after_task,
    make_task,
    next_level,
    play,
    practised,
    solved,
    traced,
)
from twincore.practice.finding import best_way
from twincore.practice.metering import BLAMED, VOLTS, meter_of, places_of_output, telling_places, volts_at
from twincore.practice.runs import mistakes, parts, proof_of
from twincore.practice.safety import points_of
from twincore.profile import written_positions
from twincore.rule_out import parse_rule_out

NOW = datetime(2026, 3, 2, tzinfo=UTC)
PAIRS = (
    ("TVH-2210-B", "TVH-2214-A"), ("TVH-2420-A", "TVH-2424-A"), ("TVH-2420-A", "OFN-U5"), ("QN7-0042", "OFN-M1"),
    ("UMC 40-118", "UMC 40-122"), ("ISB 310", "OFN-S1"), ("MGT-80-A", "MGT-88-C1"),
)  # fmt: skip


@cache
def demo() -> Catalogue:
    return Catalogue(str(DEMO))


def boards(original: str, replacement: str) -> Boards:
    one, other = demo().boards[original], demo().boards[replacement]
    guide = Path(DEMO) / f"rule-out/{one.family}.rule-out.json"
    data = parse_rule_out(guide.read_bytes()) if guide.exists() else None
    beside = [each for each in demo().boards.values() if each.family == one.family and each not in (one, other)]
    return Boards(demo().families[one.family], one, other, data, tuple(beside[:3]))


@cache
def tasks(level: Level) -> list[Task]:
    """The tasks of a level that two seeds make of the pairs."""
    found = []
    for pair in PAIRS:
        for seed in (1, 2):
            try:
                found.append(make_task(level, boards(*pair), seed))
            except NoTask:
                continue
    return found


class EveryTask(TestCase):
    def test_there_are_tasks_of_every_level(self) -> None:
        for level in LEVELS:
            self.assertGreaterEqual(len(tasks(level)), 6, level)

    def test_who_does_all_right_ends_in_register(self) -> None:
        for level in LEVELS:
            for task in tasks(level):
                with self.subTest(level=level, pair=task.boards.original.part_number, seed=task.seed):
                    ended = play(task, solved(task)).outcome
                    assert ended is not None
                    self.assertIsNone(ended.first)
                    if level in ("set", "carry", "whole"):
                        self.assertIn(ended.verdict, ("identical", "within tolerance"))

    def test_every_mistake_that_the_machine_knows_of_is_seen_in_some_run(self) -> None:
        planted = 0
        for task in (*tasks("set"), *tasks("carry")):
            assert task.carried is not None and task.carried.record is not None
            right = task.carried.record
            for wrong in mistakes(task.boards, right):
                if proof_of(task.boards, task.stood, wrong).verdict != "different":
                    continue
                planted += 1
                with self.subTest(pair=task.boards.replacement.part_number, seed=task.seed):
                    self.assertTrue(any(parts(task.boards, wrong, right, run.scenario) for run in task.runs))
        self.assertGreater(planted, 50)

    def test_the_same_seed_makes_the_same_task_and_another_another(self) -> None:
        for level in LEVELS:
            same = tasks(level)[0].boards
            one = [play(make_task(level, same, seed), []).shown for seed in (3, 3)]
            self.assertEqual(one[0], one[1])
        stood = {str(make_task("read", boards(*PAIRS[1]), seed).stood.points) for seed in range(8)}
        self.assertGreater(len(stood), 4)

    def test_nothing_of_what_should_be_is_shown_before_the_end(self) -> None:
        for task in tasks("set"):
            assert task.carried is not None and task.carried.record is not None
            shown = play(task, []).shown
            positions = written_positions(task.boards.replacement, task.carried.record.points)
            self.assertNotEqual(shown["positions"], positions)
            self.assertNotIn("original", shown)
        for task in tasks("read"):
            for point in task.burnt:
                element = next(each for each in task.boards.original.elements if point in [p.id for p in each.points])
                self.assertIn("?", play(task, []).shown["positions"][element.id])

    def test_what_cannot_be_done_is_refused_with_its_place(self) -> None:
        for level in LEVELS:
            task = tasks(level)[0]
            for wrong in ({"do": "fly"}, {}, {"do": "set"}, {"do": "set", "positions": {"S9": "1"}}, {"do": "run", "run": "x"},
                          {"do": "put", "wire": "W99", "place": ""}, {"do": "test", "test": []}, {"do": "wait", "seconds": "x"},
                          {"do": "wait", "seconds": -1}, {"do": "hold", "point": "x"}, {"do": "read"},
                          {"do": "press", "panel": 9, "action": "next"}, {"do": "press", "panel": 0, "action": "x"},
                          {"do": "press", "panel": "0", "action": "up"}, {"do": "measure", "place": "C9.9"},
                          {"do": "blame", "what": "x"}, {"do": "choose", "board": "x"}, {"do": "recognise", "board": []},
                          {"do": "want", "function": "x", "value": 1}, {"do": "tell", "what": "x"}):  # fmt: skip
                with self.assertRaisesRegex(WrongAction, r"actions\[1\]"):
                    play(task, [*solved(task)[:1], wrong])
            with self.assertRaisesRegex(WrongAction, "is ended"):
                play(task, [{"do": "done"}, {"do": "done"}])
            with self.assertRaisesRegex(WrongAction, "at most"):
                play(task, [{"do": "done"}] * 401)


class Consequences(TestCase):
    def test_a_trial_that_is_set_too_long_shows_in_what_the_machine_does(self) -> None:
        task = next(each for each in tasks("set") if each.boards.replacement.part_number == "TVH-2424-A")
        assert task.carried is not None and task.carried.record is not None
        right = written_positions(task.boards.replacement, task.carried.record.points)
        wrong = next(
            written_positions(task.boards.replacement, each.points)
            for each in mistakes(task.boards, task.carried.record)
            if proof_of(task.boards, task.stood, each).verdict == "different"
        )
        ran = [play(task, [{"do": "set", "positions": each}, {"do": "run", "run": run.id}]).shown["ran"]["outputs"]
               for each in (right, wrong) for run in task.runs]  # fmt: skip
        half = len(ran) // 2
        self.assertNotEqual(ran[:half], ran[half:])
        ended = play(task, [{"do": "set", "positions": wrong}, {"do": "done"}]).outcome
        assert ended is not None and ended.counter_case is not None and ended.first is not None
        self.assertEqual(ended.verdict, "different")
        self.assertIn(("not run", {}), ended.told)

    def test_two_wires_taken_for_each_other_drive_each_others_devices(self) -> None:
        task = next(each for each in tasks("wires") if len({lead.right for lead in each.leads}) > 3)
        one, other = task.leads[0], task.leads[1]
        actions = [
            {"do": "put", "wire": one.id, "place": other.right[0]},
            {"do": "put", "wire": other.id, "place": one.right[0]},
        ]
        ended = play(task, [*actions, {"do": "done"}]).outcome
        assert ended is not None
        told = [
            (code, data["device"], data.get("driven_by")) for code, data in ended.told if code == "taken for another"
        ]
        self.assertEqual(
            told, [("taken for another", one.title, other.title), ("taken for another", other.title, one.title)]
        )
        off = play(task, [*actions, {"do": "put", "wire": one.id, "place": ""}]).shown["wires"]
        self.assertEqual((off[0]["at"], off[1]["at"]), ("", one.right[0]))

    def test_who_touches_too_early_hears_what_was_still_on_the_board(self) -> None:
        """The exponential decay of a capacitor through its bleeder: after one time constant V/e is left."""
        task = next(
            each for each in tasks("safe") if each.boards.original.document.get("stored_energy", {}).get("bleed_kohm")
        )
        node = task.boards.original.document["stored_energy"]
        constant_s = node["capacitance_uf"] * 1e-6 * node["bleed_kohm"] * 1e3
        stored = next(each for each in points_of(task) if each.wait_s)
        actions = [
            {"do": "hold", "point": points_of(task)[0].id},
            {"do": "wait", "seconds": constant_s},
            {"do": "touch"},
        ]
        ended = play(task, actions).outcome
        assert ended is not None
        told = dict(ended.told)["touched: stored energy"]
        self.assertEqual(told["point"], stored.title)
        self.assertAlmostEqual(told["volts"], node["volts"] / 2.718281828, delta=0.1)

    def test_the_order_of_hold_points_counts_and_waiting_before_the_switch_is_no_wait(self) -> None:
        task = next(each for each in tasks("safe") if any(point.wait_s for point in points_of(each)))
        first, second, *rest = points_of(task)
        order = [second, first, *rest]
        actions = [
            {"do": "wait", "seconds": 3000},
            *({"do": "hold", "point": each.id} for each in order),
            {"do": "touch"},
        ]
        ended = play(task, actions).outcome
        assert ended is not None and ended.first is not None
        rows = {row.what: row.did for row in ended.rows}
        self.assertEqual(rows[first.title], "done")
        self.assertEqual(rows[second.title], "out of order")
        self.assertEqual({row.did for row in ended.rows if row.skill == "wait"}, {"too early"})

    def test_more_tests_than_the_best_way_needs_are_told_in_minutes(self) -> None:
        task = min(tasks("find"), key=lambda each: len(best_way(each)))
        assert task.boards.rule_out is not None
        every = [{"do": "test", "test": each.id} for each in task.boards.rule_out.tests]
        ended = play(task, [*every, *every, {"do": "name", "suspect": task.suspect}, {"do": "done"}]).outcome
        assert ended is not None
        minutes = next(row for row in ended.rows if row.skill == "shortest way")
        self.assertEqual(minutes.did, sum(each.minutes for each in task.boards.rule_out.tests))
        self.assertFalse(minutes.right)

    def test_a_guess_is_no_finding_however_right_and_no_way_is_short_that_finds_nothing(self) -> None:
        """A defect: whoever clicked at once, right or wrong, had the shortest way."""
        for task in tasks("find"):
            assert task.boards.rule_out is not None
            wrong = next(each.id for each in task.boards.rule_out.suspects if each.id != task.suspect)
            for named in (task.suspect, wrong):
                ended = play(task, [{"do": "name", "suspect": named}, {"do": "done"}]).outcome
                assert ended is not None
                self.assertFalse(all(row.right for row in ended.rows if row.skill == "find"))
                self.assertFalse(next(row for row in ended.rows if row.skill == "shortest way").right)
            best = [{"do": "test", "test": name} for name, _ in best_way(task)]
            ended = play(task, [*best, {"do": "name", "suspect": task.suspect}, {"do": "done"}]).outcome
            assert ended is not None
            self.assertTrue(all(row.right for row in ended.rows), task.seed)

    def test_boards_that_make_no_task_say_why(self) -> None:
        with self.assertRaisesRegex(NoTask, "not known|no twin"):
            make_task("set", boards("TVH-2210-B", "OFN-K2"), 1)
        with self.assertRaisesRegex(NoTask, "how faults"):
            make_task("find", replace(boards(*PAIRS[0]), rule_out=None), 1)


class AtThePins(TestCase):
    def test_what_a_meter_shows_follows_from_the_machine_and_its_fault(self) -> None:
        blamed = set()
        for seed in range(40):
            task = make_task("meter", boards("TVH-2420-A", "TVH-2420-A"), seed)
            meter = meter_of(task)
            blamed.add(meter.blamed)
            output = {volts_at(task, place) for place in places_of_output(task.boards, meter.output)}
            self.assertEqual(output, {VOLTS["mains"]} if meter.blamed == "load" else {0.0}, meter)
            supply = volts_at(task, "C1.1")
            self.assertEqual(supply, 0.0 if meter.blamed == "supply" else 230.0)
        self.assertEqual(blamed, set(BLAMED))

    def test_an_input_that_never_comes_is_what_keeps_the_output_off(self) -> None:
        task = next(
            each for seed in range(40)
            if meter_of(each := make_task("meter", boards("TVH-2420-A", "TVH-2420-A"), seed)).blamed == "input"
        )  # fmt: skip
        meter = meter_of(task)
        whole = simulate(task.boards.original, task.stood, task.boards.family, meter.scenario)
        stood = next(each for each in reversed(whole) if float(each.at) <= meter.at)
        self.assertIn(meter.output, stood.on)
        self.assertEqual(volts_at(task, telling_places(task)[-1]), 0.0)

    def test_whoever_guesses_without_measuring_where_it_shows_has_not_shown_it(self) -> None:
        task = tasks("meter")[0]
        ended = play(task, [{"do": "blame", "what": meter_of(task).blamed}, {"do": "done"}]).outcome
        assert ended is not None and ended.first is not None
        self.assertEqual(ended.first.what, "measured where it shows")


class OnAPanel(TestCase):
    def test_what_was_not_stored_is_not_held_whatever_the_display_showed(self) -> None:
        task = next(each for each in tasks("keys") if solved(each)[-2]["action"] in ("enter", "store"))
        presses = solved(task)[:-1]
        held = play(task, [*presses[:-1], {"do": "done"}]).outcome
        assert held is not None
        self.assertFalse(held.right)
        self.assertIn(("not stored", {}), held.told)
        whole = play(task, [*presses, {"do": "done"}]).outcome
        assert whole is not None
        self.assertEqual(dict(whole.told)["presses"], {"took": len(presses), "least": len(presses)})


class Skills(TestCase):
    def test_knowledge_tracing_follows_its_published_equations(self) -> None:
        """Corbett and Anderson 1995, equations 1 and 2, worked out by hand for P(L) = 1/2: right 9/11 + 2/11·0.15,
        wrong 1/9 + 8/9·0.15.
        """
        self.assertAlmostEqual(traced(0.5, True), 9 / 11 + 2 / 11 * 0.15)
        self.assertAlmostEqual(traced(0.5, False), 1 / 9 + 8 / 9 * 0.15)
        self.assertGreater(traced(0.3, True), 0.3)
        self.assertLess(traced(0.9, False), 0.9)

    def test_repetition_follows_sm_2(self) -> None:
        """Woźniak 1990: I(1) = 1, I(2) = 6, I(n) = I(n-1)·EF days; EF + 0.1 at quality 5, unchanged at 4, at least 1.3; below 3
        it begins anew.
        """
        skill, intervals = Skill(), []
        now = NOW
        for _ in range(4):
            skill = practised(skill, [True], now)
            intervals.append(skill.days)
            due, now = now + timedelta(days=skill.days), now + timedelta(days=skill.days)
        self.assertEqual(intervals[:2], [1.0, 6.0])
        self.assertAlmostEqual(intervals[2], 6 * 2.8)
        self.assertAlmostEqual(intervals[3], 6 * 2.8 * 2.9)
        self.assertEqual(skill.due, due)
        self.assertAlmostEqual(practised(Skill(), [True] * 4 + [False], NOW).ease, 2.5)
        failed = practised(skill, [False], NOW)
        self.assertEqual((failed.times, failed.days), (0, 1.0))
        for _ in range(20):
            failed = practised(failed, [False], NOW)
        self.assertEqual(failed.ease, 1.3)

    def test_what_is_practised_before_it_is_due_is_due_no_later_for_it_and_nothing_is_put_off_for_ever(self) -> None:
        """Defects: the interval grew at every practice, and the fourteenth right one in a row ended in an overflow."""
        skill = practised(Skill(), [True], NOW)
        again = practised(skill, [True], NOW + timedelta(hours=1))
        self.assertEqual((again.due, again.days, again.times), (skill.due, skill.days, skill.times))
        self.assertGreater(again.known, skill.known)
        self.assertEqual(practised(skill, [False], NOW + timedelta(hours=1)).times, 0)
        now = NOW
        for _ in range(60):
            skill = practised(skill, [True], now)
            assert skill.due is not None
            now = skill.due
        self.assertEqual(skill.days, 365)

    def test_what_comes_next_is_the_first_level_not_mastered_or_what_is_due(self) -> None:
        self.assertEqual(next_level({}, NOW), "read")
        known = {name: Skill(0.99, 3, 2.5, 6.0, NOW + timedelta(days=6)) for name in ("read", "unreadable")}
        self.assertEqual(next_level(known, NOW), "set")
        self.assertEqual(next_level(known, NOW + timedelta(days=7)), "read")
        every = {name: Skill(0.99) for name in SKILLS}
        self.assertEqual(next_level({**every, "wait": Skill(0.96)}, NOW), "safe")

    def test_skills_move_by_what_a_task_showed(self) -> None:
        rows = [Row("S1", "01", "01", True, "read"), Row("S2", "1", "0", False, "unreadable")]
        after = after_task({"wires": Skill(0.5)}, rows, NOW)
        self.assertGreater(after["read"].known, after["unreadable"].known)
        self.assertEqual(after["wires"], Skill(0.5))

    def test_a_task_that_is_right_in_part_is_no_proof_of_a_skill(self) -> None:
        """Defect: nine functions of ten that stood right by themselves made a skill that nobody had shown."""
        rows = [Row(str(number), 1, 1, number != 3, "safety") for number in range(10)]
        self.assertAlmostEqual(after_task({}, rows, NOW)["safety"].known, traced(0.2, False))
