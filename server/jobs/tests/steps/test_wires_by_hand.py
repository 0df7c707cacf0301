"""Two boards that nobody entered, put against each other: wires go where a person says, and every paper says who said it."""

import csv
import io
from typing import Any
from uuid import uuid4

from pypdf import PdfReader

from jobs.models import Job
from jobs.tests.world import FrontTestCase

SKETCHES = (
    ("K7-100", "S1 bank 4, on up, from left; J1 plug 11, keyed"),
    ("K7-200", "S1 bank 4, on up, from left; J1 plug 11, keyed; J2 plug 3"),
)


class WiresByHand(FrontTestCase):
    def setUp(self) -> None:
        super().setUp()
        for number, lines in SKETCHES:
            self.post("sketches", {"part_number": number, "kind": "Gate drive", "title": "Main board", "lines": lines})
        opened = self.post("jobs", {"id": str(uuid4()), "machine": "Gate 1", "complaint": "dead"})
        self.open = Job.objects.get(pk=opened["id"])
        for target, after in (
            ("confirmed.rule_out", {"note": "scorched", "end": "condemned"}), ("original", "K7-100"),
            ("replacement", "K7-200"),
        ):  # fmt: skip
            self.add(target, after)
        self.make_dead(self.open)

    def wires(self) -> dict[str, tuple[str, str | None]]:
        return {each["from_place"]: (each["treatment"], each["to_place"]) for each in self.of("wiring")["wires"]}

    def put(self, target: str, after: Any, status: int = 200, **more: Any) -> Any:
        name = target.partition(".")[2]
        key = "placed" if target.startswith("placed") else "plugs_put"
        self.open.refresh_from_db()
        return self.entry(self.open, target, after, self.open.state[key].get(name), status, **more)

    def test_the_plug_of_the_same_name_and_pins_is_offered_and_goes_complete_by_somebodys_word(self) -> None:
        self.assertIn("Record each wire first", self.add("plug.J1", "whole", 400)["detail"])
        plug = self.of("record")["plugs"][0]
        self.assertEqual((plug["complete"], plug["offered"]), (False, "J1"))
        self.put("plug_put.J1", {"to": "J1"})
        plug = self.of("record")["plugs"][0]
        self.assertEqual((plug["complete"], plug["offered"]), (True, None))
        self.add("plug.J1", "whole")
        shown = self.of("wiring")
        self.assertEqual(self.wires(), {f"J1.{pin}": ("straight", f"J1.{pin}") for pin in range(1, 12)})
        self.assertEqual([each["words"] for each in shown["steps"]], ["Move plug J1 complete to J1"])
        self.assertEqual((shown["offered"], shown["by_hand"][0]["by"]), ([], "Wennick Tarl"))
        self.put("plug_put.J1", None)
        self.assertEqual({each[0] for each in self.wires().values()}, {"tied back"})
        self.assertEqual(self.of("wiring")["offered"], [{"plug": "J1", "socket": "J1"}])
        self.add("found.S1", "0110", read_how="by eye")
        self.assertIn("does not take the plug complete: J1", self.add("confirmed.record", {"note": ""}, 400)["detail"])

    def test_wires_go_anywhere_by_hand_and_papers_say_where_by_whom_and_why(self) -> None:
        self.record(4)
        for name, after, reason in (
            ("J1.1", {"to": ["J2.1", "J2.2"]}, "Y serves both halves"), ("J1.2", {"to": [], "joined": "J1.1"}, ""),
            ("J1.3", {"to": []}, "no such function"), ("J1.4", {"to": ["J2.3"], "lead": "lead B"}, ""),
        ):  # fmt: skip
            self.put(f"placed.{name}", after, reason=reason)
        self.assertEqual(
            self.wires(),
            {
                "J1.1": ("new end", "J2.1"), "J1.2": ("joined", "J2.1"), "J1.3": ("tied back", None),
                "J1.4": ("adapter", "J2.3"),
            },
        )  # fmt: skip
        words = [each["words"] for each in self.of("wiring")["by_hand"]]
        self.assertIn("Wire of J1.1: to J2.1, linked on to J2.2", words)
        rows = list(csv.DictReader(io.StringIO(self.client.get(f"/api/jobs/{self.open.pk}/plan.csv").content.decode())))
        self.assertEqual(
            {row["tag"]: (row["to"], row["adapter"]) for row in rows},
            {"K1": ("J2.1 + J2.2", ""), "K2": ("J2.1", ""), "K3": ("", ""), "K4": ("J2.3", "lead B")},
        )
        self.add("override.S1", "0110")
        self.add("confirmed.carry_over", {"note": ""})
        plan = self.paper("plan.pdf")
        self.assertIn("from J1.1 to J2.1, linked on to J2.2", plan)
        self.fit(self.open)
        sheet = self.paper("sheet.pdf")
        for told in ("put by hand by Wennick Tarl: Y serves both halves", "joined with another wire", "lead B"):
            self.assertIn(told, sheet)

    def record(self, count: int) -> None:
        for pin in range(1, count + 1):
            wire = {"connector": "J1", "pin": str(pin), "tag": f"K{pin}", "colour": "brown"}
            self.entry(self.open, f"wire.{uuid4()}", wire)
        for place in (f"J1.{pin}" for pin in range(count + 1, 12)):
            self.add(f"settled.{place}", {"as": "no wire was there", "note": ""})
        self.add("found.S1", "0110", read_how="by eye")
        self.add("confirmed.record", {"note": ""})

    def paper(self, name: str) -> str:
        data = self.client.get(f"/api/jobs/{self.open.pk}/{name}").content
        return " ".join(" ".join(page.extract_text() for page in PdfReader(io.BytesIO(data)).pages).split())

    def test_what_cannot_be_is_refused_in_words_and_changes_nothing(self) -> None:
        self.record(4)
        for target, after, told in (
            ("placed.Z9", {"to": ["J2.1"]}, "no wire Z9"),
            ("placed.J1.1", {"to": ["J2.9"]}, "no pin J2.9"),
            ("placed.J1.1", {"to": ["J2.1", "J2.1"]}, "each pin once"),
            ("placed.J1.1", {"to": ["J2.1"], "joined": "J1.2"}, "not both"),
            ("placed.J1.1", {"to": [], "joined": "J1.1"}, "no pin of its own"),
            ("plug_put.J9", {"to": "J1"}, "no plug J9"),
            ("plug_put.J1", {"to": "J9"}, "no socket J9"),
            ("plug_put.J1", {"to": "J2"}, "no pin"),
        ):
            name = target.partition(".")[2]
            key = "placed" if target.startswith("placed") else "plugs_put"
            refused = self.put(target, after, 422)
            self.assertIn(told, refused["detail"], target)
            self.open.refresh_from_db()
            self.assertNotIn(name, self.open.state[key])

    def test_a_plug_with_another_print_at_a_pin_is_not_offered_and_takes_a_reason(self) -> None:
        for number, marks in (("K7-300", "L N PE"), ("K7-400", "N L PE")):
            lines = f"S1 bank 4; C1 plug 3, keyed, marked {marks}; C2 plug 2, not keyed"
            self.post("sketches", {"part_number": number, "kind": "Gate drive", "title": "Main board", "lines": lines})
        self.add("original", "K7-300", before="K7-100")
        self.add("replacement", "K7-400")
        self.assertIsNone(self.of("record")["plugs"][0]["offered"])
        self.assertIn("is not keyed", self.put("plug_put.C2", {"to": "C2"}, 400)["detail"])
        self.assertIn("something else", self.put("plug_put.C1", {"to": "C1"}, 400)["detail"])
        self.put("plug_put.C1", {"to": "C1"}, reason="The print of the new one is wrong, measured")

    def test_two_wires_on_a_pin_for_one_take_a_reason(self) -> None:
        self.record(2)
        self.put("placed.J1.1", {"to": ["J2.1"]})
        refused = self.put("placed.J1.2", {"to": ["J2.1"]}, 400)
        self.assertIn("more wires than the pin holds", refused["detail"])
        self.put("placed.J1.2", {"to": ["J2.1"]}, reason="Both ends are in one ferrule")

    def test_another_board_goes_without_what_was_said_of_the_first(self) -> None:
        self.record(1)
        self.put("placed.J1.1", {"to": ["J2.1"]})
        self.add("replacement", "K7-100", before="K7-200")
        self.open.refresh_from_db()
        self.assertEqual(self.open.state["placed"], {})
