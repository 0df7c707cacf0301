"""A draft is any half-finished text: whatever is typed so far, every page of it opens."""

import json
import os
from collections.abc import Iterator
from typing import Any

from jobs.tests.world import WorldTestCase
from workshop.models import Draft

LONG = bool(os.environ.get("TWIN_LONG"))
BOARDS = ("TVH-2210-B", "OFN-U5") if LONG else ("TVH-2210-B",)
PAGES = ("", "/changes", "/file")
SCENARIO = {"steps": [{"at": 0, "set": {"call": True}}], "until": 60}


class HalfTyped(WorldTestCase):
    def setUp(self) -> None:
        self.sign_in("corm")

    def opened(self, number: str) -> Any:
        return self.get(f"drafts/{self.post('drafts', {'part_number': number})['id']}")

    def check_pages(self, draft: Any, what: object) -> None:
        for page in PAGES:
            answer = self.client.get(f"/api/drafts/{draft['id']}{page}")
            self.assertEqual(answer.status_code, 200, (what, page, answer.content[:300]))
        play = self.client.post(f"/api/drafts/{draft['id']}/play", json.dumps(SCENARIO), "application/json")
        self.assertIn(play.status_code, (200, 400, 422), (what, play.content[:300]))

    def test_every_cell_of_a_state_typed_letter_by_letter(self) -> None:
        """A defect: "Val" of "Valve" in what is on in a state, and the page did not open any more."""
        for number in BOARDS:
            draft = self.opened(number)
            machine = draft["machines"][0]
            for state in machine["states"] if LONG else machine["states"][2:3]:
                cells = {"machine": 0, "was": state["name"], "name": state["name"], "title": state["title"],
                         "on": state["on"], "arrows": state["arrows"]}  # fmt: skip
                for what, typed in letter_by_letter(cells):
                    version = Draft.objects.get(pk=draft["id"]).version
                    answer = self.client.post(
                        f"/api/drafts/{draft['id']}/state", json.dumps({"seen": version, **typed}), "application/json"
                    )
                    self.assertIn(answer.status_code, (200, 422), (what, answer.content[:300]))
                    self.check_pages(draft, (number, state["name"], what))


def letter_by_letter(cells: dict[str, Any]) -> Iterator[tuple[str, dict[str, Any]]]:
    """Each text of a state's cells cut off after every letter, from the whole downwards, and put back in the end."""
    for name in ("on", "title"):
        for count in range(len(cells[name]) + 1):
            yield f"{name} {cells[name][:count]!r}", cells | {name: cells[name][:count]}
    for index, arrow in enumerate(cells["arrows"]):
        for name, text in arrow.items():
            for count in range(len(text) + 1):
                arrows = [*cells["arrows"]]
                arrows[index] = arrow | {name: text[:count]}
                yield f"arrows[{index}].{name} {text[:count]!r}", cells | {"arrows": arrows}
    yield "all", cells
