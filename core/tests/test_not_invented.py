"""What nobody said or looked at is not filled in: factory settings of a sketch, plugs that come apart, devices that are changed."""

import json
from datetime import UTC, datetime
from typing import Any
from unittest import TestCase

from tests.builders import DEMO, demo_board
from tests.test_wiring import board, family, record
from twincore import wiring
from twincore.errors import Refusal
from twincore.job import empty_state
from twincore.job.case import Case
from twincore.job.given import Given
from twincore.job.shared.assuming import assumable
from twincore.job.shared.wires import plugs_taken_apart, wiring_plan
from twincore.job.steps.carry_over import check_confirmed
from twincore.job.steps.record import CHECKS, missing_of, plugs_complete
from twincore.profile import as_shipped, parse_board, parse_family
from twincore.sketch import board_document, kind_document, read_lines
from twincore.wiring import second_looks

PROVERS = parse_family((DEMO / "families/retarder-prover.family.json").read_bytes())
NOW = datetime(2026, 3, 14, 3, 0, tzinfo=UTC)


def given() -> Given:
    return Given("Wennick Tarl", NOW, read_how="by eye")


class Factory(TestCase):
    """A defect: a sketch's factory setting, named because a document must name one, was offered as its maker's."""

    def setUp(self) -> None:
        lines = "S1 bank 4, on up, from left; R1 dial 0..9; P1 number 0..90 s; C1 plug 3"
        sketch, wrong = read_lines(lines)
        self.assertEqual(wrong, [])
        document = board_document(sketch, "K7-100", "", "Board", "mangle")
        # somebody learned of one of them how it leaves the maker
        settings = document["standing"]["settings"]
        settings["doubts"] = [each for each in settings["doubts"] if each["of"] != "R1"]
        self.board = parse_board(json.dumps(document).encode())
        kind = parse_family(json.dumps(kind_document("mangle", "Mangle")).encode())
        found = {"S1": "????", "R1": "?", "P1": "?"}
        self.case = Case({**empty_state(), "found": found}, family=kind, original=self.board)

    def test_is_not_known_where_a_sketch_had_to_name_one(self) -> None:
        points = as_shipped(self.board).points
        self.assertEqual({name for name, value in points.items() if value is not None}, {"R1"})

    def test_is_offered_only_where_it_is_known(self) -> None:
        self.assertEqual([each.positions for each in assumable(self.case, ())], [{"R1": "0"}])
        said: Any = {"value": "0000", "source": "factory"}
        with self.assertRaisesRegex(Refusal, "Nobody knows how S1 leaves its maker"):
            CHECKS["assumed"](self.case, "S1", said, given())


class Complete(TestCase):
    """A defect: "moves whole" was taken of a plug without a place on the new board, and its wires cut without a record."""

    def case(self, new: Any, **plugs: Any) -> Case:
        old = board("A", ("P", "X", "a b c"), ("Q", "Y", "sup pe"))
        return Case({**empty_state(), "plugs": plugs}, family=family(), original=old, replacement=new)

    def test_a_plug_moves_complete_only_where_the_new_board_takes_it_so(self) -> None:
        for new, complete in (
            (board("B", ("P", "X", "a b c"), ("Q", "Y", "sup pe")), ["P", "Q"]),
            # of another style, with other pins behind the same style, and with one signal gone
            (board("B", ("P", "Z", "a b c"), ("Q", "Y", "sup pe")), ["Q"]),
            (board("B", ("P", "X", "b a c"), ("Q", "Y", "sup pe")), ["Q"]),
            (board("B", ("P", "X", "a b -"), ("Q", "Y", "sup pe")), ["Q"]),
        ):
            case = self.case(new)
            self.assertEqual(plugs_complete(case), complete)
            for plug in ("P", "Q"):
                if plug in complete:
                    self.assertEqual(CHECKS["plug"](case, plug, "whole", given()), "whole")
                else:
                    with self.assertRaisesRegex(Refusal, "does not go complete onto B"):
                        CHECKS["plug"](case, plug, "whole", given())

    def test_what_was_said_before_another_board_was_chosen_is_asked_again(self) -> None:
        new = board("B", ("P", "Z", "a b c"), ("Q", "Y", "sup pe"))
        case = self.case(new, P="whole", Q="whole")
        self.assertEqual(plugs_taken_apart(case), ["P"])
        self.assertIn(
            "wires to record one by one, for the new board does not take the plug complete: P", missing_of(case)
        )
        with self.assertRaisesRegex(Refusal, "does not take P complete"):
            check_confirmed(case, "")

    def test_nothing_moves_straight_that_nobody_knows_the_signals_of(self) -> None:
        case = self.case(board("B", ("P", "Z", "- - -")))
        unknown = Case(
            empty_state(), family=family(), original=board("A", ("P", "X", "- -")), replacement=case.replacement
        )
        with self.assertRaisesRegex(Refusal, "Record its wires"):
            CHECKS["plug"](unknown, "P", "one by one", given())


class Changed(TestCase):
    """A defect: the old sensor that is changed along with the board was wired onto the new one."""

    def marked(self, kind: str) -> dict[str, tuple[str, ...]]:
        original, new = demo_board("UMC_40-118"), demo_board("OFN-P1")
        facts = {"probe.kind": {"value": kind, "source": "read"}}
        case = Case(
            {**empty_state(), "facts": facts, "plugs": {"C1": "one by one", "C2": "one by one"}},  # type: ignore[typeddict-item] # facts as kept
            family=PROVERS, original=original, replacement=new,
        )  # fmt: skip
        found = wiring_plan(case)
        assert found is not None
        looks = {each.wire for each in second_looks(found.plan) if each.why == "new device"}
        marked = {each.wire.id: each.marks for each in found.plan.wires if "new device" in each.marks}
        self.assertEqual(looks, set(marked))
        return {str(e.carries): e.marks for e in found.plan.wires if "new device" in e.marks}

    def test_its_wires_say_that_the_new_parts_lead_goes_there(self) -> None:
        self.assertEqual(set(self.marked("Pt1000")), {"probe.a", "probe.b"})
        self.assertEqual(self.marked("NTC 10k"), {})


class EarthFirst(TestCase):
    def test_earth_goes_on_first_whatever_order_was_chosen(self) -> None:
        fam, old = family(), board("A", ("P", "X", "sup a pe b"))
        new = board("B", ("Q", "Y", "a b sup pe"))
        wires = record(old, fam, "P.1", "P.2", "P.3", "P.4")
        steps = wiring.carry_wires(old, wires, new, fam, order="as recorded").steps
        self.assertEqual([step.wires for step in steps], [("w3",), ("w1",), ("w2",), ("w4",)])
        steps = wiring.carry_wires(old, wires, new, fam).steps
        self.assertEqual((steps[0].wires, steps[-1].wires), (("w3",), ("w1",)))


class Demo(TestCase):
    def test_every_part_of_a_demo_kit_that_replaces_a_device_names_signals_of_its_board(self) -> None:
        seen = 0
        for file in (DEMO / "boards").glob("*.board.json"):
            document = json.loads(file.read_text())
            signals = {pin.get("signal") for plug in document.get("connectors", ()) for pin in plug["pins"]}
            for part in document.get("kit", ()):
                self.assertLessEqual(set(part.get("replaces", ())), signals, file.name)
                seen += "replaces" in part
        self.assertGreaterEqual(seen, 3)
