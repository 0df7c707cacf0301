"""Recognise over the API."""

import io

from pypdf import PdfReader

from jobs.tests.world import FrontTestCase


class Recognise(FrontTestCase):
    def test_the_plate_is_decoded_to_facts_and_a_display_that_disagrees_is_a_finding(self) -> None:
        self.add("plate.plate", {"text": "RP2W05H", "scheme": "ulmric-rp"})
        self.add("plate.display", {"text": "RP3W05H", "scheme": "ulmric-rp"})
        machine = self.of("machine")
        self.assertEqual(machine["findings"], ["trolleys: the plate says 2, the display 3."])
        facts = self.get(f"jobs/{self.open.pk}")["known_facts"]
        self.assertEqual(facts["made"], {"value": 2005, "source": "plate"})
        self.add("fact.made", {"value": 2006, "source": "told"})
        self.assertEqual(self.get(f"jobs/{self.open.pk}")["known_facts"]["made"], {"value": 2006, "source": "told"})
        self.add(
            "plate.plate", {"text": "", "scheme": "ulmric-rp"}, 422, before={"text": "RP2W05H", "scheme": "ulmric-rp"}
        )
        self.add("fact.made", {"value": 2006, "source": "heaven"}, 422)

    def test_wrong_characters_are_pointed_at(self) -> None:
        best = self.get("plates?text=DK26301O7B")[0]
        wrong = [(place["text"], place["perhaps"]) for place in best["places"] if not place["ok"]]
        self.assertEqual((best["scheme"], wrong), ("tarvenholm-dk", [("6", "G"), ("O7", "07")]))
        self.assertEqual(
            [rule["boards"] for rule in self.get("plates?text=DK2G301 07B")[0]["says"]], [["TVH-2210-B", "TVH-2205"]]
        )

    def test_a_serial_number_is_checked_and_kept_in_groups(self) -> None:
        self.add("plate.plate", {"text": "DK2G30107B", "scheme": "tarvenholm-dk"})
        # Luhn's published example 7992739871 with its check digit 3 has eleven places; nine are needed here
        read = self.get("serial?scheme=tarvenholm-dk&text=123456789")
        self.assertEqual((read["ok"], read["groups"]), (False, ["12", "3456", "789"]))
        self.assertIn("check digits", self.add("serial", "123456789", 422)["detail"])
        good = next(n for n in range(10) if self.get(f"serial?scheme=tarvenholm-dk&text=12345678{n}")["ok"])
        self.assertEqual(self.add("serial", f"12-3456-78{good}")["serial"], f"12 3456 78{good}")
        self.add("serial", "123456788", before=f"12 3456 78{good}", reason="stands so on the plate")
        self.assertEqual(self.get("serial?text=ab12cd34x")["groups"], ["AB12", "CD34", "X"])

    def test_the_key_narrows_down_and_answers_can_be_taken_back(self) -> None:
        # without the kind of machine every board is possible
        self.assertGreater(self.of("key")["of"], 40)
        self.add("family", "retarder-prover")
        self.assertEqual(self.of("key")["left_count"], 15)
        self.add("feature.colour", "green")
        key = self.of("key")
        self.assertEqual({each["part_number"] for each in key["left"]}, {"UMC 40-118", "UMC 40-118-P"})
        self.assertEqual(key["question"]["feature"], "chip")
        kinds = {each["kind"] for each in key["look_alikes"]}
        self.assertEqual(kinds, {"not exchangeable", "its successor"})
        self.add("feature.chip", "cannot tell")
        after = self.of("key")
        self.assertEqual((after["question"], after["inseparable"]), (None, ["UMC 40-118", "UMC 40-118-P"]))
        self.add("feature.colour", None)
        self.assertEqual(self.of("key")["left_count"], 15)

    def test_the_summary_for_the_depot_is_one_page(self) -> None:
        self.add("family", "steam-generator")
        self.add("feature.colour", "blue")
        self.add("fact.elements_kw", {"value": 9, "source": "seen"})
        pages = PdfReader(io.BytesIO(self.client.get(f"/api/jobs/{self.open.pk}/summary.pdf").content)).pages
        text = " ".join(pages[0].extract_text().split())
        self.assertEqual(len(pages), 1)
        for words in ("What colour is the board?", "blue", "Elements", "ISB 312"):
            self.assertIn(words, text)

    def test_revisions_stand_apart_from_the_number(self) -> None:
        self.add("original", "UMC 40-118/2")
        self.assertEqual(self.add("revision.firmware", "2.07")["revisions"], {"firmware": "2.07"})
        self.add("revision.colour", "x", 422)
