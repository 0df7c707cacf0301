"""Choose over the API."""

from io import BytesIO
from typing import Any
from unittest.mock import patch

from django.core.cache import caches
from pypdf import PdfReader

from jobs.tests.world import FrontTestCase
from parts.models import Offer
from people.models import Depot
from references.models import Statement


class Choose(FrontTestCase):
    def setUp(self) -> None:
        super().setUp()
        self.add("original", "TVH-2210-B")

    def candidates(self) -> dict[str, Any]:
        return {each["part_number"]: each for each in self.of("candidates?size=50")["items"]}

    def cell(self, part_number: str, criterion: str) -> Any:
        return next(c for c in self.candidates()[part_number]["cells"] if c["criterion"] == criterion)

    def test_every_board_of_the_family_stands_in_the_matrix_with_reasons(self) -> None:
        found = self.of("candidates?size=50")
        self.assertEqual(found["total"], 12)
        again, best = found["items"][:2]
        self.assertEqual(
            (again["part_number"], again["verdict"], again["closeness"]), ("TVH-2210-B", "fits", "identical")
        )
        self.assertEqual((best["part_number"], best["verdict"], best["closeness"]), ("TVH-2210-C", "fits", "identical"))
        self.assertTrue(all(cell["reasons"] for each in found["items"] for cell in each["cells"]))
        self.assertEqual({each["relation"] for each in found["other_ways"]}, {"exchange", "repair", "donor"})
        self.assertIn("SQ-TVH-2210-B", found["unprofiled"])
        trap = self.cell("TVH-2210-X", "connectors")
        self.assertIn("pin 4: Fan, line side there, Gas valve, line side here", trap["reasons"][0]["words"])

    def test_answering_a_question_on_the_machine_decides_a_cell(self) -> None:
        self.assertEqual(self.cell("TVH-2214-A", "listing")["verdict"], "to check")
        asked = {q["fact"] for q in self.candidates()["TVH-2214-A"]["questions"]}
        self.assertEqual(asked, {"made"})
        self.add("fact.made", {"value": 2013, "source": "plate"})
        self.assertEqual(self.cell("TVH-2214-A", "listing")["verdict"], "fits")
        self.add("fact.supply.volts", {"value": 24.0, "source": "measured"})
        self.assertEqual(self.cell("TVH-2210-C", "supply")["verdict"], "no")

    def test_twin_checks_that_take_too_long_are_said_not_to_have_been_run(self) -> None:
        for each in caches.all():  # what is kept needs no time
            each.clear()
        with patch("jobs.candidates.LONGEST_S", -1.0):
            cells = [self.cell("TVH-2210-C", name) for name in ("settings", "behaviour")]
        self.assertEqual([cell["verdict"] for cell in cells], ["to check", "to check"])
        self.assertIn("has not been run", cells[1]["reasons"][0]["words"])
        self.assertEqual(self.cell("TVH-2210-C", "behaviour")["verdict"], "fits")

    def test_numbers_larger_or_finer_than_numbers_are_here_are_refused(self) -> None:
        for value in (1e12, 1e-12):
            self.assertIn("Expected", self.add("fact.made", {"value": value, "source": "seen"}, 422)["detail"])
            self.add("wish.purge.post", value, 422)
        self.add("fact.made", {"value": 2001.5, "source": "seen"})

    def test_a_choice_against_the_judgement_needs_a_reason_and_keeps_the_alternatives(self) -> None:
        self.assertIn("does not fit", self.add("replacement", "OFN-U3", 422)["detail"])
        chosen = self.add("replacement", "OFN-U3", reason="the only one on the van")
        self.assertEqual((chosen["chosen"]["verdict"], chosen["chosen"]["reason"]), ("no", "the only one on the van"))
        first = self.of("alternatives")[1]
        self.assertEqual(
            (first["part_number"], first["verdict"], first["cells"]["behaviour"]), ("TVH-2210-C", "fits", "fits")
        )
        self.add("replacement", "UMC 40-118", 400, before="OFN-U3")
        self.add("replacement", "SQ-TVH-2210-C", 404, before="OFN-U3")

    def test_an_upgrade_that_is_wanted_is_not_off_register(self) -> None:
        self.add("wish.purge.post", 90)
        self.add("replacement", "TVH-2210-C")
        self.make_dead(self.open)
        self.add("found.S1", "000000", read_how="by eye")
        row = next(r for r in self.of("comparison")["rows"] if r["id"] == "purge.post")
        told = tuple(row[each] for each in ("found", "wanted", "wanted_by", "got", "verdict", "met"))
        self.assertEqual(told, ("30 s", "90 s", "the owner", "90 s", "as wanted", True))
        proof = self.of("comparison")["proof"]
        self.assertEqual(proof["verdict"], "identical")
        # the two are not alike in it, and nothing says that they are
        self.assertIn("apart from what the owner wants otherwise: post-purge", proof["words"])
        self.add("wish.none", 3, 422)
        self.add("wish.restart", "sometimes", 422)

    def test_a_candidate_tells_how_it_would_behave_and_what_comes_closer(self) -> None:
        alike = self.of("twin/TVH-2210-C")
        self.assertEqual((alike["proof"]["verdict"], alike["judged_on"]), ("identical", "factory settings"))
        other = self.of("twin/TVH-2420-A")
        self.assertEqual(other["proof"]["verdict"], "different")
        self.assertEqual(other["proof"]["told"], self.candidates()["TVH-2420-A"]["proof"]["told"])
        self.assertTrue(
            any(line.startswith(("Closer by", "One setting alone")) for line in other["proof"]["why"]), other
        )
        self.get(f"jobs/{self.open.pk}/twin/none", 404)
        self.assertIn("another kind", self.get(f"jobs/{self.open.pk}/twin/UMC 40-118", 400)["detail"])
        self.assertIn("no positions", self.get(f"jobs/{self.open.pk}/twin/OFN-L1", 400)["detail"])

    def test_boards_are_laid_on_each_other_with_holes_and_pins(self) -> None:
        laid = self.of("beside/TVH-2210-X")
        self.assertEqual((laid["serving"], laid["new_holes"]), (4, []))
        self.assertEqual([p["pin"] for p in laid["pins"] if p["trap"]], ["4", "5", "7", "8"])
        self.get(f"jobs/{self.open.pk}/beside/none", 404)

    def test_what_the_desk_said_ranks_and_shows_its_age(self) -> None:
        Offer.objects.create(part_number="TVH-2210-C", price=120, stock=0, days=9, answered_at=self.open.changed_at)
        offer = self.candidates()["TVH-2210-C"]["offer"]
        self.assertEqual((offer["price"], offer["days"]), (120, 9))
        self.assertGreater(offer["age_s"], 0)
        self.assertEqual(self.cell("TVH-2210-C", "availability")["verdict"], "with work")
        self.assertIsNone(self.candidates()["OFN-K2"]["offer"])

    def test_the_sum_of_costs_is_plain_and_its_assumptions_can_be_changed(self) -> None:
        Offer.objects.create(part_number="TVH-2210-C", price=100, stock=1, answered_at=self.open.changed_at)
        self.add("replacement", "TVH-2210-C")
        first = self.of("costs")
        self.assertEqual((first["own"][0]["amount"], first["price_from"]), (100, "parts desk"))
        self.add("cost.price", 80)
        self.add("cost.tax_percent", 0)
        changed = self.of("costs")
        self.assertEqual((changed["own"][0]["amount"], changed["own"][3]["amount"]), (80, 0))
        self.assertEqual(changed["changed"], ["price", "tax_percent"])
        self.add("cost.weather", 3, 422)
        self.add("cost.travel", -3, 422)

    def test_a_board_replaced_by_two_and_two_by_one(self) -> None:
        self.add("original", "QN7-0042", before="TVH-2210-B")
        pair = self.candidates()["OFN-M1 + OFN-D1"]
        self.assertEqual((pair["closeness"], pair["statements"][0]["relation"]), ("identical", "universal"))

    def test_a_set_without_a_profile_is_judged_by_its_boards_and_not_taken(self) -> None:
        Statement.objects.create(code="set-1", original="TVH-2210-B", replacement="TVH-2210-C + OFN-U3", relation="kit")
        pair = self.candidates()["TVH-2210-C + OFN-U3"]
        cells = {cell["criterion"]: cell["verdict"] for cell in pair["cells"]}
        self.assertEqual((cells["listing"], cells["signals"], cells["behaviour"]), ("fits", "fits", "to check"))
        self.assertIn("profile of this set", self.add("replacement", "TVH-2210-C + OFN-U3", 400)["detail"])

    def test_two_boards_that_become_one_ask_whether_the_other_is_there(self) -> None:
        Statement.objects.create(
            code="two-1", original="TVH-2210-B + TVH-9", members=["TVH-2210-B", "TVH-9"], replacement="TVH-2216-A",
            relation="kit", source="leaflet",
        )  # fmt: skip
        Statement.objects.filter(replacement="TVH-2216-A").exclude(code="two-1").delete()
        self.assertEqual(self.cell("TVH-2216-A", "listing")["questions"][0]["fact"], "attached.TVH-9")
        self.add("fact.attached.TVH-9", {"value": True, "source": "seen"})
        self.assertEqual(self.cell("TVH-2216-A", "listing")["verdict"], "with work")

    def test_companions_by_policy(self) -> None:
        self.add("original", "QN7-0042", before="TVH-2210-B")
        self.assertIn(
            "Change along with it: guard switch", [r["words"] for r in self.cell("OFN-MK", "parts")["reasons"]]
        )
        Depot.objects.filter(code="SQ").update(change_companions=False)
        self.assertIn("Companion that stays", str(self.cell("OFN-MK", "parts")["reasons"]))

    def test_a_fact_that_is_no_number_spoils_no_page(self) -> None:
        for fact in ("supply.volts", "load.fan.line.amps", "room.top_mm", "made"):
            self.add(f"fact.{fact}", {"value": "about so much", "source": "told"})
        self.assertEqual(self.cell("TVH-2210-C", "supply")["verdict"], "fits")
        self.of("beside/TVH-2216-A")

    def have(self, text: str) -> Any:
        return self.of(f"have?text={text}")

    def test_a_number_in_hand_is_judged_alone_yes_no_or_why(self) -> None:
        self.assertEqual(self.have("TVH-2210-C")["words"], "Yes.")
        written = self.have("tvh2210c")
        self.assertEqual((written["candidate"]["part_number"], written["words"]), ("TVH-2210-C", "Yes."))
        self.assertIn("TVH-2210-C", [each["part_number"] for each in self.have("TVH 221O C")["read"]])
        trap = self.have("TVH-2210-X")
        self.assertEqual(trap["candidate"]["verdict"], "no")
        self.assertTrue(trap["words"].startswith("No: "))
        self.assertTrue(self.have("UMC 40-118")["words"].startswith("No: it is for another kind of machine"))
        self.assertEqual(self.have("ZZZ-9999")["words"], "No board of this number is in the catalogue.")
        several = self.have("TVH-22")
        self.assertIsNone(several["candidate"])
        self.assertGreater(len(several["read"]), 1)

    def test_of_the_same_number_somebody_says_which_one_it_is(self) -> None:
        self.add("same_board", {"which": "new"}, 400)
        self.add("replacement", "TVH-2210-B", reason="from the shelf")
        self.assertIn("which machine", self.add("same_board", {"which": "donor"}, 422)["detail"])
        said = {"which": "donor", "of": "Deck oven 9, scrapped after a fire", "revision": "D", "worked": "no"}
        self.assertEqual(self.add("same_board", said)["same_board"], said)
        pages = PdfReader(BytesIO(self.client.get(f"/api/jobs/{self.open.pk}/sheet.pdf").content)).pages
        told = " ".join(" ".join(page.extract_text() for page in pages).split())
        self.assertIn(
            "out of another machine, Deck oven 9, scrapped after a fire, revision D, nobody saw it work", told
        )
        self.assertIsNone(self.add("replacement", "TVH-2210-C", before="TVH-2210-B")["same_board"])
