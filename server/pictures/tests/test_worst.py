"""The largest pictures that are taken, of every kind: kept within the bounds stated, or refused."""

from collections.abc import Callable
from io import BytesIO

import numpy
from django.test import SimpleTestCase
from PIL import Image, ImageFile

from pictures.files import IN_FOUR_COLOURS, MOST_AT_ONCE, MOST_BYTES, MOST_PIXELS, encoded, upright, whole
from tests.cost import Cost, cost
from twinshown.refusals import Faulty

SECONDS, MEGABYTES = 2.0, 150.0
TURNED = Image.Exif()
TURNED[0x0112] = 6  # the orientation by which most phones hold a picture upright


def written(image: Image.Image, kind: str, **options: object) -> bytes:
    out = BytesIO()
    image.save(out, kind, **options)
    return out.getvalue()


def kept(data: bytes) -> None:
    """What is done with a picture that comes in."""
    encoded(*upright(data))


class WorstPictures(SimpleTestCase):
    def within(self, data: bytes, work: Callable[[bytes], object] = kept) -> Cost:
        self.assertLessEqual(len(data), MOST_BYTES)
        found = cost(lambda: work(data), (Faulty,))
        self.assertNotIn("failed", found.said)
        self.assertLess(found.seconds, SECONDS)
        self.assertLess(found.megabytes, MEGABYTES)
        return found

    def test_the_largest_of_every_kind(self) -> None:
        for kind, mode, options in (
            ("PNG", "RGBA", {}), ("PNG", "L", {}), ("PNG", "P", {}), ("PNG", "I;16", {}), ("WEBP", "RGBA", {"lossless": True}),
            ("JPEG", "RGB", {"progressive": True, "subsampling": 0}), ("JPEG", "CMYK", {"progressive": True, "subsampling": 0}),
        ):  # fmt: skip
            with self.subTest(kind, mode=mode):
                side = int((MOST_AT_ONCE[kind] * (IN_FOUR_COLOURS if mode == "CMYK" else 1)) ** 0.5)
                data = written(Image.new(mode, (side, side), 0), kind, exif=TURNED, **options)
                self.assertEqual(self.within(data).said, "done")

    def test_the_largest_plain_jpeg(self) -> None:
        image = Image.new("RGB", (MOST_PIXELS // 6000, 6000), "grey")
        for options in ({}, {"subsampling": 0}):
            data = written(image, "JPEG", exif=TURNED, **options)
            self.assertEqual(self.within(data).said, "done")
        self.assertIn("refused", self.within(written(Image.new("L", (20_000, 3_001)), "JPEG")).said)

    def test_noise_of_the_most_bytes(self) -> None:
        noise = numpy.random.default_rng(3).integers(0, 256, (1_990, 1_990, 3), numpy.uint8)
        for kind, options in (("PNG", {"compress_level": 1}), ("JPEG", {"quality": 95, "subsampling": 0})):
            with self.subTest(kind):
                self.assertEqual(self.within(written(Image.fromarray(noise), kind, **options)).said, "done")

    def test_a_picture_that_tells_its_colours_one_after_another_counts_as_read_at_once(self) -> None:
        """Of such a one all is in memory, though it is not called progressive (ITU-T T.81, a scan for each component)."""
        whole_one = written(Image.new("RGB", (16, 16), "red"), "JPEG")
        scan = whole_one.index(b"\xff\xda")
        self.assertEqual(whole(whole_one).size, (16, 16))
        header = whole_one[:scan]
        size = header.index(b"\xff\xc0") + 5
        large = header[:size] + (7_000).to_bytes(2, "big") + (7_000).to_bytes(2, "big") + header[size + 4 :]
        of_one = b"".join(
            b"\xff\xda\x00\x08\x01" + bytes([each]) + b"\x00\x00\x3f\x00" + b"\x00" * 40 for each in (1, 2, 3)
        )
        self.assertIn(
            "at most 12 million pixels in a picture of this kind", self.within(large + of_one + b"\xff\xd9", whole).said
        )

    def test_a_phone_s_picture_with_a_preview_in_it_is_a_plain_one(self) -> None:
        preview = written(Image.new("RGB", (160, 120), "blue"), "JPEG")
        segment = b"Exif\x00\x00" + preview
        plain = written(Image.new("RGB", (6_000, 4_000), "grey"), "JPEG")
        with_preview = plain[:2] + b"\xff\xe1" + (len(segment) + 2).to_bytes(2, "big") + segment + plain[2:]
        self.assertEqual(self.within(with_preview).said, "done")

    def test_a_picture_cut_anywhere_is_refused(self) -> None:
        data = written(Image.new("RGB", (200, 200), "grey"), "JPEG")
        self.assertFalse(ImageFile.LOAD_TRUNCATED_IMAGES)
        for end in (3, 10, len(data) // 3, len(data) // 2, len(data) - 40):
            self.assertIn("refused", self.within(data[:end]).said, end)
