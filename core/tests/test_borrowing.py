"""Tests that borrow: told with each board's own points and pins, and put back in reverse."""

from typing import Any

from django.test import SimpleTestCase

from tests.builders import encoded, small_board, small_family
from twincore.errors import DocumentError, WrongValue
from twincore.job import EntryMade, changed, empty_state
from twincore.job.case import Case, EmptyShelf
from twincore.job.given import Given
from twincore.job.shared.borrowing import borrowed, put_back, unread_sets
from twincore.job.steps.rule_out import as_found_of, brought_by_test, test_value, undo_of
from twincore.profile import parse_board, parse_family
from twincore.rule_out import parse_rule_out

SIGNALS = [
    {"id": "eye", "title": "Light barrier", "kind": "input"}, {"id": "plus", "title": "24 V", "kind": "supply"},
    {"id": "far", "title": "Far sensor", "kind": "input"},
]  # fmt: skip
FAMILY = parse_family(encoded(small_family(signals=SIGNALS)))
BOARD = parse_board(
    encoded(
        small_board(
            None,
            settings=[{"id": "S1", "kind": "dip", "positions": 3, "factory": "000"}],
            connectors=[{"id": "C2", "pins": [{"pin": 1, "signal": "eye"}, {"pin": 2, "signal": "plus"}]}],
        )
    )
)
DOES: tuple[dict[str, Any], ...] = (
    {"set": "S1.3", "to": "on"}, {"bridge": ["eye", "plus"]}, {"unplug": "eye"}, {"wait_s": 90}, {"expect": "it runs"},
)  # fmt: skip


def data(**more: Any) -> Any:
    results = [
        {"id": "runs", "title": "It runs", "otherwise": 0.5},
        {"id": "not", "title": "It does not", "rest": True},
    ]
    test = {"id": "t", "title": "T", "minutes": 2, "risk": "low voltage", "how": ["Look"], "expected": "it runs",
            "results": results, "source": "invented", **more}  # fmt: skip
    suspects = [{"id": each, "title": each, "weight": 1, "source": "invented"} for each in ("board", "fuse")]
    return parse_rule_out(
        encoded({"format": "worthy-twin/rule-out", "version": 1, "family": "small", "title": "t", "suspects": suspects, "tests": [test]})
    )  # fmt: skip


class Told(SimpleTestCase):
    def test_each_board_is_told_its_own_places_and_how_it_stood(self) -> None:
        lines = borrowed(DOES, BOARD, FAMILY, {"S1": "010"})
        self.assertEqual(
            [line.words for line in lines],
            ["Set S1.3 to on", "Bridge C2.1 (Light barrier) and C2.2 (24 V)", "Pull C2", "Wait 90 s", "Expected then: it runs"],
        )  # fmt: skip
        self.assertEqual(lines[3].wait_s, 90)
        # the last that was moved goes back first
        self.assertEqual(
            put_back(lines),
            "C2 on again, as it sat; Bridge between C2.1 (Light barrier) and C2.2 (24 V) off; S1.3 back to off",
        )
        self.assertEqual(unread_sets(DOES, BOARD, {"S1": "010"}), [])

    def test_what_a_board_does_not_have_is_said(self) -> None:
        lines = borrowed(
            ({"bridge": ["eye", "far"]}, {"unplug": "far"}, {"set": "S9.1", "to": "on"}), BOARD, FAMILY, {}
        )
        self.assertEqual([line.missing for line in lines], [True, True, True])
        self.assertIn("Far sensor", lines[0].words)
        self.assertTrue(all(line.missing for line in borrowed(DOES[:3], None, FAMILY, {})))

    def test_what_nobody_read_is_written_down_first(self) -> None:
        self.assertEqual(unread_sets(DOES, BOARD, {}), ["S1.3"])
        self.assertEqual(unread_sets(DOES, BOARD, {"S1": "01?"}), ["S1.3"])
        self.assertIn("as it was written down", borrowed(DOES, BOARD, FAMILY, {})[0].back)


class Made(SimpleTestCase):
    def case(self, **found: str) -> Case:
        shelf = EmptyShelf(rule_out=data(does=list(DOES), undo="Isolate first."))
        return Case({**empty_state(), "found": dict(found)}, family=FAMILY, original=BOARD, shelf=shelf)

    def test_a_test_is_kept_with_how_its_board_is_put_back(self) -> None:
        case = self.case(S1="010")
        test = case.shelf.rule_out.tests[0] if case.shelf.rule_out else None
        assert test is not None
        self.assertTrue(undo_of(case, test).endswith("S1.3 back to off; Isolate first."))
        brought = brought_by_test(case, "t", {"result": "runs"})
        state = changed(case.state, EntryMade(1, None, "somebody", "test.t", {"result": "runs"}, adds=brought))
        self.assertIn("C2 on again", state["tests"]["t"]["undo"])

    def test_a_switch_that_nobody_read_is_asked_for_before_the_result(self) -> None:
        case, given = self.case(), Given("somebody", None)  # type: ignore[arg-type] # the time does not matter here
        self.assertEqual(as_found_of(case, data(does=list(DOES)).tests[0]), "how S1.3 stood")
        with self.assertRaisesRegex(WrongValue, "how S1.3 stood"):
            test_value(case, "t", {"result": "runs"}, given)
        self.assertEqual(test_value(case, "t", {"result": "runs", "as_found": "off"}, given)["as_found"], "off")

    def test_data_alone_say_that_something_is_to_be_put_back(self) -> None:
        self.assertEqual(data(does=[{"wait_s": 5}]).tests[0].undo, "")
        self.assertTrue(data(does=[{"set": "S1.3", "to": "on"}]).tests[0].undo)
        for wrong in ({}, {"set": "S1.3"}, {"bridge": ["eye"]}, {"wait_s": 0}, {"wait_s": 5, "expect": "x"}):
            with self.subTest(wrong), self.assertRaises(DocumentError):
                data(does=[wrong])
