import json
from random import Random
from unittest.mock import patch
from urllib.parse import quote

from django.conf import settings

from catalogue.actions import fill_traits, load_document
from catalogue.models import Board, Marking
from jobs.tests.world import NOW, WorldTestCase


class Search(WorldTestCase):
    def setUp(self) -> None:
        self.sign_in()

    def found(self, text: str) -> list[tuple[str, str]]:
        return [(hit["part_number"], hit["readings"][0]["how"]) for hit in self.get(f"boards/marked?text={text}")]

    def test_a_marking_however_written_finds_its_board_first(self) -> None:
        self.assertEqual(self.found("TVH-2210-B")[0], ("TVH-2210-B", "as printed"))
        self.assertEqual(self.found("tvh 2210b")[0], ("TVH-2210-B", "written differently"))
        self.assertEqual(self.found("TVH-22IO-8")[0], ("TVH-2210-B", "misread"))
        self.assertEqual(self.found("0-2205-00")[0], ("TVH-2205", "as printed"))
        self.assertEqual(self.found("zzzz"), [])

    def test_a_marking_with_an_edit_of_any_kind_finds_its_board_among_the_eight(self) -> None:
        rng = Random(8)
        rows = Marking.objects.filter(board__depot=None).values_list("board__part_number", "text")
        for board, text in [row for row in rows if len(row[1]) >= 6]:
            at = rng.randrange(len(text) - 1)
            kinds = {
                "lost": text[:at] + text[at + 1 :],
                "doubled": text[:at] + text[at] + text[at:],
                "swapped": text[:at] + text[at + 1] + text[at] + text[at + 2 :],
                "another": text[:at] + "X" + text[at + 1 :],
            }
            for kind, read in kinds.items():
                read = read.translate(str.maketrans("0158", "OIS8")).lower()
                self.assertIn(board, [name for name, _ in self.found(quote(read))], (text, kind, read))

    def test_a_torn_label_finds_the_board_though_another_is_an_edit_away(self) -> None:
        """Defect: a board one edit away hid those of which a part was read."""
        for read, board in (("MGT-88", "MGT-88-C2"), ("2210-B", "TVH-2210-B")):
            self.assertIn(board, [name for name, _ in self.found(read)], read)

    def test_what_one_edit_explains_is_found_without_trigrams_and_what_nothing_explains_by_them(self) -> None:
        with patch("catalogue.queries._alike", side_effect=AssertionError("trigrams")):
            self.assertEqual(self.found("TVH-221-B")[0][0], "TVH-2210-B")
        with patch("catalogue.queries._alike", return_value=[]) as asked:
            self.assertEqual(self.found("TVX-99-B"), [])
        asked.assert_called_once()

    def test_lists_are_paged_and_filtered(self) -> None:
        page = self.get("boards?size=3&page=2")
        self.assertEqual((len(page["items"]), page["total"], page["page"]), (3, Board.objects.count(), 2))
        made = self.get("boards?status=current&search=Omnifen&family=deck-oven")
        self.assertEqual({each["part_number"] for each in made["items"]}, {"OFN-U3", "OFN-U5", "OFN-K2", "OFN-L1"})
        self.get("boards?page=0", 422)
        self.get("board/none", 404)
        self.get("families/none", 404)


class Load(WorldTestCase):
    def load(self, text: str, status: int = 200, keep: bool = True) -> dict[str, object]:
        response = self.client.post(f"/api/documents?keep={str(keep).lower()}", text, content_type="application/json")
        return self.answer(response, status)  # type: ignore[no-any-return]

    def board(self) -> dict[str, object]:
        return json.loads(self.client.get("/api/board-file/OFN-U3").content)  # type: ignore[no-any-return]

    def test_a_technician_may_not(self) -> None:
        self.sign_in("wennick")
        self.assertIn("parts lead", str(self.load(json.dumps(self.board()), 403)["detail"]))

    def test_a_changed_board_gets_a_new_revision_and_the_same_one_does_not(self) -> None:
        self.sign_in("corm")
        text = json.dumps(self.board() | {"title": "New title"})
        self.assertEqual(self.load(text, keep=False)["revision"], 2)
        self.assertEqual(self.get("board/OFN-U3")["revision"], 1)
        self.assertEqual((self.load(text)["revision"], self.load(text)["new"]), (2, False))
        numbers = [each["number"] for each in self.get("board-revisions/OFN-U3")["items"]]
        self.assertEqual(numbers, [2, 1])
        self.assertEqual(self.get("board/OFN-U3?revision=1")["document"]["title"], "Universal burner board, one stage")

    def test_a_faulty_board_is_refused_whole(self) -> None:
        self.sign_in("corm")
        board = self.board() | {"title": "Half", "status": "perhaps"}
        problem = self.load(json.dumps(board), 422)
        self.assertEqual(problem["faults"][0]["place"], "status")  # type: ignore[index]
        self.assertEqual(self.get("board/OFN-U3")["title"], "Universal burner board, one stage")
        self.load("not json", 422)
        self.load(json.dumps(self.board() | {"family": "nowhere"}), 422)
        self.load(json.dumps({"format": "worthy-twin/scenario", "version": 1, "steps": [], "until": 1}), 422)
        self.load("[" * 200_000, 422)

    def test_a_layout_with_another_meaning_is_refused(self) -> None:
        self.sign_in("corm")
        board = self.board() | {"settings_layout": "tvh-22xx-r2"}
        self.assertIn("tvh-22xx-r2", str(self.load(json.dumps(board), 422)["faults"]))

    def test_a_family_that_its_boards_no_longer_fit_is_refused(self) -> None:
        self.sign_in("corm")
        family = json.loads(self.client.get("/api/families/deck-oven/file").content)
        family["functions"] = [f for f in family["functions"] if f["id"] != "trial"]
        problem = self.load(json.dumps(family), 422)
        self.assertIn("OFN-U3: functions.trial", str(problem["faults"]))
        family = json.loads(self.client.get("/api/families/deck-oven/file").content) | {"title": "Ovens"}
        self.assertEqual(self.load(json.dumps(family))["revision"], 2)


class Traits(WorldTestCase):
    def test_boards_of_an_earlier_version_get_what_fitting_looks_at(self) -> None:
        board = Board.objects.get(part_number="TVH-2210-B")
        read = (board.traits, board.features)
        Board.objects.filter(pk=board.pk).update(traits={}, features={})
        fill_traits()
        board.refresh_from_db()
        self.assertEqual((board.traits, board.features), read)


class Shelves(WorldTestCase):
    """Boards by kind and maker, each as it is drawn small."""

    def setUp(self) -> None:
        self.sign_in("wennick")

    def test_boards_are_found_by_kind_and_maker_together(self) -> None:
        mine = self.get("boards?family=deck-oven&maker=Omnifen&size=100")["items"]
        self.assertTrue(mine)
        self.assertEqual({(each["family"], each["maker"]) for each in mine}, {("deck-oven", "Omnifen")})
        self.assertEqual({each["family_title"] for each in mine}, {"Gas deck oven, one or two stages"})
        self.assertEqual(self.get("boards?family=deck-oven&maker=Nobody")["total"], 0)

    def test_every_maker_is_listed_once_with_its_boards(self) -> None:
        makers = {each["maker"]: each["boards"] for each in self.get("makers?size=100")["items"]}
        self.assertEqual(sum(makers.values()), Board.objects.count())
        self.assertEqual(makers["Omnifen"], self.get("boards?maker=Omnifen")["total"])

    def test_a_board_in_a_list_has_what_its_drawing_takes_and_no_more(self) -> None:
        (found,) = self.get("boards?search=TVH-2210-B")["items"]
        document = json.loads((settings.ROOT / "demo/boards/TVH-2210-B.board.json").read_text())
        self.assertEqual(
            found["sketch"], {name: document[name] for name in ("size_mm", "holes", "look", "connectors", "layout")}
        )


class Ranges(WorldTestCase):
    def test_a_parameter_with_very_many_settings_is_offered_whole(self) -> None:
        document = json.loads((settings.ROOT / "demo/boards/TVH-2420-A.board.json").read_text())
        setting = next(each for each in document["settings"] if each["kind"] == "parameter")
        setting |= {"min": 0, "max": 3600, "step": 1, "factory": 60}
        document |= {"part_number": "TVH-2421-A", "settings_layout": None}
        document.pop("settings_layout")
        load_document(None, json.dumps(document).encode(), NOW)
        self.sign_in("corm")
        shown = self.get("board/TVH-2421-A")
        found = next(each for each in shown["elements"] if each["id"] == setting["id"])
        self.assertEqual((found["range"], found["values"]), ({"low": 0, "high": 3600, "step": 1}, []))
        others = [each for each in shown["elements"] if each["kind"] not in ("parameter",)]
        self.assertTrue(all(each["range"] is None and each["values"] for each in others))


class Retiring(WorldTestCase):
    def setUp(self) -> None:
        self.sign_in("corm")

    def test_a_withdrawn_board_says_why_and_what_instead_and_is_no_candidate_any_more(self) -> None:
        given = {"part_number": "TVH-2210-C", "why": "Relays weld", "successor": "TVH-2214-A"}
        self.post("boards/withdraw", {**given, "why": " "}, 422)
        self.post("boards/withdraw", {**given, "successor": "TVH-2210-C"}, 400)
        self.post("boards/withdraw", {**given, "successor": "nothing"}, 404)
        words = self.post("boards/withdraw", given)["withdrawn"]
        self.assertRegex(words, r"^Withdrawn by Corm Haddle on \d{4}-\d\d-\d\d: Relays weld. Take TVH-2214-A instead.$")
        self.assertEqual(self.get("board/TVH-2210-C")["withdrawn"], words)
        job = self.job(6)
        self.entry(job, "original", "TVH-2210-B")
        offered = {each["part_number"] for each in self.get(f"jobs/{job.pk}/candidates?size=50")["items"]}
        self.assertNotIn("TVH-2210-C", offered)
        self.assertIn("TVH-2214-A", offered)
        self.post("boards/bring-back", {"part_number": "TVH-2210-C"})
        self.assertEqual(self.get("board/TVH-2210-C")["withdrawn"], "")

    def test_only_a_depots_own_board_on_which_nothing_rests_is_removed(self) -> None:
        self.post("boards/remove", {"part_number": "TVH-2210-C"}, 400)
        for number in ("K7-100", "K7-200"):
            self.post("sketches", {"part_number": number, "kind": "Tray washer", "lines": "S1 bank 4"})
        self.post("drafts", {"part_number": "K7-200"})
        self.assertIn("Withdraw it instead", self.post("boards/remove", {"part_number": "K7-200"}, 400)["detail"])
        self.post("boards/remove", {"part_number": "K7-100"}, 204)
        self.get("board/K7-100", 404)
        self.assertEqual(self.get("board/K7-200")["revision"], 1)
        self.sign_in("wennick")
        self.post("boards/remove", {"part_number": "K7-200"}, 403)
        self.post("boards/withdraw", {"part_number": "K7-200", "why": "no"}, 403)
