"""Whoever follows a page to the letter gets what it promises: what it has written is written into a copy, and tried there."""

import tempfile
from pathlib import Path

from django.test import SimpleTestCase

from tests.guides import ROOT, comes_of, follow, written

FOLLOWED = ("add-a-target.md", "add-a-criterion.md", "add-an-element-kind.md")


class Guides(SimpleTestCase):
    def test_what_a_page_has_written_works_and_nothing_is_left_out(self) -> None:
        for page in FOLLOWED:
            with self.subTest(page), tempfile.TemporaryDirectory() as folder:
                follow(page, Path(folder))
                done = comes_of(page, Path(folder))
                self.assertEqual((done.returncode, done.stderr), (0, ""))

    def test_without_what_it_has_written_nothing_comes_of_it(self) -> None:
        for page in FOLLOWED:
            with self.subTest(page):
                self.assertNotEqual(comes_of(page, ROOT).returncode, 0)

    def test_every_file_that_a_page_names_is_there(self) -> None:
        for page in sorted((ROOT / "docs").glob("add-*.md")):
            new = {each.file for each in written(page.name) if each.after is None}
            for word in page.read_text().split("`")[1::2]:
                path = word.strip().partition(" ")[0]
                is_path = path.startswith(("core/", "shown/", "server/", "web/", "docs/", "script/", "demo/"))
                if is_path and not set("<>*…{") & set(path) and path not in new:
                    self.assertTrue((ROOT / path).exists(), f"{page.name}: {path}")
