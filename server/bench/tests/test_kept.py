from pathlib import Path
from tempfile import TemporaryDirectory

from django.conf import settings
from django.test import SimpleTestCase

import twincore.job
from bench import kept
from twinshown.comparison import view as comparison_view


class Fingerprint(SimpleTestCase):
    def test_whatever_shapes_an_answer_is_in_it(self) -> None:
        for module in (twincore.job, comparison_view):
            path = Path(module.__file__ or "")
            self.assertTrue(any(path.is_relative_to(folder) for folder in kept.SHAPING), path)
        self.assertIn(settings.ROOT / "server", kept.SHAPING)

    def test_it_changes_with_any_source_and_with_nothing_else(self) -> None:
        with TemporaryDirectory() as name:
            folder = Path(name)
            (folder / "inner").mkdir()
            (folder / "inner" / "a.py").write_text("one = 1")
            (folder / "tests").mkdir()
            words = [kept.fingerprint_of([folder])]
            (folder / "tests" / "test_a.py").write_text("two = 2")
            (folder / "notes.txt").write_text("three")
            self.assertEqual(kept.fingerprint_of([folder]), words[0])
            (folder / "inner" / "a.py").write_text("one = 2")
            words.append(kept.fingerprint_of([folder]))
            (folder / "inner" / "b.json").write_text("{}")
            words.append(kept.fingerprint_of([folder]))
            (folder / "inner" / "b.json").rename(folder / "inner" / "c.json")
            words.append(kept.fingerprint_of([folder]))
            self.assertEqual(len(set(words)), 4)
