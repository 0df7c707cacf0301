import json
from typing import Any

from catalogue.models import Board
from jobs.tests.world import WorldTestCase
from people.models import Depot, Person

LINES = "S1 bank 4, on up, from left; R1 dial 0..3; C1 plug 3, keyed"


class Giving(WorldTestCase):
    """Boards from depot to depot, with their sources and standings."""

    def setUp(self) -> None:
        self.sign_in("corm")
        elsewhere = Depot.objects.create(name="Low Harbour", code="LH")
        self.lead = Person.objects.create_user("other", password="x", depot=elsewhere, role=Person.Role.PARTS_LEAD)
        self.post("sketches", {"part_number": "K7-100", "kind": "Tray washer", "lines": LINES})

    def give(self, *numbers: str) -> bytes:
        body = json.dumps({"part_numbers": numbers})
        answer = self.client.post("/api/board-boxes", body, content_type="application/json")
        self.assertEqual(answer.status_code, 200, answer.content[:300])
        return answer.content

    def send(self, path: str, data: bytes, status: int = 200) -> Any:
        answer = self.client.post(f"/api/board-boxes/{path}", data, content_type="application/json")
        self.assertEqual(answer.status_code, status, answer.content[:300])
        return answer.json()

    def stands(self, data: bytes) -> dict[str, str]:
        return {each["name"]: each["stands"] for each in self.send("look", data)["lines"]}

    def test_boards_go_to_another_depot_with_their_standing_and_are_settled_line_by_line(self) -> None:
        box = self.give("K7-100", "TVH-2210-B")
        kind = self.get("board/K7-100")["family"]
        self.client.force_login(self.lead)
        self.assertEqual(
            self.stands(box), {kind: "the same", "deck-oven": "the same", "K7-100": "new", "TVH-2210-B": "the same"}
        )
        self.send("take?names=K7-100", box)
        self.assertEqual(self.get("board/K7-100")["family_title"], "Tray washer")
        self.assertEqual(Board.objects.filter(part_number="K7-100").count(), 2)
        # a kind that somebody else has otherwise is not overwritten
        changed = json.loads(box)
        changed["families"][0]["title"] = "Crate washer"
        self.assertEqual(self.stands(json.dumps(changed).encode())[changed["families"][0]["id"]], "wrong")

    def test_a_kind_that_is_shared_lets_a_depots_own_board_go_over(self) -> None:
        self.post("sketches", {"part_number": "K9-1", "family": "deck-oven", "lines": LINES})
        box = self.give("K9-1")
        self.client.force_login(self.lead)
        line = next(each for each in self.send("look", box)["lines"] if each["name"] == "K9-1")
        self.assertIn("sketched at the machine, Corm Haddle", line["standing"])
        self.assertEqual(self.send("take?names=K9-1", box)["names"], ["K9-1"])
        self.assertEqual(self.stands(box)["K9-1"], "the same")
        self.assertEqual(self.get("board/K9-1")["document"]["standing"]["settings"]["sources"][0]["who"], "Corm Haddle")
        self.send("take?names=K9-1", box, 400)
        changed = json.loads(box)
        changed["boards"][0]["title"] = "Other title"
        again = json.dumps(changed).encode()
        self.assertEqual(self.stands(again)["K9-1"], "otherwise here")
        self.send("take?names=K9-1", again)
        self.assertEqual(self.get("board/K9-1")["revision"], 2)

    def test_one_wrong_board_keeps_the_others_not_out_and_only_a_lead_takes_in(self) -> None:
        box = json.loads(self.give("K7-100", "TVH-2210-B"))
        box["boards"][1]["settings"][0]["positions"] = 99
        data = json.dumps(box).encode()
        self.assertEqual(self.stands(data), {**dict.fromkeys([box["families"][0]["id"], "deck-oven"], "the same"),
                                             "K7-100": "the same", "boards[1]": "wrong"})  # fmt: skip
        self.send("take?names=boards[1]", data, 400)
        self.send("take?names=nothing", data, 422)
        self.sign_in("wennick")
        self.send("take?names=K7-100", data, 403)
        self.send("look", b"{}", 422)
        self.post("board-boxes", {"part_numbers": ["ZZ-9"]}, 404)
