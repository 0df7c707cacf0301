"""Carry over, through the API: schools and decisions, the wiring plan, presses, the sheet."""

import csv
import io
from typing import Any

from django.db import connection
from django.test.utils import CaptureQueriesContext
from pypdf import PdfReader

from jobs.tests.world import FrontTestCase


class Schools(FrontTestCase):
    def setUp(self) -> None:
        super().setUp()
        self.open = self.job(3)
        self.add("found.S1", "010110", read_how="by eye")

    def school(self, name: str) -> Any:
        return next(each for each in self.of("comparison")["schools"] if each["id"] == name)

    def test_the_table_names_the_fact_that_would_decide_and_then_speaks(self) -> None:
        table = self.school("table")
        self.assertIsNone(table["positions"])
        self.assertIn("This would decide: model, year of make.", table["says"][0])
        self.add("fact.model", {"value": "DK2", "source": "plate"})
        self.add("fact.made", {"value": 2004, "source": "plate"})
        table = self.school("table")
        self.assertEqual(table["positions"], {"SW1": "1111", "R1": "4"})
        self.assertEqual(table["proof"]["verdict"], "different")
        self.assertTrue(any("s shorter" in row["difference"] for row in table["functions"]))
        self.assertFalse(self.school("positions")["counts"])
        self.assertEqual(self.school("learning")["says"], ["This board does not learn."])

    def test_disagreements_are_decided_with_a_reason_or_the_plan_is_not_confirmed(self) -> None:
        self.add("fact.model", {"value": "DK2", "source": "plate"})
        self.add("fact.made", {"value": 2004, "source": "plate"})
        self.record_plugs(self.open)
        self.add("confirmed.record", {"note": ""})
        shown = self.of("comparison")
        self.assertEqual({d["id"] for d in shown["disagreements"]}, {"purge.post"})
        self.assertIn("schools disagree", self.add("confirmed.carry_over", {"note": ""}, 400)["detail"])
        self.entry(self.open, "decision.purge.post", "table", status=422)
        for each in shown["disagreements"]:
            self.entry(self.open, f"decision.{each['id']}", "table", reason="Leaflet of this year holds for the oven")
        after = self.of("comparison")
        row = next(r for r in after["rows"] if r["id"] == "purge.post")
        self.assertEqual((row["wanted"], row["wanted_by"], after["plan"]["R1"]), ("60 s", "the maker’s table", "4"))
        # a defect: what the table wants was told as found, and the two called the same
        self.assertEqual((row["found"], row["verdict"], row["met"]), ("90 s", "off", True))
        self.assertEqual((after["safety_misses"], after["other_misses"]), (0, 1))
        self.assertEqual(after["proof"]["verdict"], "different")
        self.add("confirmed.carry_over", {"note": ""})

    def test_facts_that_no_row_has_leave_the_leaflet_in_sight_and_are_named(self) -> None:
        self.add("fact.model", {"value": "DK9", "source": "plate"})
        self.add("fact.made", {"value": 2004, "source": "plate"})
        shown = self.of("leaflet")
        self.assertEqual((shown["rows"], shown["possible"], shown["tables"]), ([], 0, True))
        self.assertEqual(len(shown["against"]), 2)
        self.assertIn("DK9", shown["against"][0])

    def test_the_depot_says_which_school_is_proposed(self) -> None:
        self.assertEqual(self.of("comparison")["proposed"], "functions")
        self.sign_in("corm")
        policies = self.get("depot")
        self.put("depot", {**policies, "school_when_agreed": "positions", "school_when_not": "table"})
        self.put("depot", {**policies, "school_when_not": "guessing"}, 422)
        self.sign_in()
        # copying says nothing between banks that do not look alike
        self.assertEqual(self.of("comparison")["proposed"], "functions")
        self.add("fact.model", {"value": "DK2", "source": "plate"})
        self.add("fact.made", {"value": 2004, "source": "plate"})
        self.assertEqual(self.of("comparison")["proposed"], "table")

    def test_following_one_school_in_everything_sets_its_very_positions(self) -> None:
        self.add("fact.model", {"value": "DK2", "source": "plate"})
        self.add("fact.made", {"value": 1999, "source": "plate"})
        self.record_plugs(self.open)
        self.add("confirmed.record", {"note": ""})
        self.entry(self.open, "school", "table", reason="", status=422)
        self.entry(self.open, "school", "learning", reason="it learns", status=422)
        self.entry(self.open, "school", "table", reason="The leaflet was made for this year")
        self.assertEqual(self.of("comparison")["plan"], {"SW1": "0110", "R1": "2"})

    def test_an_original_that_was_off_its_own_table_is_called_out(self) -> None:
        self.add("fact.model", {"value": "DK2", "source": "plate"})
        self.add("found.S1", "110110", before="010110", read_how="by eye")
        self.assertEqual(self.of("comparison")["off_own_table"], [{"point": "S1.1", "found": "on", "table": "off"}])

    def test_a_trimmer_between_marks_is_interpolated_with_its_uncertainty(self) -> None:
        self.open = self.job(6)
        self.add("original", "ISB 300")
        self.add("replacement", "ISB 330")
        self.make_dead(self.open)
        self.add("angle.VR1", {"degrees": 400, "within": 5}, 422)
        self.add("angle.J1", {"degrees": 10, "within": 5}, 422)
        shown = self.add("angle.VR1", {"degrees": 20, "within": 5})
        self.assertEqual(shown["how"]["VR1"], "by angle")
        for name in ("VR2", "VR3", "VR4", "VR5", "J1"):
            values = next(s for s in self.get("board/ISB%20300")["document"]["settings"] if s["id"] == name)
            self.add(f"found.{name}", values["factory"], read_how="by eye")
        between = self.of("comparison")["between"]
        self.assertEqual(len(between), 1)
        self.assertNotEqual(between[0]["low"], between[0]["high"])


class Leaflet(FrontTestCase):
    """A universal board of which only its maker's sheet is known: the sheet's row is the plan."""

    def setUp(self) -> None:
        super().setUp()
        self.open = self.job(3)
        self.add("replacement", "OFN-L1", before="TVH-2214-A", reason="it is on the van")

    def test_what_to_take_and_how_to_set_it_is_told_before_the_machine_is_opened(self) -> None:
        before = self.of("take-along")
        self.assertIsNone(before["positions"])
        asked = self.of("leaflet")
        self.assertEqual((asked["whole"], asked["sets"], asked["possible"]), (False, None, 2))
        self.assertEqual([each["words"] for each in asked["asks"]], ["Damper fitted: no"])
        self.add("fact.damper.fitted", {"value": True, "source": "seen"})
        after = self.of("take-along")
        self.assertEqual(after["positions"], {"S1": "01101010", "R1": "3"})
        self.assertEqual(after["basis"], "by the leaflet’s row for this machine")
        lines = {each["what"]: (each["why"], each["count"]) for each in after["lines"]}
        self.assertEqual(lines["adapter lead E"], ("kit", 1))
        self.assertEqual(lines["damper lead F"], ("kit", 1))

    def test_its_row_is_the_plan_without_a_word_and_goes_through_to_the_fitting(self) -> None:
        self.add("fact.damper.fitted", {"value": False, "source": "seen"})
        self.add("found.S1", "010110", read_how="by eye")
        self.record_plugs(self.open)
        self.add("confirmed.record", {"note": ""})
        shown = self.of("comparison")
        self.assertEqual((shown["proposed"], shown["plan"]), ("table", {"S1": "01101000", "R1": "3"}))
        self.assertEqual(self.of("leaflet")["rows"][0]["use"], ["adapter lead E"])
        self.add("confirmed.carry_over", {"note": ""})
        kit = {line["item"]: line["needed"] for line in self.of("fitting")["kit"]}
        self.assertEqual(kit["adapter lead E"], "needed")

    def test_a_board_without_tables_says_nothing_and_asks_nothing(self) -> None:
        self.add("replacement", "OFN-K2", before="OFN-L1", reason="the kit is here")
        nothing = {
            "rows": [],
            "sets": None,
            "whole": False,
            "clash": [],
            "asks": [],
            "possible": 0,
            "tables": False,
            "against": [],
        }
        self.assertEqual(self.of("leaflet"), nothing)
        lines = [(each["what"], each["why"]) for each in self.of("take-along")["lines"]]
        self.assertIn(("adapter lead K", "kit"), lines)
        # what is in the kit is not told a second time as a companion
        self.assertEqual([why for what, why in lines if what == "flame rod"], ["kit"])


class Sizes(FrontTestCase):
    def test_a_wire_of_known_load_is_judged_by_its_size_or_gauge(self) -> None:
        self.open = self.job(3)
        self.add("fact.load.fan.line.amps", {"value": 9, "source": "measured"})
        self.add("fact.supply.volts", {"value": 230, "source": "measured"})
        self.add("wire.w4", {"connector": "C1", "pin": "4", "mm2": 0.75})
        size = self.of("wiring")["sizes"][0]
        self.assertEqual((size["place"], size["verdict"]), ("C1.4", "too thin"))
        self.assertIn("it may carry 8.6 A", size["words"])
        kept = {"connector": "C1", "pin": "4", "mm2": 0.75}
        self.add("wire.w4", {"connector": "C1", "pin": "4", "awg": 16, "length_m": 3}, before=kept)
        self.assertEqual(self.of("wiring")["sizes"][0]["verdict"], "thick enough")
        self.add("wire.w5", {"connector": "C1", "pin": "5", "awg": 99}, 422)


class Plans(FrontTestCase):
    def setUp(self) -> None:
        super().setUp()
        self.open = self.job(7)
        self.add("replacement", "OFN-P1", reason="universal is on the van")
        self.make_dead(self.open)
        for element in self.of("boards/original")["document"]["settings"]:
            self.add(f"found.{element['id']}", element["factory"], read_how="by eye")
        self.record_plugs(self.open)

    def test_every_wire_and_every_pin_stands_in_the_plan_once(self) -> None:
        plan = self.of("wiring")
        self.assertEqual(plan["adapters"], ["Power lead for provers"])
        self.assertEqual(
            plan["wire_sums"], {"straight": 0, "adapter": 8, "single": 0, "new end": 10, "tied back": 0, "no": 0}
        )
        self.assertEqual(plan["pin_sums"], {"wired": 18, "link": 0, "left open": 0, "device missing": 0, "unused": 0})
        self.assertEqual(plan["steps"][-1]["words"], "Move plug C1 complete through Power lead for provers to X1")
        first = plan["steps"][0]
        self.entry(self.open, f"ticked.{first['key']}", True, status=400)
        self.entry(self.open, "order", "any", status=400)

    def test_the_presses_lead_from_factory_to_plan_and_say_what_must_be_seen(self) -> None:
        shown = self.of("presses")
        self.assertEqual([p["title"] for p in shown["panels"]], ["Front keys"])
        last = shown["panels"][0]["presses"][-1]
        self.assertEqual(last["key"], "SET")
        self.assertGreater(shown["count"], 5)

    def test_the_plan_goes_out_as_a_sheet_as_json_and_as_csv(self) -> None:
        sheet = PdfReader(io.BytesIO(self.client.get(f"/api/jobs/{self.open.pk}/plan.pdf").content))
        text = " ".join(" ".join(page.extract_text() for page in sheet.pages).split())
        for words in (
            "Set on the new board",
            "left to right 1 to ",
            "Move, one at a time",
            "Power lead for provers",
            "Key in",
            "does not say that anything is safe",
        ):
            self.assertIn(words, text)
        plan = self.get(f"jobs/{self.open.pk}/plan.json")
        self.assertEqual(len(plan["wiring"]["wires"]), 18)
        rows = list(csv.DictReader(io.StringIO(self.client.get(f"/api/jobs/{self.open.pk}/plan.csv").content.decode())))
        self.assertEqual((len(rows), rows[0]["treatment"]), (18, "adapter"))
        self.get(f"jobs/{self.open.pk}/tags.pdf", 400)

    def test_the_sheets_of_the_middle_ask_few_questions_of_the_database(self) -> None:
        for path, most in (("make-safe", 10), ("record", 8), ("wiring", 10), ("presses", 9), ("comparison", 9)):
            self.of(path)
            with CaptureQueriesContext(connection) as queries:
                self.of(path)
            self.assertLessEqual(len(queries), most, [q["sql"][:90] for q in queries.captured_queries])
