"""Pictures of the record over the API: kept upright, made smaller, and banks read in them."""

import io
import tempfile
from pathlib import Path
from typing import Any
from unittest.mock import patch
from uuid import uuid4

from django.test import override_settings
from PIL import Image, ImageDraw

from jobs.models import Picture
from jobs.tests.world import FrontTestCase


def jpeg(width: int = 60, height: int = 30, orientation: int | None = None, place: bool = False) -> bytes:
    image = Image.new("RGB", (width, height), "white")
    exif = Image.Exif()
    if orientation:
        exif[0x0112] = orientation
    if place:
        exif.get_ifd(0x8825)[2] = (51.0, 30.0, 0.0)
    out = io.BytesIO()
    image.save(out, "JPEG", exif=exif)
    return out.getvalue()


class Pictures(FrontTestCase):
    def setUp(self) -> None:
        super().setUp()
        self.open = self.job(3)
        folder = self.enterContext(tempfile.TemporaryDirectory())
        self.enterContext(override_settings(MEDIA_ROOT=folder))

    def test_a_picture_whose_file_is_gone_takes_nothing_else_with_it(self) -> None:
        """Defect: every paper of the job failed with it."""
        self.send(jpeg())
        kept = Picture.objects.get(job=self.open)
        kept.file.storage.delete(str(kept.file.name))
        self.assertIn("backup", self.of_picture(str(kept.name), 404)["detail"])
        paper = self.client.get(f"/api/jobs/{self.open.pk}/sheet.pdf")
        self.assertEqual(paper.status_code, 200)
        self.assertTrue(paper.content.startswith(b"%PDF"))
        # the package of a job without one of its pictures would be none
        self.assertIn("missing", self.get(f"jobs/{self.open.pk}/package.zip", 404)["detail"])

    def of_picture(self, name: str, status: int) -> Any:
        return self.get(f"jobs/{self.open.pk}/pictures/{name}", status)

    def send(self, data: bytes, status: int = 200, name: str | None = None) -> Any:
        name = name or str(uuid4())
        path = f"/api/jobs/{self.open.pk}/pictures/{name}"
        return self.answer(self.client.post(path, data, content_type="image/jpeg"), status)

    def test_a_picture_is_turned_upright_and_loses_where_it_was_taken(self) -> None:
        kept = self.send(jpeg(60, 30, orientation=6, place=True))
        self.assertEqual((kept["width"], kept["height"]), (30, 60))
        data = b"".join(self.client.get(f"/api/jobs/{self.open.pk}/pictures/{kept['id']}").streaming_content)
        image = Image.open(io.BytesIO(data))
        self.assertEqual((image.size, dict(image.getexif())), ((30, 60), {}))
        marked = {"caption": "C1 before", "of": "C1", "marks": [{"x": 0.5, "y": 0.25, "text": "brown"}]}
        shown = self.entry(self.open, f"picture.{kept['id']}", marked)
        self.assertEqual(shown["pictures"][kept["id"]]["marks"][0]["text"], "brown")
        self.entry(self.open, f"picture.{uuid4()}", marked, status=422)
        self.entry(self.open, f"picture.{kept['id']}", {**marked, "marks": [{"x": 2, "y": 0}]}, marked, 422)

    def test_sending_twice_keeps_one_and_a_large_one_is_made_smaller(self) -> None:
        name = str(uuid4())
        self.assertEqual(self.send(jpeg(), name=name), self.send(jpeg(90, 90), name=name))
        self.assertEqual(Picture.objects.count(), 1)
        self.assertEqual(self.send(jpeg(4800, 1200))["width"], 2400)

    def test_the_pictures_of_a_job_fit_into_its_package(self) -> None:
        first = self.send(jpeg())
        with patch("jobs.steps.record.pictures.LARGEST_PICTURES", 12_000_000 + 1):
            self.assertIn("Open another job", self.send(jpeg(), 400)["detail"])
        Path(Picture.objects.get(name=first["id"]).file.path).unlink()
        # what is missing from the store has no size, and takes nothing along
        with patch("jobs.steps.record.pictures.LARGEST_PICTURES", 12_000_000 + 1):
            self.send(jpeg())

    def test_a_picture_that_breaks_off_is_none(self) -> None:
        for data in (jpeg(900, 600), jpeg(900, 600)[:-200]):
            good = data.endswith(b"\xff\xd9")
            self.send(data, 200 if good else 422)

    def test_what_is_no_picture_is_refused_and_nothing_is_kept(self) -> None:
        gif = io.BytesIO()
        Image.new("P", (9, 9)).save(gif, "GIF")
        for data in (b"", b"not a picture", jpeg()[:200], gif.getvalue(), b"<svg xmlns='http://www.w3.org/2000/svg'/>"):
            self.assertIn("expected JPEG, PNG or WebP", self.send(data, 422)["detail"])
        huge = io.BytesIO()
        Image.new("1", (9000, 9000)).save(huge, "PNG")
        self.assertIn("million pixels", self.send(huge.getvalue(), 422)["detail"])
        self.assertEqual(Picture.objects.count(), 0)

    def test_a_bank_is_proposed_from_its_corners_and_bad_corners_are_told(self) -> None:
        bank = Image.new("L", (240, 80), 60)
        for place, on in enumerate((0, 1, 0, 1, 1, 0)):
            bank.paste(215, (place * 40 + 10, 6 if on else 42, place * 40 + 30, 38 if on else 74))
        out = io.BytesIO()
        bank.convert("RGB").save(out, "PNG")
        kept = self.send(out.getvalue())
        corners = [{"x": x, "y": y} for x, y in ((0, 0), (1, 0), (1, 1), (0, 1))]
        path = f"jobs/{self.open.pk}/pictures/{kept['id']}/bank"
        read = self.post(path, {"element": "S1", "corners": corners})
        self.assertEqual(read["written"], "010110")
        self.assertTrue(all(each["confidence"] > 0.8 for each in read["sliders"]))
        self.assertIn("clockwise", self.post(path, {"element": "S1", "corners": corners[::-1]}, 422)["detail"])
        self.post(path, {"element": "S9", "corners": corners}, 400)
        self.assertEqual(self.get(f"jobs/{self.open.pk}")["found"], {})

    def test_thumbwheels_are_proposed_digit_by_digit(self) -> None:
        self.open = self.job(6)
        self.add("original", "QN7-0056")
        windows = Image.new("L", (96, 64), 235)
        pen = ImageDraw.Draw(windows)
        pen.line([(24, 12), (24, 52)], fill=20, width=6)
        pen.line([(60, 12), (86, 12), (70, 52)], fill=20, width=6)
        out = io.BytesIO()
        windows.save(out, "PNG")
        kept = self.send(out.getvalue())
        corners = [{"x": x, "y": y} for x, y in ((0, 0), (1, 0), (1, 1), (0, 1))]
        path = f"jobs/{self.open.pk}/pictures/{kept['id']}/bank"
        read = self.post(path, {"element": "W1", "corners": corners, "sliders": "dark"})
        self.assertEqual((read["written"], [each["mark"] for each in read["sliders"]]), ("17", ["1", "7"]))
        # digits lighter than their ground: there are none here
        self.assertEqual(self.post(path, {"element": "W1", "corners": corners})["written"], "??")
        self.assertIn("no row of thumbwheels", self.post(path, {"element": "R1", "corners": corners}, 400)["detail"])
