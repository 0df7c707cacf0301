import io
from typing import Any

from pypdf import PdfReader

from catalogue.models import Board, Family
from jobs.tests.world import WorldTestCase
from people.models import Depot, Person
from twincore.sketch import kind_document

LINES = "S1 bank 8, on up, from left; R1 dial 0..9; C1 plug 8, keyed; C2 plug 6; board green"


class Sketches(WorldTestCase):
    def setUp(self) -> None:
        self.sign_in("wennick")

    def keep(self, status: int = 200, **more: Any) -> Any:
        given = {"part_number": "K7-100", "kind": "Tray washer", "title": "Main board", "lines": LINES}
        return self.post("sketches", given | more, status)

    def test_a_sketch_is_read_back_in_words_and_drawn_and_nothing_is_kept(self) -> None:
        read = self.post("sketches/read", {"lines": f"{LINES}\nS1 dial\n"})
        self.assertEqual(read["words"][0], "S1: a bank of 8 switches; on is up, number 1 is at the left.")
        self.assertEqual([each["line"] for each in read["misread"]], [2])
        self.assertEqual([each["id"] for each in read["elements"]], ["S1", "R1"])
        self.assertEqual(read["document"]["look"], {"colour": "green"})
        self.assertFalse(Board.objects.filter(depot__isnull=False).exists())

    def test_a_kept_sketch_is_a_board_of_the_depot_alone_in_a_kind_of_its_own(self) -> None:
        kept = self.keep()
        self.assertEqual((kept["part_number"], kept["family_title"]), ("K7-100", "Tray washer"))
        shown = self.get("board/K7-100")
        self.assertEqual(shown["document"]["standing"]["settings"]["sources"][0]["who"], "Wennick Tarl")
        self.assertRegex(shown["standing"], r"^sketched at the machine, Wennick Tarl \d{4}-\d{2}-\d{2}$")
        self.assertEqual(shown["doubts"], ["whether it is keyed: C2", "how it leaves the maker: S1, R1"])
        self.assertEqual(self.get("board/TVH-2210-B")["standing"], "")
        self.assertFalse(shown["behaviour_known"])
        self.assertIn("K7-100", [each["part_number"] for each in self.get("boards/marked?text=K7 100")])
        self.assertIn("Tray washer", [each["title"] for each in self.get("families?size=100")["items"]])
        elsewhere = Depot.objects.create(name="Low Harbour", code="LH")
        Person.objects.create_user("other", password="torchlight-42", depot=elsewhere)
        self.sign_in("other")
        self.get("board/K7-100", 404)
        self.get(f"families/{kept['family']}", 404)
        self.get(f"families/{kept['family']}/file", 404)
        self.assertEqual(self.get("boards?search=K7-100")["total"], 0)
        self.assertEqual(self.get("boards/marked?text=K7-100"), [])
        self.assertNotIn("Tray washer", [each["title"] for each in self.get("families?size=100")["items"]])
        self.assertNotIn("not known", [each["maker"] for each in self.get("makers?size=100")["items"]])
        # the same number may be put down there too, and is another board
        self.assertEqual(self.keep(lines="S1 bank 4")["part_number"], "K7-100")
        self.assertEqual(len(self.get("board/K7-100")["elements"]), 1)
        self.sign_in("wennick")
        self.assertEqual(len(self.get("board/K7-100")["elements"]), 2)

    def test_the_same_number_again_is_the_next_revision_and_the_kind_is_the_same(self) -> None:
        self.keep()
        self.keep(lines=f"{LINES}; J1 jumper 3", kind="tray  WASHER")
        self.assertEqual(self.get("board/K7-100")["revision"], 2)
        self.assertEqual(Family.objects.filter(depot__isnull=False).count(), 1)

    def test_no_sketch_takes_the_place_of_a_board_of_which_more_is_known(self) -> None:
        """A defect: a technician's sketch replaced a published board of the depot by the same number, without a word."""
        self.keep()
        document = self.get("board/K7-100")["document"] | {"maker": "Tarvenholm"}
        document["functions"] = {}
        document["standing"]["functions"] = {"worth": "leaflet"}
        self.sign_in("corm")
        self.post("documents", document)
        self.sign_in("wennick")
        for number in ("K7-100", "k7-100"):
            self.assertIn("in the catalogue already", self.keep(400, part_number=number)["detail"])
        self.assertEqual((self.get("board/K7-100")["maker"], self.get("board/K7-100")["revision"]), ("Tarvenholm", 2))
        self.assertIn("in the catalogue already", self.keep(400, part_number="tvh-2210-b")["detail"])

    def test_an_earlier_revision_is_made_current_again_and_nothing_is_lost(self) -> None:
        first = self.keep() and self.get("board/K7-100")["document"]
        self.keep(lines="S1 bank 2")
        again = {"part_number": "K7-100", "revision": 1}
        self.post("boards/make-current", again, 403)
        self.sign_in("corm")
        self.assertEqual(self.post("boards/make-current", again)["revision"], 3)
        self.assertEqual(self.get("board/K7-100")["document"], first)
        self.assertEqual([each["number"] for each in self.get("board-revisions/K7-100")["items"]], [3, 2, 1])
        self.assertEqual(len(self.get("board/K7-100?revision=2")["elements"]), 1)
        self.assertIn("is the current one", self.post("boards/make-current", again | {"revision": 3}, 400)["detail"])
        self.post("boards/make-current", again | {"revision": 9}, 404)

    def test_a_sketch_is_not_said_to_be_discontinued(self) -> None:
        self.keep()
        self.assertEqual(self.get("board/K7-100")["status"], "current")

    def test_what_cannot_be_kept_says_why_and_nothing_is_half_saved(self) -> None:
        self.assertEqual(self.keep(422, lines="S1 bank\nbonk")["faults"][0]["place"], "line 1")
        self.assertIn("Nothing is on this sketch", self.keep(422, lines="lamp")["detail"])
        self.assertIn("what kind of machine", self.keep(422, kind=" ")["detail"])
        self.assertIn("in the catalogue already", self.keep(400, part_number="TVH-2210-B")["detail"])
        self.keep(404, family="nowhere")
        self.assertFalse(Board.objects.filter(depot__isnull=False).exists())
        self.assertFalse(Family.objects.filter(depot__isnull=False).exists())

    def test_a_lead_completes_a_sketch_by_its_file_and_it_stays_the_depots_own(self) -> None:
        kept = self.keep()
        document = self.get("board/K7-100")["document"]
        document["codes"] = [{"shown": "2 flashes", "meaning": "no water"}]
        self.sign_in("corm")
        loaded = self.post("documents", document)
        self.assertEqual((loaded["name"], loaded["revision"], loaded["new"]), ("K7-100", 2, True))
        board = Board.objects.get(part_number="K7-100")
        assert board.depot is not None
        self.assertEqual((board.depot.code, board.family_id), ("SQ", kept["family"]))
        # the id of a kind that is another depot's own cannot be taken by a file for everybody
        elsewhere = Depot.objects.create(name="Low Harbour", code="LH")
        Person.objects.create_user("lead", password="torchlight-42", depot=elsewhere, role=Person.Role.PARTS_LEAD)
        self.sign_in("lead")
        self.assertIn("is taken", self.post("documents", kind_document(kept["family"], "Tray washer"), 400)["detail"])
        self.assertEqual(Family.objects.get(code=kept["family"]).revisions.count(), 1)

    def test_a_board_without_a_marking_gets_a_number_of_the_depot(self) -> None:
        names = [self.keep(part_number=" ")["part_number"] for _ in range(2)]
        self.assertEqual(names, ["SQ-unmarked-1", "SQ-unmarked-2"])


class WholeJob(WorldTestCase):
    """A machine and a board that nobody entered, and the same board again: from the first entry to the papers."""

    def to_choose(self) -> None:
        """A job whose original is a sketch."""
        self.sign_in("wennick")
        kept = self.post("sketches", {"part_number": "K7-100", "kind": "Tray washer", "lines": LINES})
        opened = self.post(
            "jobs", {"id": "3f1f7a52-0a5c-4f0c-9d61-2f1d3a7b6a10", "machine": "Tray washer 1", "complaint": ""}
        )
        self.open = self.job_shown(opened)
        self.add("family", kept["family"])
        self.add("confirmed.rule_out", {"note": "scorched"})
        self.family = kept["family"]
        self.add("original", "K7-100")

    def to_carry_over(self, replacement: str) -> None:
        """The replacement taken, and the original as found."""
        self.add("replacement", replacement)
        self.make_dead(self.open)
        self.add("found.S1", "01101001", read_how="by eye")
        self.add("found.R1", "3", read_how="by eye")
        self.record_plugs(self.open)
        self.add("confirmed.record", {"note": ""})

    def cells(self, part_number: str) -> dict[str, Any]:
        found = self.get(f"jobs/{self.open.pk}/candidates")["items"]
        return {
            cell["criterion"]: cell for each in found if each["part_number"] == part_number for cell in each["cells"]
        }

    def test_another_sketch_is_never_said_to_fit_for_want_of_knowledge(self) -> None:
        self.to_choose()
        self.post("sketches", {"part_number": "K7-200", "family": self.family, "lines": LINES})
        other = {name: cell["verdict"] for name, cell in self.cells("K7-200").items()}
        for criterion in ("listing", "contacts", "signals", "connectors", "mounting", "settings", "behaviour"):
            self.assertEqual(other[criterion], "to check", criterion)
        for criterion in ("listing", "contacts", "signals", "connectors", "mounting", "settings"):
            cell = self.cells("K7-100")[criterion]
            self.assertIn("The same number again", cell["reasons"][0]["words"])

    def test_where_nobody_knows_what_positions_mean_each_is_set_by_hand_or_a_school_is_followed(self) -> None:
        self.to_choose()
        self.post("sketches", {"part_number": "K7-200", "family": self.family, "lines": LINES})
        self.to_carry_over("K7-200")
        comparison = self.get(f"jobs/{self.open.pk}/comparison")
        self.assertEqual((comparison["plan"], comparison["best"]), (None, None))
        self.assertIn("Nobody wrote down", self.add("confirmed.carry_over", {"note": ""}, 400)["detail"])
        # all zeros are a position like any other
        self.add("override.S1", "00000000")
        self.assertIsNone(self.get(f"jobs/{self.open.pk}/comparison")["plan"])
        self.add("override.R1", "0")
        self.assertEqual(self.get(f"jobs/{self.open.pk}/comparison")["plan"], {"S1": "00000000", "R1": "0"})
        for name, before in (("S1", "00000000"), ("R1", "0")):
            self.add(f"override.{name}", None, before=before)
        self.add("school", "positions", reason="the leaflet says that both are set alike")
        self.assertEqual(self.get(f"jobs/{self.open.pk}/comparison")["plan"], {"S1": "01101001", "R1": "3"})

    def test_a_job_goes_from_a_sketch_to_its_papers_and_into_another_depot(self) -> None:
        self.to_choose()
        self.to_carry_over("K7-100")
        comparison = self.get(f"jobs/{self.open.pk}/comparison")
        self.assertFalse(comparison["meanings_known"])
        self.assertEqual(comparison["plan"], {"S1": "01101001", "R1": "3"})
        self.assertEqual(comparison["proof"]["verdict"], "not proved")
        self.add("confirmed.carry_over", {"note": ""})
        self.fit(self.open)
        self.add("confirmed.prove", {"note": "washed a tray; nobody timed the old board"})
        closed = self.add("confirmed.hand_over", {"note": ""})
        self.assertTrue(closed["closed"])
        self.assertEqual(closed["left"], {"S1": "01101001", "R1": "3"})
        sheet = self.client.get(f"/api/jobs/{self.open.pk}/sheet.pdf").content
        words = " ".join(" ".join(page.extract_text() for page in PdfReader(io.BytesIO(sheet)).pages).split())
        self.assertIn(
            "The profile of K7-100 : sketched at the machine, Wennick Tarl", words.replace("K7-100:", "K7-100 :")
        )
        self.assertIn("Nobody wrote down what the positions mean", words)
        for paper in ("sheet.pdf", "label.pdf", "customer.pdf", "sheet.json", "package.zip"):
            self.assertEqual(self.client.get(f"/api/jobs/{self.open.pk}/{paper}").status_code, 200, paper)
        package = b"".join(self.client.get(f"/api/jobs/{self.open.pk}/package.zip").streaming_content)
        Person.objects.filter(username="ildro").update(role=Person.Role.PARTS_LEAD)
        self.sign_in("ildro")
        response = self.client.post("/api/packages", package, content_type="application/zip")
        brought = self.answer(response, 200)
        self.assertEqual(self.get(f"jobs/{brought['id']}")["left"], {"S1": "01101001", "R1": "3"})
        self.assertEqual(self.get("board/K7-100")["family"], self.family)
        self.assertEqual(self.get(f"families/{self.family}")["title"], "Tray washer")
        self.assertEqual(self.client.get(f"/api/jobs/{brought['id']}/sheet.pdf").status_code, 200)

    def add(self, target: str, after: Any, status: int = 200, **more: Any) -> Any:
        return self.entry(self.open, target, after, status=status, **more)
