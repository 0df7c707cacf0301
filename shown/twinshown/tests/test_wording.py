from dataclasses import replace
from fractions import Fraction

from django.test import SimpleTestCase

from tests.builders import demo_board, demo_family, record
from twincore.behaviour import Endless, Proof, make_twin, prove
from twincore.profile import Board, Step, Value
from twincore.settings import CarriedFunction, Decoded
from twinshown.comparison import wording
from twinshown.comparison.scenarios import checked_scenario
from twinshown.comparison.schemas import ScenarioGiven
from twinshown.refusals import Faulty


class Words(SimpleTestCase):
    def row(self, name: str, wanted: Value, got: Value | None, verdict: str) -> str:
        definition = demo_family().function(name)
        assert definition
        return wording.difference_words(CarriedFunction(name, Decoded((wanted,)), got, verdict, "safety"), definition)

    def test_differences(self) -> None:
        self.assertEqual(self.row("purge.post", 90, 30, "off"), "60 s shorter")
        self.assertEqual(self.row("purge.post", 90, Fraction(181, 2), "within tolerance"), "0.5 s longer")
        self.assertEqual(self.row("tries", 2, 1, "within tolerance"), "1 fewer")
        self.assertEqual(self.row("bake.limit", 320, 280, "off"), "40 °C less")
        self.assertEqual(self.row("restart", "manual", "auto", "off"), "auto instead of manual")
        self.assertEqual(self.row("buzzer", False, True, "off"), "yes instead of no")
        self.assertEqual(self.row("trial", 7, 7, "same"), "")
        self.assertEqual(self.row("trial", 7, None, "not on this board"), "not on this board")
        self.assertEqual(self.row("trial", 7, None, "open"), "open")
        definition = demo_family().function("trial")
        assert definition
        for possible, words in ((True, "one"), (False, "none")):
            row = CarriedFunction("trial", Decoded((7, 10)), 7, "open", "safety", possible)
            told = f"would be 7 s, {words} of what is still possible"
            self.assertEqual(wording.difference_words(row, definition), told)

    def test_what_a_function_stands_at(self) -> None:
        definition = demo_family().function("trial")
        assert definition
        self.assertEqual(wording.decoded_words(Decoded((7,)), definition), "7 s")
        self.assertEqual(wording.decoded_words(Decoded((7, 10)), definition), "7 s or 10 s")
        self.assertEqual(wording.decoded_words(Decoded((7,), True), definition), "7 s (or reserved)")
        self.assertIn("mean nothing", wording.decoded_words(Decoded((), True), definition))
        self.assertEqual(wording.tolerance_words(definition), "allowed: 3 below to 0 above")

    def test_steps_are_told_as_somebody_at_the_machine_sees_them(self) -> None:
        steps = [
            Step(0, (("call", True),)),
            Step(Fraction(61, 2), (("power", False),)),
            Step(Fraction(61, 2), (("power", True),)),
        ]
        told = wording.step_words(steps, demo_family())
        self.assertEqual(told, ["At 0 s: Call for heat begins.", "At 30.5 s: Supply on ends, then begins again."])

    def test_verdicts_say_what_they_rest_on(self) -> None:
        family, board, kit = demo_family(), demo_board("TVH-2210-B"), demo_board("OFN-K2")
        half = prove(make_twin(board, record(board, S1="01?110"), board, record(board, S1="010110"), family))
        self.assertIn("Post-purge", wording.verdict_words(half, family))
        unknown = prove(make_twin(board, record(board, S1="010110"), kit, record(kit, VR1="3", SW1="000"), family))
        self.assertIn("how OFN-K2 behaves", wording.verdict_words(unknown, family))
        limited = Proof("not proved", (), explored=60_000, limit=60_000)
        self.assertIn("60,000 pairs", wording.verdict_words(limited, family))
        part = Proof("not proved", (), explored=60_000, limit=60_000, least=4)
        self.assertIn("A difference needs at least 4 input changes.", wording.verdict_words(part, family))
        self.assertIn("no exact run", wording.verdict_words(Proof("not proved", (), covered=True), family))
        endless = Endless("TVH-2210-B", ("standby", "purge"), (Step(1, (("call", True),)),))
        round_and_round = Proof("not proved", (), endless=(endless,))
        self.assertIn("goes round without end", wording.verdict_words(round_and_round, family))
        told = wording.endless_words(endless, family, board)
        self.assertEqual(told[0], "At 1 s: Call for heat begins.")
        self.assertIn("TVH-2210-B goes round without end: ", told[1])

    def test_a_verdict_claims_no_more_than_its_weakest_part(self) -> None:
        board, family = demo_board("TVH-2210-B"), demo_family()
        alike = Proof("identical", ())

        def standing(**parts: str) -> Board:
            return replace(board, document={**board.document, "standing": {n: {"worth": w} for n, w in parts.items()}})

        self.assertTrue(wording.verdict_words(alike, family, [board]).endswith("show anything different."))
        timed, told = (
            standing(functions="measured", behaviour="measured"),
            standing(functions="leaflet", behaviour="measured"),
        )
        self.assertTrue(wording.verdict_words(alike, family, [timed]).endswith("show anything different."))
        self.assertIn("By a leaflet’s word", wording.verdict_words(alike, family, [timed, told]))
        usual = standing(functions="leaflet", behaviour="usual")
        self.assertIn("As is usual for this kind", wording.verdict_words(alike, family, [usual, timed]))
        self.assertNotIn("usual", wording.verdict_words(Proof("not proved", (), missing=("X",)), family, [usual]))


class Scenarios(SimpleTestCase):
    def test_times_become_exact(self) -> None:
        given = ScenarioGiven.model_validate({"steps": [{"at": 0.1, "set": {"call": True}}], "until": 0.3})
        scenario = checked_scenario(given, demo_family())
        self.assertEqual((scenario.steps[0].at, scenario.until), (Fraction(1, 10), Fraction(3, 10)))

    def test_times_that_are_too_fine_are_refused(self) -> None:
        given = ScenarioGiven.model_validate({"steps": [], "until": 1e-12})
        with self.assertRaises(Faulty):
            checked_scenario(given, demo_family())
