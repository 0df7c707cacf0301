"""Jobs played again from their entries, on files alone."""

import json
from contextlib import redirect_stderr, redirect_stdout
from io import StringIO
from pathlib import Path
from tempfile import TemporaryDirectory
from typing import Any

from django.test import SimpleTestCase

from tests.test_chain import document, entry, package, with_digests
from twincore.chain import open_package
from twincore.cli import main
from twincore.errors import DocumentError
from twincore.job import partings, replay, sheet_of

PACKAGES = Path(__file__).parent / "packages"


def node(number: int, target: str, after: Any, **more: Any) -> dict[str, Any]:
    """An entry as a record has it."""
    return {
        "id": f"e{number}", "number": number, "at": "2026-03-02T03:00:00.000+00:00", "by": "Wennick Tarl", "target": target,
        "before": None, "after": after, "reason": "", "read_how": "", "attachment": "", **more,
    }  # fmt: skip


class Replay(SimpleTestCase):
    def entries(self) -> list[dict[str, Any]]:
        return [
            node(1, "confirmed.rule_out", {"note": "", "end": "condemned"}),
            node(
                2, "original", "A", adds={"family": "ovens", "powered": ["P1"], "remembered": [], "holds": ["isolate"]}
            ),
            node(
                3,
                "replacement",
                "B",
                adds={"choice": {"reason": "", "by": "Wennick Tarl", "at": "", "verdict": "fits", "alternatives": []}},
            ),
            node(4, "hold.isolate", {"where": "main switch"}, adds={"isolates": True}),
            node(5, "found.S1", "01", read_how="by eye"),
            node(6, "wire.w1", {"connector": "C1", "pin": "1"}),
            node(7, "found.S1", "11", read_how="by eye"),
        ]

    def test_entries_lead_to_the_state(self) -> None:
        found = replay(self.entries())
        self.assertEqual(found.untold, frozenset())
        state = found.state
        self.assertEqual((state["family"], state["original"], state["replacement"]), ("ovens", "A", "B"))
        self.assertEqual((state["found"], state["power"], state["wires"]["w1"]["n"]), ({"S1": "11"}, "off", 6))
        self.assertEqual(
            state["holds"]["isolate"],
            {"where": "main switch", "by": "Wennick Tarl", "at": "2026-03-02T03:00:00.000+00:00"},
        )
        self.assertEqual(partings(self.entries(), dict(state)), [])

    def test_a_state_that_says_otherwise_is_told_at_the_entry_where_they_part(self) -> None:
        entries = self.entries()
        state = json.loads(json.dumps(replay(entries).state))
        for change, place in (
            ({"found": {"S1": "00"}}, "entries[6]"), ({"wires": {}}, "entries[5]"), ({"original": "C"}, "entries[1]"),
            ({"powered": []}, "entries[1]"), ({"choice": None}, "entries[2]"), ({"power": "on"}, "entries[3]"),
            ({"defects": {"x": {"what": "forged"}}}, "entries[6]"),
        ):  # fmt: skip
            with self.subTest(change):
                self.assertEqual([fault.place for fault in partings(entries, {**state, **change})], [place])

    def test_parts_that_entries_do_not_tell_are_a_state_all_the_same(self) -> None:
        """A defect: what entries of an earlier version do not tell was taken as it stood, whatever it was."""
        entries = [node(1, "hold.isolate", {"where": "main switch"}), node(2, "original", "A")]
        state = json.loads(json.dumps(replay(entries).state))
        for change, place in (
            ({"confirmed": {"record": 5}}, "state.confirmed.record"), ({"holds": {"isolate": 1}}, "state.holds.isolate"),
            ({"power": "maybe"}, "state.power"), ({"family": 123}, "state.family"), ({"powered": [1]}, "state.powered[0]"),
            ({"boards": {"2": {"found": 1}}}, "entries[1]"), ({"board": "2"}, "entries[1]"),
        ):  # fmt: skip
            with self.subTest(change):
                self.assertEqual([fault.place for fault in partings(entries, {**state, **change})][:1], [place])

    def test_an_entry_that_is_none_is_told(self) -> None:
        for wrong, place in (
            (node(1, "nonsense.x", 1), "entries[0].target"), (node(1, "found", "1"), "entries[0].target"),
            (node(1, "confirmed.nowhere", {"note": ""}), "entries[0].target"), (node(1, "found.S1", [1]), "entries[0].after"),
            (node(1, "found.S1", "1", at="noon"), "entries[0].at"), (node(1, "confirmed.fit", {"words": ""}), "entries[0].after.note"),
        ):  # fmt: skip
            with self.subTest(wrong["target"]), self.assertRaises(DocumentError) as caught:
                replay([wrong])
            self.assertEqual(caught.exception.faults[0].place, place)

    def test_packages_of_earlier_versions_lead_to_their_state(self) -> None:
        for path in sorted(PACKAGES.glob("*.zip")):
            with self.subTest(path.name):
                job = open_package(path.read_bytes()).job
                self.assertEqual(partings(job["entries"], job["state"]), [])
                sheet = sheet_of(job)
                self.assertEqual({step["state"] for step in sheet["steps"]} == {"done"}, "closed" in path.name)
        self.assertGreaterEqual(len(list(PACKAGES.glob("*.zip"))), 2)


class CommandLine(SimpleTestCase):
    def call(self, *argv: str) -> tuple[int, Any, str]:
        out, err = StringIO(), StringIO()
        with redirect_stdout(out), redirect_stderr(err):
            code = main(argv)
        return code, json.loads(out.getvalue()) if code == 0 else None, err.getvalue()

    def test_a_package_has_its_boards_so_that_plan_and_verdict_are_worked_out_again(self) -> None:
        code, sheet, _ = self.call("job", str(PACKAGES / "0.4.0-closed.zip"))
        self.assertEqual((code, sheet["verdict"], sheet["functions"]["trial"]), (0, "within tolerance", {"value": 7}))
        self.assertEqual(sheet["plan"]["P02"], 7)

    def test_a_job_is_played_again_from_its_document_or_its_package(self) -> None:
        for name in ("0.4.0-closed.zip", "0.4.0-open.zip"):
            code, sheet, _ = self.call("job", str(PACKAGES / name))
            self.assertEqual(code, 0)
            self.assertEqual(sheet["step"], "hand_over" if "closed" in name else sheet["step"])
        with TemporaryDirectory() as folder:
            path = Path(folder) / "job.json"
            path.write_text(json.dumps(document(with_digests(Replay().entries()), state=None)))
            code, sheet, _ = self.call("job", str(path))
            self.assertEqual((code, sheet["step"], sheet["state"]["found"]), (0, "record", {"S1": "11"}))

    def test_a_package_whose_entries_do_not_lead_to_its_state_is_refused(self) -> None:
        entries = with_digests([entry(1), entry(2, after="10")])
        state = json.loads(json.dumps(replay(entries).state))
        with TemporaryDirectory() as folder:
            path = Path(folder) / "job.zip"
            path.write_bytes(package(document(entries, state=state)))
            self.assertEqual(self.call("verify", str(path))[0], 0)
            path.write_bytes(package(document(entries, state={**state, "found": {"S1": "00"}})))
            code, _, told = self.call("verify", str(path))
            self.assertEqual(code, 2)
            self.assertIn("state.found.S1: expected what the entries tell", told)
