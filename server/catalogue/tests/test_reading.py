import json
from io import BytesIO
from typing import Any
from unittest.mock import patch
from uuid import uuid4

from PIL import Image

from catalogue.models import BoardPicture
from jobs.tests.world import WorldTestCase
from people.models import Depot, Person
from standins.printed import leaflet, things
from standins.printed.worn import Wear, worn

WEAR = Wear(turned=1.8, lean=0.01, blur=0.6, noise=0.03, shade=0.25)


def file_of(image: Image.Image) -> bytes:
    out = BytesIO()
    image.convert("RGB").save(out, "JPEG", quality=88)
    return out.getvalue()


class Reading(WorldTestCase):
    def setUp(self) -> None:
        self.sign_in("wennick")

    def send(self, path: str, data: bytes, status: int = 200) -> Any:
        answer = self.client.post(f"/api/{path}", data, content_type="image/jpeg")
        self.assertEqual(answer.status_code, status, answer.content[:300])
        return json.loads(answer.content)

    def test_a_marking_is_read_from_a_worn_board_with_the_piece_beside_and_the_board_it_belongs_to(self) -> None:
        picture = worn(things.board("TVH-2210-B", "Tarvenholm"), WEAR, 3)
        read = self.send("pictures/markings", file_of(picture))
        self.assertEqual(read[0]["boards"][0]["part_number"], "TVH-2210-B")
        self.assertTrue(read[0]["piece"].startswith("data:image/png;base64,"))

    def test_a_chart_is_read_cell_by_cell(self) -> None:
        rows = self.send("pictures/table", file_of(worn(leaflet.second_page(), WEAR, 4)))["rows"]
        chart = leaflet.chart()
        self.assertEqual(len(rows), 1 + len(chart.rows))
        cells = [
            (mine, theirs)
            for row, want in zip(rows[1:], chart.rows, strict=True)
            for mine, theirs in zip(row, want, strict=True)
        ]
        self.assertGreater(sum(mine == theirs for mine, theirs in cells) / len(cells), 0.95)

    def test_a_picture_without_print_gives_nothing_and_no_picture_is_refused(self) -> None:
        plain = file_of(Image.new("RGB", (400, 300), (120, 130, 120)))
        self.assertEqual(self.send("pictures/markings", plain), [])
        self.assertEqual(self.send("pictures/table", plain), {"rows": []})
        self.assertIn("no picture", self.send("pictures/table", b"hello", 422)["detail"])

    def test_without_an_engine_it_says_so(self) -> None:
        with patch("pictures.engine.which", return_value=None):
            problem = self.send("pictures/markings", file_of(things.plate()), 400)
        self.assertIn("Type what you see", problem["detail"])


class BoardPictures(WorldTestCase):
    def setUp(self) -> None:
        self.sign_in("wennick")
        self.id = str(uuid4())
        self.data = file_of(Image.new("RGB", (300, 200), (10, 90, 40)))

    def add(self, status: int = 200, of: str = "leaflet") -> Any:
        answer = self.client.post(
            f"/api/board-picture/{self.id}/of/UMC 40-118/2?of={of}", self.data, content_type="image/jpeg"
        )
        self.assertEqual(answer.status_code, status, answer.content[:300])
        return answer.json()

    def test_pictures_belong_to_a_board_and_to_the_depot_that_took_them(self) -> None:
        self.add()
        self.add()  # sent twice, kept once
        shown = self.get("board-pictures/UMC 40-118/2")
        self.assertEqual([(each["of"], each["width"]) for each in shown["items"]], [("leaflet", 300)])
        self.assertEqual(self.client.get(f"/api/board-picture/{self.id}").status_code, 200)
        elsewhere = Depot.objects.create(name="Low Harbour", code="LH")
        Person.objects.create_user("other", password="torchlight-42", depot=elsewhere)
        self.sign_in("other")
        self.assertEqual(self.get("board-pictures/UMC 40-118/2")["total"], 0)
        self.get(f"board-picture/{self.id}", 404)
        self.assertEqual(self.client.delete(f"/api/board-picture/{self.id}").status_code, 404)

    def test_one_picture_lies_under_the_drawing_and_only_for_its_depot(self) -> None:
        self.add(of="board&under=true")
        first, self.id = self.id, str(uuid4())
        self.assertEqual(self.get("board/UMC 40-118/2")["under"], first)
        self.add(of="board&under=true")
        self.assertEqual([each["under"] for each in self.get("board-pictures/UMC 40-118/2")["items"]], [False, True])
        self.put(f"board-picture/{first}/under", {"under": True})
        self.assertEqual(self.get("board/UMC 40-118/2")["under"], first)
        self.put(f"board-picture/{first}/under", {"under": False})
        self.assertIsNone(self.get("board/UMC 40-118/2")["under"])
        self.put(f"board-picture/{first}/under", {"under": True})
        elsewhere = Depot.objects.create(name="Low Harbour", code="LH")
        Person.objects.create_user("other", password="torchlight-42", depot=elsewhere)
        self.sign_in("other")
        self.assertIsNone(self.get("board/UMC 40-118/2")["under"])
        self.put(f"board-picture/{first}/under", {"under": False}, 404)

    def test_a_picture_is_taken_out_with_its_file(self) -> None:
        self.add()
        file = BoardPicture.objects.get().file
        self.assertTrue(file.storage.exists(file.name))
        with self.captureOnCommitCallbacks(execute=True):
            self.assertEqual(self.client.delete(f"/api/board-picture/{self.id}").status_code, 204)
        self.assertFalse(file.storage.exists(file.name))
        self.assertFalse(BoardPicture.objects.exists())

    def test_the_pictures_of_a_board_go_with_it(self) -> None:
        self.sign_in("corm")
        self.post("sketches", {"part_number": "UMC 99", "kind": "Tray washer", "lines": "S1 bank 4"})
        path = f"/api/board-picture/{self.id}/of/UMC 99?of=board"
        self.assertEqual(self.client.post(path, self.data, content_type="image/jpeg").status_code, 200)
        file = BoardPicture.objects.get().file
        with self.captureOnCommitCallbacks(execute=True):
            self.post("boards/remove", {"part_number": "UMC 99"}, 204)
        self.assertFalse(BoardPicture.objects.exists())
        self.assertFalse(file.storage.exists(file.name))

    def test_what_is_none_of_a_boards_pictures_is_refused(self) -> None:
        self.add(422, of="holiday")
        self.data = b"no picture"
        self.add(422)
        self.assertFalse(BoardPicture.objects.exists())
