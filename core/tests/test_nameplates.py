"""Nameplates and serial numbers; the schemes are the demo world's, coined."""

import json
from typing import Any

from django.test import SimpleTestCase
from stdnum import luhn

from tests.builders import DEMO, encoded
from twincore.errors import DocumentError
from twincore.recognise import parse_nameplates, read_plate, read_serial
from twincore.recognise.nameplates import CHECKS

FOLDER = DEMO / "nameplates"


def scheme(maker: str) -> Any:
    return parse_nameplates((FOLDER / f"{maker}.nameplates.json").read_bytes())[0]


class Plates(SimpleTestCase):
    def test_every_maker_of_the_demo_world_decodes_its_example(self) -> None:
        for path in FOLDER.iterdir():
            for each in parse_nameplates(path.read_bytes()):
                read = read_plate(each.example, each)
                self.assertTrue(read.ok, each.id)
                self.assertTrue(read.facts)

    def test_separators_and_case_do_not_count(self) -> None:
        oven = scheme("tarvenholm")
        self.assertEqual(read_plate("dk2-g-30/1-07.b", oven).facts, read_plate("DK2G30107B", oven).facts)

    def test_a_wrong_place_is_pointed_at_and_the_others_still_speak(self) -> None:
        read = read_plate("DK2G3O107B", scheme("tarvenholm"))
        self.assertEqual([(p.id, p.text, p.perhaps) for p in read.places if not p.ok], [("size", "3O", "30")])
        self.assertEqual((read.facts["model"], read.facts["made"], read.ok), ("DK2", 2007, False))

    def test_what_is_missing_and_what_is_too_much_are_told(self) -> None:
        oven = scheme("tarvenholm")
        short = read_plate("DK2G30", oven)
        self.assertEqual([p.id for p in short.places if not p.ok], ["stages", "year"])
        self.assertEqual(read_plate("DK2G30107BXY", oven).left_over, "XY")
        self.assertTrue(read_plate("DK2G30107", oven).ok, "the revision letter is optional")

    def test_a_letter_or_a_year_decides_by_rules_that_are_data(self) -> None:
        mixer, oven = scheme("quenlow"), scheme("tarvenholm")
        self.assertEqual(read_plate("SM080V08", mixer).says[0]["boards"], ["QN8-0101"])
        self.assertEqual(read_plate("SM080T08", mixer).says, ())
        self.assertEqual(read_plate("DK2G30112A", oven).says[0]["boards"], ["TVH-2210-C", "TVH-2214-A"])

    def test_faulty_schemes_are_refused_with_their_places(self) -> None:
        original = json.loads((FOLDER / "tarvenholm.nameplates.json").read_text())
        for change, place in (
            (lambda s: s.update(example="DK9"), "schemes[0].example"),
            (lambda s: s["places"][1].pop("codes"), "schemes[0].places[1]"),
            (lambda s: s["places"][2]["codes"].update({"4": {"means": "short"}}), "schemes[0].places[2].codes.4"),
            (lambda s: s["places"].append(dict(s["places"][0])), "schemes[0].places[6].id"),
        ):
            document = json.loads(json.dumps(original))
            change(document["schemes"][0])  # type: ignore[no-untyped-call]
            with self.assertRaises(DocumentError) as caught:
                parse_nameplates(encoded(document))
            self.assertIn(place, [fault.place for fault in caught.exception.faults])


class Serials(SimpleTestCase):
    def test_check_digits_by_the_standards(self) -> None:
        # ISO/IEC 7812-1, annex B: the worked example 7992739871 has the check digit 3
        self.assertTrue(CHECKS["luhn"]("79927398713"))
        self.assertFalse(CHECKS["luhn"]("79927398714"))
        # ISO/IEC 7064, MOD 97-10: the worked example 794 has the check characters 44
        self.assertTrue(CHECKS["mod 97-10"]("79444"))
        self.assertFalse(CHECKS["mod 97-10"]("79445"))

    def test_a_serial_number_is_read_back_in_its_makers_groups(self) -> None:
        oven = scheme("tarvenholm")
        body = "12345678"
        good = body + luhn.calc_check_digit(body)
        read = read_serial(f"{good[:2]} {good[2:6]}-{good[6:]}", oven)
        self.assertEqual((read.ok, read.groups), (True, (good[:2], good[2:6], good[6:])))
        for text, told in (
            ("1234", "9 characters"),
            ("12345678X", "digits only"),
            (body + str((int(good[-1]) + 1) % 10), "check"),
        ):
            found = read_serial(text, oven)
            self.assertFalse(found.ok)
            self.assertIn(told, found.expected)
        self.assertEqual(read_serial("ABCDEFG", None).groups, ("ABCD", "EFG"))
        self.assertFalse(read_serial("--", None).ok)
