"""Pictures of the record over the API: kept upright, made smaller, and banks read in them."""

import io
import os
import tempfile
from pathlib import Path
from typing import Any
from unittest.mock import patch
from uuid import uuid4

from django.conf import settings
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
        self.enterContext(override_settings(MEDIA_ROOT=folder, UPLOADS=Path(folder) / "uploads"))

    def test_a_picture_whose_file_is_gone_takes_nothing_else_with_it(self) -> None:
        """Defect: every paper of the job failed with it."""
        self.send(jpeg())
        kept = Picture.objects.get(job=self.open)
        self.add(f"picture.{kept.name}", {"caption": "as found", "of": "board", "marks": []})
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

    def chunk(
        self, name: str, method: str, data: bytes = b"", status: int = 204, **headers: int | str
    ) -> dict[str, Any]:
        """One request of the protocol; what it answers in its headers, or its problem."""
        told = {"Tus-Resumable": "1.0.0", **{each.replace("_", "-"): str(said) for each, said in headers.items()}}
        path = f"/api/jobs/{self.open.pk}/pictures/{name}/chunks"
        answer = self.client.generic(method, path, data, "application/offset+octet-stream", headers=told)
        self.assertEqual(answer.status_code, status, answer.content[:300])
        return dict(answer.headers) if status < 400 else answer.json() if answer.content else {}

    def test_a_picture_that_was_cut_goes_on_where_it_was(self) -> None:
        """tus 1.0.0, core protocol: HEAD tells how far it is, PATCH goes on from there and nowhere else."""
        data, name = jpeg(400, 300), str(uuid4())
        half = len(data) // 2
        self.chunk(name, "HEAD", status=404)
        begun = self.chunk(name, "POST", status=201, Upload_Length=len(data))
        self.assertEqual(begun["Location"], f"/api/jobs/{self.open.pk}/pictures/{name}/chunks")
        self.assertEqual(self.chunk(name, "PATCH", data[:half], Upload_Offset=0)["Upload-Offset"], str(half))
        self.assertIn(f"expected {half}", self.chunk(name, "PATCH", data[:half], 409, Upload_Offset=0)["detail"])
        self.chunk(name, "POST", status=201, Upload_Length=len(data))  # begun again: what is there stays
        asked = self.chunk(name, "HEAD", status=200)
        self.assertEqual((asked["Upload-Offset"], asked["Upload-Length"]), (str(half), str(len(data))))
        self.chunk(name, "PATCH", data, 422, Upload_Offset=half)  # more than was said
        for _ in range(2):  # the answer of the last was not heard
            self.assertEqual(
                self.chunk(name, "PATCH", data[half:], Upload_Offset=half)["Upload-Offset"], str(len(data))
            )
        self.assertEqual((Picture.objects.get().width, Picture.objects.get().height), (400, 300))
        asked = self.chunk(name, "HEAD", status=200)
        self.assertEqual(asked["Upload-Offset"], asked["Upload-Length"])
        self.assertEqual(list(settings.UPLOADS.rglob("*.*")), [])

    def test_chunks_of_what_is_no_picture_are_kept_nowhere_and_nobody_fills_the_disk_with_begun_ones(self) -> None:
        name = str(uuid4())
        self.chunk(name, "POST", status=201, Upload_Length=4)
        self.assertIn("no picture", self.chunk(name, "PATCH", b"none", 422, Upload_Offset=0)["detail"])
        self.assertEqual(list(settings.UPLOADS.rglob("*.*")), [])
        for wrong in (0, 12_000_001, "1e3", "-4", "9" * 30):
            self.chunk(name, "POST", status=422, Upload_Length=wrong)
        self.chunk(name, "POST", status=412, Upload_Length=4, Tus_Resumable="0.2.2")
        with patch("pictures.chunks.MOST_BEGUN", 1):
            self.chunk(name, "POST", status=201, Upload_Length=4)
            self.assertIn("At most 1", self.chunk(str(uuid4()), "POST", status=400, Upload_Length=4)["detail"])
            os.utime(next(settings.UPLOADS.rglob("*.*")), (0, 0))  # begun long ago, and never gone on with
            self.chunk(str(uuid4()), "POST", status=201, Upload_Length=4)
        self.assertEqual(len(list(settings.UPLOADS.rglob("*.*"))), 1)
        self.sign_in("corm")
        self.chunk(name, "HEAD", status=404)  # another person's

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
