"""Practice of a whole job: each step works on what the ones before it left, and nothing says what is wrong but the machine."""

import re
from typing import Any
from unittest import TestCase

from tests.test_practice import boards, tasks
from twincore.practice import Lead, Task, WrongAction, make_task, play, solved
from twincore.practice.keys import names_on_panels
from twincore.practice.making import WORN
from twincore.practice.outcome import Outcome
from twincore.practice.signals import kind_of
from twincore.practice.twins import replacements
from twincore.practice.whole import BEHAVES, leads_on


class WholeJob(TestCase):
    def whole(self, original: str = "TVH-2420-A", replacement: str = "TVH-2424-A", seed: int = 1) -> Task:
        return make_task("whole", boards(original, replacement), seed)

    def put(self, task: Task, wires: dict[str, str]) -> list[dict[str, Any]]:
        """All that is right, but for these wires."""
        actions = solved(task)
        return [
            {**each, "place": wires.get(each["wire"], each["place"])} if each["do"] == "put" else each
            for each in actions
        ]

    def wires(self, task: Task) -> dict[str, Lead]:
        return {each.signal: each for each in leads_on(task, task.boards)}

    def ended(self, task: Task, actions: list[dict[str, Any]]) -> Outcome:
        found = play(task, actions).outcome
        assert found is not None
        return found

    def test_what_is_read_wrong_is_carried_over_wrong_and_the_machine_behaves_otherwise(self) -> None:
        task, differs = self.whole(), 0
        actions = solved(task)
        reading = next(each for each in actions if each["do"] == "read")
        at = actions.index(reading)
        after = [each for each in actions[at + 1 :] if each["do"] != "set"]
        for element in task.boards.original.elements:
            if not element.placed:
                continue
            wrong = "".join("10"[int(each)] if each in "01" else each for each in reading["positions"][element.id])
            misread = {**reading, "positions": {**reading["positions"], element.id: wrong}}
            sheet = play(task, [*actions[:at], misread]).shown["to_set"]
            whole = [*actions[:at], misread, {"do": "set", "positions": sheet}, *after]
            ended = self.ended(task, whole)
            assert ended.first is not None
            self.assertEqual((ended.first.what, ended.first.skill), (element.id, "read"))
            differs += ended.verdict == "different"
            if ended.verdict == "different":
                self.assertEqual(ended.rows[-1].should, BEHAVES[False])
        self.assertGreater(differs, 0)

    def test_two_wires_taken_for_each_other_make_the_machine_do_each_others_work(self) -> None:
        drawn = (self.whole(seed=seed) for seed in range(20))
        task = next(each for each in drawn if {"fan", "valve"} <= {signal.split(".")[0] for signal in self.wires(each)})
        one, other = (
            next(each for signal, each in self.wires(task).items() if signal.startswith(f"{name}"))
            for name in ("fan", "valve")
        )
        right, crossed = (
            play(task, self.put(task, swapped)).shown["setting"]["ran"]["outputs"]
            for swapped in ({}, {one.id: other.right[0], other.id: one.right[0]})
        )
        names = {"fan": "valve", "valve": "fan"}
        self.assertEqual(
            [{names.get(name, name) for name in each["on"]} for each in right], [{*each["on"]} for each in crossed]
        )
        self.assertNotEqual(right, crossed)
        ended = self.ended(task, self.put(task, {one.id: other.right[0], other.id: one.right[0]}))
        self.assertIn(ended.verdict, ("identical", "within tolerance"))
        self.assertEqual((ended.rows[-1].should, ended.rows[-1].right), (BEHAVES[False], False))

    def test_a_supply_that_is_on_nothing_moves_nothing_and_mains_where_it_does_not_belong_burns_the_board(self) -> None:
        faults: set[str] = set()
        for seed in range(12):
            task = self.whole(seed=seed)
            family = task.boards.family
            leads = self.wires(task).values()
            low = [each.right[0] for each in leads if kind_of(family, each.signal)["volts_class"] != "mains"]
            for lead in leads:
                if kind_of(family, lead.signal)["kind"] != "supply":
                    continue
                faults.add(play(task, self.put(task, {lead.id: ""})).shown["setting"]["ran"]["fault"])
                if low and kind_of(family, lead.signal)["volts_class"] == "mains":
                    faults.add(play(task, self.put(task, {lead.id: low[0]})).shown["setting"]["ran"]["fault"])
        self.assertEqual(faults, {"dead", "burnt"})

    def test_line_and_neutral_taken_for_each_other_show_in_no_run_and_are_wrong_all_the_same(self) -> None:
        drawn = (self.whole(seed=seed) for seed in range(20))
        task = next(each for each in drawn if {"supply.line", "supply.neutral"} <= self.wires(each).keys())
        line, neutral = (self.wires(task)[signal] for signal in ("supply.line", "supply.neutral"))
        swapped = self.put(task, {line.id: neutral.right[0], neutral.id: line.right[0]})
        runs = [play(task, each).shown["setting"]["ran"] for each in (self.put(task, {}), swapped)]
        self.assertEqual(runs[0], runs[1])
        ended = self.ended(task, swapped)
        self.assertEqual((ended.first and ended.first.skill, ended.rows[-1].should), ("wires", BEHAVES[False]))

    def test_an_input_whose_wire_is_off_never_comes(self) -> None:
        drawn = (self.whole(seed=seed) for seed in range(20))
        task, lead = next(
            (each, lead) for each in drawn for lead in self.wires(each).values() if lead.signal.startswith("call")
        )
        ran = play(task, self.put(task, {lead.id: ""})).shown["setting"]["ran"]
        self.assertEqual(
            (ran["fault"], {name for each in ran["outputs"] for name in each["on"]} & {"valve"}), ("", set())
        )

    def test_who_takes_hold_of_a_live_board_does_not_go_on(self) -> None:
        task = self.whole()
        ended = self.ended(task, [{"do": "recognise", "board": "TVH-2420-A"}, {"do": "touch"}])
        self.assertNotIn("read", {row.skill for row in ended.rows})
        self.assertTrue(any(code.startswith("touched") for code, _ in ended.told))
        with self.assertRaisesRegex(WrongAction, "is ended"):
            play(task, [{"do": "touch"}, {"do": "done"}])

    def test_each_step_waits_for_those_that_it_works_on(self) -> None:
        task = self.whole("TVH-2420-A", "OFN-U5")
        actions = solved(task)
        kinds = [each["do"] for each in actions]
        for kind, without in (("read", "touch"), ("choose", "recognise"), ("set", "read"), ("put", "read"), ("run", "read"),
                              ("press", "read"), ("set", "choose")):  # fmt: skip
            early = [each for each in actions[: kinds.index(kind)] if each["do"] != without]
            with self.assertRaisesRegex(WrongAction, "expected"):
                play(task, [*early, actions[kinds.index(kind)]])
        keyed = names_on_panels(task.boards.replacement)[0]
        with self.assertRaisesRegex(WrongAction, "keyed in"):
            play(task, [*actions[: kinds.index("set")], {"do": "set", "positions": {keyed: 1}}])
        with self.assertRaisesRegex(WrongAction, "not made any more"):
            play(task, [*actions[: kinds.index("choose")], {"do": "choose", "board": "TVH-2420-A"}])

    def test_a_board_that_was_taken_for_another_is_read_anew(self) -> None:
        task = self.whole()
        actions = solved(task)
        at = next(number for number, each in enumerate(actions) if each["do"] == "read") + 1
        again = play(task, [*actions[:at], {"do": "recognise", "board": "TVH-2424-A"}]).shown
        self.assertEqual((again["recognised"], again["held"], again["reading"]["said"]), ("TVH-2424-A", True, {}))
        self.assertEqual((again["chosen"], again["judged_on"]), ("", "factory"))

    def test_the_number_on_the_board_leaves_only_one_of_the_boards_offered(self) -> None:
        for task in tasks("whole"):
            printed = play(task, []).shown["printed"]
            pattern = re.compile(re.escape(printed).replace(WORN, "."))
            fits = [each for each in task.boards.offered if pattern.fullmatch(each)]
            self.assertEqual(fits, [task.boards.original.part_number])

    def test_what_cannot_be_read_stands_on_the_card_in_the_door(self) -> None:
        seen = 0
        for task in tasks("whole"):
            actions = solved(task)
            shown = play(task, actions[:-1]).shown
            for each in shown["card"]:
                seen += 1
                row = next(row for row in shown["carried"] if row["function"] == each["function"])
                self.assertIn(each["value"], row["may_be"])
                self.assertEqual(row["wanted"], each["value"])
            self.assertEqual(bool(task.burnt and shown["card"]), bool(shown["card"]))
        self.assertGreater(seen, 3)

    def test_any_board_that_is_offered_can_be_gone_on_with(self) -> None:
        for task in tasks("whole"):
            actions = solved(task)
            at = [each["do"] for each in actions].index("read") + 1
            for name in play(task, actions[:at]).shown["candidates"]:
                begun = [*actions[:at], {"do": "choose", "board": name["board"]}, {"do": "run", "run": task.runs[0].id}]
                ended = self.ended(task, [*begun, {"do": "tell", "what": BEHAVES[False]}, {"do": "done"}])
                rows = {row.what: row for row in ended.rows}
                self.assertEqual(
                    rows["which board goes in"].right, name["board"] in replacements(task.boards, task.stood)
                )
