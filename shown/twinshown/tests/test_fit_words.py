import re
from pathlib import Path

from django.test import SimpleTestCase

from twincore.choose import Question, Reason, Statement, criteria
from twincore.profile import parse_family
from twinshown.words.fit import TWIN, WORDS, FitWords

FAMILY = (Path(__file__).resolve().parents[3] / "demo/families/deck-oven.family.json").read_bytes()


class Words(SimpleTestCase):
    def setUp(self) -> None:
        statement = Statement(
            "s1", ("A",), ("B",), "supersedes", source="leaflet 3", worked=4, failed=1, words="with a lead"
        )
        self.words = FitWords(parse_family(FAMILY), {"s1": statement})

    def test_every_reason_of_the_core_has_words(self) -> None:
        source = "".join(each.read_text() for each in Path(str(criteria.__file__)).parent.glob("*.py"))
        codes = set(re.findall(r"Reason\(\s*\"([^\"]+)\"", source))
        codes |= {f"{name} differ" for name in ("hertz", "phases")} | {"room there", "no room"}
        self.assertGreater(len(codes), 40)
        self.assertEqual({code for code in codes if code not in {**WORDS, **TWIN}}, set())

    def test_questions_say_what_would_have_to_be_true(self) -> None:
        for question, words in (
            (Question("supply.volts", {"from": 198, "to": 253}, "V"), "Supply voltage, measured: 198 to 253 V"),
            (Question("load.fan.line.amps", {"to": 2.0}, "A"), "Current of “Fan, line side”: at most 2 A"),
            (Question("uses.call2", False), "Is a device on “Call for second stage”: no"),
            (Question("room.top_mm", {"from": 12}, "mm"), "Room upwards: at least 12 mm"),
            (Question("fuel", ["gas", "oil"]), "Fuel: gas or oil"),
            (Question("attached.TVH-9", True), "Is TVH-9 in the machine as well: yes"),
            (Question("something.else", 3), "Something else: 3"),
        ):
            self.assertEqual(self.words.question(question), words)

    def test_statements_are_told_with_source_and_counts(self) -> None:
        listed = Reason("listed", "fits", {"relation": "supersedes", "links": 2, "statements": ["s1"]})
        told = "Listed as its successor, over 2 statements: leaflet 3, worked 4, did not 1 (“with a lead”)"
        self.assertEqual(self.words.reason(listed), told)
        self.assertEqual(self.words.statement("unknown"), "unknown")

    def test_a_trap_is_told_pin_by_pin(self) -> None:
        pins = [
            {"pin": "4", "original": "fan.line", "replacement": "valve.line"},
            {"pin": "9", "original": "spark", "replacement": None},
        ]
        words = self.words.reason(Reason("other pinning", "with work", {"connector": "C1", "pins": pins}))
        self.assertIn("pin 4: Fan, line side there, Gas valve, line side here", words)
        self.assertIn("nothing here", words)
