"""What papers draw of a run."""

import re
from types import SimpleNamespace
from typing import Any, cast

from django.test import SimpleTestCase

from jobs.papers.drawn import tracks_svg


class Tracks(SimpleTestCase):
    def drawn(self, steps: list[dict[str, Any]]) -> str:
        run = SimpleNamespace(until=100.0, steps=steps, original=[], replacement=[], measured=[])
        return tracks_svg(cast(Any, run), {"temp": "Chamber", "door": "Door"}, {"temp": 20, "door": False}, [])

    def test_an_input_is_a_line_while_it_is_on(self) -> None:
        marks = re.findall(
            r'x1="([0-9.]+)" x2="([0-9.]+)" y1="14"',
            self.drawn([{"at": 10, "set": {"door": True}}, {"at": 60, "set": {"door": False}}]),
        )
        self.assertEqual(len(marks), 1)
        self.assertLess(float(marks[0][0]), float(marks[0][1]))

    def test_a_level_is_its_values_where_they_were_reached(self) -> None:
        """Defect: it was drawn as an input that is on whenever its value is not nought."""
        picture = self.drawn([{"at": 10, "set": {"temp": 31.5}}, {"at": 60, "set": {"temp": 8}}])
        values = re.findall(r'<text x="([0-9.]+)" y="18" font-size="9" fill="#5c574d">([^<]+)<', picture)
        self.assertEqual([value for _, value in values], ["20", "31.5", "8"])
        self.assertEqual(sorted(float(x) for x, _ in values), [float(x) for x, _ in values])
        self.assertNotIn('y1="14"', picture)
