"""A kit with a sensor and a bracket: what it asks to be entered, compared, moved across, and cannot be forgotten."""

from typing import Any

from jobs.tests.world import FrontTestCase

DAYS = "Monday 04:30\nTuesday 04:30\nSunday off"


class Kit(FrontTestCase):
    def setUp(self) -> None:
        super().setUp()
        self.add("original", "UMC 42-050")
        self.add("replacement", "UMC 48-200", reason="the maker's kit")
        self.add("confirmed.rule_out", {"note": "burnt track", "end": "undecided"})
        self.add("serial", "482 913", reason="so it stands on the plate")
        self.add("fact.model", {"value": "0712-44A", "source": "plate"})
        self.add("kept.days", DAYS)
        self.add("kept.model", "0712-44A")
        self.make_dead(self.open)
        for element in self.of("boards/original")["document"]["settings"]:
            self.add(f"found.{element['id']}", element["factory"], read_how="by eye")
        self.record_plugs(self.open)
        self.add("confirmed.record", {"note": ""})
        for each in self.of("comparison")["rows"]:
            if each["missed"] or each["verdict"] == "open":
                self.add(f"reason.{each['id']}", "the kit is so")
        self.add("confirmed.carry_over", {"note": ""})

    def test_the_serial_is_the_plates_with_or_without_its_spaces(self) -> None:
        self.assertEqual(self.of("comparison")["plan"]["SN"], "482913")
        presses = self.of("presses")["panels"][0]
        self.assertEqual((presses["sets"], presses["presses"][0]["shows"]), (["SN"], "SN"))

    def test_what_is_made_with_is_no_answer_where_the_plate_was_not_read(self) -> None:
        """A defect: a serial number that nobody read was planned as 000000, and the plan could be confirmed."""
        self.entry(self.open, "serial", None, "4829 13")
        shown = self.of("comparison")
        self.assertEqual(shown["plan"]["SN"], "??????")
        told = shown["codes_to_read"]
        self.assertEqual([(each["element"], each["fact"], each["plate"]) for each in told], [("SN", "serial", None)])
        self.assertIn("SN", self.add("confirmed.carry_over", {"note": ""}, 400)["detail"])
        self.add("serial", "48", reason="so it stands on the plate")
        self.assertEqual(self.of("comparison")["codes_to_read"][0]["plate"], "48")
        self.add("override.SN", "000048")
        self.assertEqual(self.of("comparison")["codes_to_read"], [])
        self.add("confirmed.carry_over", {"note": ""})

    def test_another_serial_is_another_plan(self) -> None:
        self.open.refresh_from_db()
        self.assertIn("carry_over", self.open.state["confirmed"])
        self.entry(self.open, "serial", "482 914", "4829 13", reason="so it stands on the plate")
        self.open.refresh_from_db()
        self.assertNotIn("carry_over", self.open.state["confirmed"])
        self.assertEqual(self.partings(self.open), [])

    def test_the_contact_that_is_closed_at_rest_goes_to_its_like_and_is_looked_at_twice(self) -> None:
        wires = {each["carries"]: each for each in self.of("wiring")["wires"]}
        self.assertEqual(wires["Door alarm, closed at rest"]["to_place"], "C2.8")
        self.assertEqual(wires["Door alarm, open at rest"]["to_place"], "C2.9")
        self.assertEqual(wires["Chamber fan, high speed tap"]["treatment"], "straight")
        seconds = [look["words"] for look in self.of("fitting")["looks"] if look["group"] == "second look"]
        self.assertTrue(any("C2.8" in words for words in seconds), seconds)

    def test_a_chip_cannot_be_left_behind(self) -> None:
        self.assertIn("not moved across, and not said to stay: recipe chip", self.of("fitting")["missing_dead"])
        part = self.of("fitting")["moving"][0]
        self.assertEqual((part["place"], part["value"]), ("socket beside the fuse", None))
        self.add("moving.U9", "to move")
        self.assertIn("recipe chip", " ".join(self.of("fitting")["missing_dead"]))
        self.entry(self.open, "moving.U9", "moved", "to move")
        self.assertNotIn("recipe chip", " ".join(self.of("fitting")["missing_dead"]))

    def powered(self) -> Any:
        self.add("moving.U9", "moved")
        self.put_back_on(self.open)
        return self.of("fitting")["missing_powered"]

    def test_conditions_stand_before_the_keys_and_lists_are_entered_row_by_row(self) -> None:
        missing = self.powered()
        self.assertIn("before anything is keyed in: chamber cold, trolley out, selector on manual", missing)
        fitting = self.of("fitting")
        self.assertEqual(fitting["order"][0], "the fan turns once")
        self.assertTrue(next(each for each in fitting["reenter"] if each["id"] == "days")["rows"])
        for look in fitting["looks"]:
            if look["group"] == "entering":
                self.add(f"look.{look['key']}", True)
        self.add("reentered.days", "Monday 04:30")
        self.assertIn(
            "shows otherwise than it was: Start times of the week", " ".join(self.of("fitting")["missing_powered"])
        )
        self.entry(self.open, "reentered.days", DAYS, "Monday 04:30")
        self.assertNotIn("Start times", " ".join(self.of("fitting")["missing_powered"]))

    def test_another_letter_is_another_code(self) -> None:
        """A defect: 0712-44B counted as entered where 0712-44A was wanted."""
        self.powered()
        self.add("reentered.model", "0712-44B")
        fitting = self.of("fitting")
        self.assertEqual(fitting["otherwise"], ["model"])
        self.assertIn("shows otherwise than it was: Model code (0712-44A)", fitting["missing_powered"])
        self.assertIn("Model code", self.add("confirmed.fit", {"note": ""}, 400)["detail"])
        self.entry(self.open, "reentered.model", "0712-44A", "0712-44B")
        self.assertEqual(self.of("fitting")["otherwise"], [])
