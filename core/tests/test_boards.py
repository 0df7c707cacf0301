"""Several boards of one machine in one job."""

from datetime import UTC, datetime
from typing import Any, cast
from unittest.mock import patch

from django.test import SimpleTestCase
from hypothesis import given
from hypothesis import strategies as st

from tests.builders import encoded, small_board, small_family
from tests.test_replay import node
from twincore.chain import link
from twincore.errors import DocumentError, Refusal, WrongValue
from twincore.job import (
    EntryMade,
    State,
    board_in_hand,
    board_of,
    changed,
    empty_state,
    names_of,
    partings,
    replay,
    sheet_of,
    sheets,
    target_waits_for,
    turned,
    waiting_for,
)
from twincore.job.adding import declared, value_of
from twincore.job.case import Case
from twincore.job.given import Given
from twincore.job.rules.boards import OWN, own_part
from twincore.job.rules.order import still_forced
from twincore.job.shared.between import order_of_boards, wires_between
from twincore.job.shared.holds import points_of
from twincore.job.shared.wires import wiring_plan
from twincore.profile import Board, Family, parse_board, parse_family

AT = datetime(2026, 3, 2, 3, 0, tzinfo=UTC)
GIVEN = Given("Wennick Tarl", AT)
TWO = [("1", "board.2", {"title": "Drive board", "why": "shorted, and took the main board with it"})]
Said = tuple[str, str, Any]


def after(*said: Said, state: State | None = None, **adds: Any) -> State:
    """The state after these entries, each with the board it was said of."""
    found = state or empty_state()
    for number, (board, target, value) in enumerate(said, 1):
        found = changed(found, EntryMade(number, AT, "somebody", target, value, "", "", adds, board_of(target, board)))
    return found


class Sheets(SimpleTestCase):
    def test_each_board_has_its_own_and_the_machine_is_one(self) -> None:
        state = after(*TWO, ("1", "original", "A"), ("2", "original", "D"), ("2", "found.S1", "01"), ("2", "fact.model", {"value": "x", "source": "seen"}))  # fmt: skip
        self.assertEqual((state["original"], state["found"]), ("A", {}))
        drive = turned(state, "2")
        self.assertEqual((drive["original"], drive["found"], drive["board"]), ("D", {"S1": "01"}, "2"))
        self.assertEqual(drive["facts"], state["facts"])
        self.assertEqual(turned(drive, "1"), state)
        self.assertEqual(names_of(drive), ["1", "2"])
        # why it is changed along condemns it; the first one is still to be ruled out
        self.assertEqual(drive["confirmed"]["rule_out"]["end"], "condemned")
        self.assertEqual(state["confirmed"], {})
        with self.assertRaises(KeyError):
            turned(state, "3")

    def test_what_is_said_of_the_machine_reopens_on_every_board(self) -> None:
        done = [(board, f"confirmed.{step}", {"note": ""}) for board in "12" for step in ("carry_over", "fit", "prove")]
        state = after(*TWO, ("1", "confirmed.make_safe", {"note": ""}), *done)
        self.assertEqual([set(each["confirmed"]) >= {"make_safe", "fit"} for each in sheets(state)], [True, True])
        energised = after(("2", "energised", {"released": []}), state=state)
        for sheet in sheets(energised):
            self.assertEqual({"make_safe", "fit", "prove"} & set(sheet["confirmed"]), set())
        of_one = after(("2", "found.S1", "1"), state=state)
        self.assertIn("prove", of_one["confirmed"])
        self.assertNotIn("prove", turned(of_one, "2")["confirmed"])

    def test_another_board_in_one_place_sends_everybody_back_into_the_machine(self) -> None:
        state = after(*TWO, ("1", "energised", {"released": []}), *((b, "confirmed.fit", {"note": ""}) for b in "12"))
        again = after(("2", "replacement", "E"), state=state)
        self.assertIsNone(again["energised"])
        self.assertEqual([set(each["confirmed"]) & {"fit"} for each in sheets(again)], [set(), set()])

    def test_one_hand_over_waits_for_every_board_and_power_for_every_cause(self) -> None:
        proved = [("1", f"confirmed.{step}", {"note": ""}) for step in ("rule_out", "fit", "prove")]
        state = after(*TWO, ("1", "original", "A"), *proved)
        self.assertEqual(waiting_for(state, "hand_over"), ["boards"])
        state = after(("2", "confirmed.prove", {"note": ""}), state=state)
        self.assertEqual(waiting_for(state, "hand_over"), [])
        shorted = after(("2", "cause.surge", {"note": "", "cleared": False}), ("1", "confirmed.make_safe", {"note": ""}), state=state, blocks=True)  # fmt: skip
        self.assertEqual(target_waits_for(shorted, "energised"), ["cause"])
        forced = after(("2", "forced.x", {"what": "fan by hand", "off": False}), state=state)
        self.assertEqual(still_forced(forced), ["fan by hand"])

    def test_the_board_to_go_on_with_is_the_one_least_far(self) -> None:
        state = after(
            *TWO, ("1", "confirmed.rule_out", {"note": ""}), ("1", "original", "A"), ("1", "replacement", "B")
        )
        self.assertEqual(board_in_hand(state), "2")
        both = after(("2", "original", "D"), ("2", "replacement", "E"), state=state)
        self.assertEqual((board_in_hand(both), board_in_hand(both, ["2", "1"])), ("1", "2"))
        # one that only waits for power leaves the turn to the other
        self.assertEqual(board_in_hand(both, ["2", "1"], {"2"}), "1")
        # what only a living board tells is read before anybody locks the machine off
        told = after(("2", "original", "D"), state=both, powered=["P1"])
        told = after(("2", "replacement", "E"), state=told)
        self.assertEqual(board_in_hand(told), "2")

    def test_a_board_is_taken_out_with_its_sheet(self) -> None:
        state = after(*TWO, ("2", "original", "D"))
        self.assertEqual(after(("1", "board.2", None), state=state)["boards"], {})
        again = after(("1", "board.2", None), *TWO, state=state)
        self.assertIsNone(turned(again, "2")["original"])

    ENTRIES = st.lists(
        st.tuples(
            st.sampled_from("12"),
            st.sampled_from([
                ("found.S1", "01"), ("found.S1", None), ("wire.w", {"connector": "C1"}), ("override.S1", "1"),
                ("confirmed.record", {"note": ""}), ("confirmed.carry_over", {"note": ""}), ("confirmed.fit", {"note": "x"}),
                ("ticked.plug C1", True), ("readback.S1", {"value": "1"}), ("temporary.t", {"what": "bridge"}),
                ("fact.fuel", {"value": "gas", "source": "seen"}), ("fact.fuel", None), ("spent.minutes", 12),
                ("confirmed.make_safe", {"note": ""}), ("energised", {"released": []}),
            ]),
        ),
        max_size=24,
    )  # fmt: skip

    @given(ENTRIES)
    def test_a_sheet_is_what_a_job_of_that_board_alone_would_be(self, said: list[tuple[str, tuple[str, Any]]]) -> None:
        entries: list[Said] = [(board, target, value) for board, (target, value) in said]
        together = after(("1", "board.2", {"title": "Drive board"}), ("1", "report.code", "E4"), *entries)
        for name in "12":
            mine = [each for each in entries if (board_of(each[1], each[0]) == "1" and board_of(each[1], "2") == "1") or each[0] == name]  # fmt: skip
            alone = after(("1", "report.code", "E4"), *(("1", target, value) for _, target, value in mine))
            sheet = cast(dict[str, Any], turned(together, name))
            plain = cast(dict[str, Any], alone)
            for key in (*OWN, "facts", "spent", "report", "power"):
                self.assertEqual(_untimed(sheet[key]), _untimed(plain[key]), (name, key))
            self.assertEqual(set(sheet["confirmed"]), set(plain["confirmed"]))
        self.assertEqual(turned(turned(together, "2"), "1"), together)
        self.assertEqual(set(own_part(together)), {*OWN, "confirmed"})


def _untimed(value: Any) -> Any:
    """A part without the turns of its entries, which are others where others speak too."""
    return {k: _untimed(v) for k, v in value.items() if k != "n"} if isinstance(value, dict) else value


class Played(SimpleTestCase):
    ENTRIES = (
        node(1, "board.2", {"title": "Drive board"}),
        node(2, "original", "D", board="2", adds={"family": "drives", "powered": [], "remembered": [], "holds": []}),
        node(3, "found.S1", "01", board="2"),
    )

    def test_a_record_says_of_which_board_each_entry_speaks(self) -> None:
        found = replay(self.ENTRIES)
        self.assertEqual(turned(found.state, "2")["found"], {"S1": "01"})
        self.assertEqual(partings(self.ENTRIES, dict(found.state)), [])
        forged = {**found.state, "boards": {"2": {**found.state["boards"]["2"], "found": {"S1": "11"}}}}
        self.assertEqual([fault.place for fault in partings(self.ENTRIES, forged)], ["entries[2]"])
        sheet = sheet_of({"entries": self.ENTRIES})
        self.assertEqual((sheet["boards"]["2"]["title"], sheet["boards"]["2"]["step"]), ("Drive board", "rule_out"))

    def test_the_chain_covers_of_which_board_an_entry_speaks(self) -> None:
        plain = node(1, "found.S1", "01")
        digests = {link("", plain), link("", {**plain, "board": "2"}), link("", {**plain, "adds": {"board": "2"}})}
        self.assertEqual(len(digests), 3)

    def test_a_board_that_the_job_does_not_have_is_told(self) -> None:
        for wrong, place in (
            (node(1, "found.S1", "0", board="2"), "entries[0].board"), (node(1, "found.S1", "0", board="9"), "entries[0].board"),
            (node(1, "fact.fuel", {"value": "gas", "source": "seen"}, board="2"), "entries[0].board"),
        ):  # fmt: skip
            with self.subTest(wrong), self.assertRaises(DocumentError) as caught:
                replay([wrong])
            self.assertEqual(caught.exception.faults[0].place, place)


def family(name: str, *signals: tuple[str, str, str], **more: Any) -> Family:
    told = [{"id": each, "title": each, "kind": kind, "volts_class": volts} for each, kind, volts in signals]
    return parse_family(encoded({**small_family(signals=told, **more), "id": name}))


def board(number: str, of: str, pins: dict[str, str | None], **more: Any) -> Board:
    connectors = [{"id": "C1", "style": f"row {number}", "pins": [{"pin": pin, **({"signal": s} if s else {})} for pin, s in pins.items()]}]  # fmt: skip
    return parse_board(encoded({**small_board(None, number, connectors=connectors, **more), "family": of}))


MAIN = family(
    "ovens", ("run", "output", "24dc"), ("ready", "input", "24dc"), ("mains", "supply", "mains"),
    hold_points=[{"id": "i", "kind": "isolate"}, {"id": "d", "kind": "prove dead"}, {"id": "s", "kind": "static"}],
)  # fmt: skip
DRIVE = family(
    "drives", ("go", "input", "24dc"), ("stop", "input", "24dc"), ("ok", "output", "24dc"), ("feed", "output", "mains"),
    hold_points=[{"id": "off", "kind": "isolate"}, {"id": "turning", "kind": "moving"}],
)  # fmt: skip


def case(*said: Said, drive_holds: float = 300) -> Case:
    """A job on a main board and the drive board beside it, both recorded wire by wire."""
    wires: list[Said] = [
        ("1", "wire.a", {"connector": "C1", "pin": "1"}), ("1", "wire.b", {"connector": "C1", "pin": "2"}),
        ("2", "wire.c", {"connector": "C1", "pin": "1"}), ("2", "wire.d", {"connector": "C1", "pin": "3"}),
        ("2", "wire.e", {"connector": "C1", "pin": "4"}),
    ]  # fmt: skip
    state = after(*TWO, ("1", "original", "A"), ("2", "original", "D"), *wires, *said)
    pins = {"1": "run", "2": "ready", "3": "mains"}
    first = Case(
        state, family=MAIN, original=board("A", "ovens", pins, stored_energy={"wait_s": 5}),
        replacement=board("B", "ovens", {"7": "run", "8": "ready"}),
    )  # fmt: skip
    second = Case(
        turned(state, "2"), family=DRIVE,
        original=board("D", "drives", {"1": "go", "2": "stop", "3": "ok", "4": "feed"}, stored_energy={"wait_s": drive_holds}),
        replacement=board("E", "drives", {"5": "go", "6": "feed"}),
    )  # fmt: skip
    first.beside, second.beside = (second,), (first,)
    return first


def wire(one: str, other: str) -> dict[str, Any]:
    return {"one": {"board": "1", "place": one}, "other": {"board": "2", "place": other}}


class Machine(SimpleTestCase):
    def test_one_lock_off_with_every_kind_of_hold_point_and_the_longest_wait(self) -> None:
        for each in case().boards:
            points = points_of(each)
            self.assertEqual(
                [point.kind for point in points], ["isolate", "prove dead", "stored energy", "moving", "static"]
            )
            self.assertEqual([point.id for point in points][:2], ["i", "d"])
            self.assertEqual(points[2].wait_s, 300)
        self.assertEqual(points_of(case(drive_holds=2))[2].wait_s, 5)

    def test_what_drives_comes_before_what_it_drives(self) -> None:
        # the drive board came second, and drives the main board over more wires than the other way round
        self.assertEqual(order_of_boards(case()).boards, ("1", "2"))
        one = case(("1", "between.x", wire("C1.1", "C1.1")))
        self.assertEqual((order_of_boards(one).boards, dict(order_of_boards(one).drives)), (("1", "2"), {"1": {"2": ("C1.1",)}}))  # fmt: skip
        back = case(("1", "between.x", wire("C1.2", "C1.3")))
        self.assertEqual(order_of_boards(back).boards, ("2", "1"))
        both = case(("1", "between.x", wire("C1.2", "C1.3")), ("1", "between.y", wire("C1.1", "C1.1")))
        self.assertEqual((order_of_boards(both).boards, order_of_boards(both).drives), (("1", "2"), {}))
        said = case(("1", "boards_order", ["2", "1"]))
        self.assertEqual((order_of_boards(said).boards, order_of_boards(said).said), (("2", "1"), True))

    def test_wires_between_boards_are_followed_to_both_new_places(self) -> None:
        recorded = [(name, "confirmed.record", {"note": ""}) for name in "12"]
        (known,) = wires_between(case(("1", "between.x", wire("C1.1", "C1.1"))))
        self.assertEqual([side.new for side in known.sides], [None, None])
        (sound,) = wires_between(case(("1", "between.x", wire("C1.1", "C1.1")), *recorded))
        self.assertEqual(([side.new for side in sound.sides], sound.wrong), ([("C1.7",), ("C1.5",)], ()))
        # "ok" has no place on the new drive board: the other end would hang on nothing
        (cut,) = wires_between(case(("1", "between.x", wire("C1.2", "C1.3")), *recorded))
        self.assertEqual(([side.new for side in cut.sides], cut.wrong), ([("C1.8",), ()], ("cut at one end",)))
        for one, other, wrong in (
            ("C1.1", "C1.4", {"other voltage", "two drive it"}), ("C1.2", "C1.2", {"nothing drives it"}),
            ("C1.1", "C1.3", {"two drive it"}), ("C1", "C1", set()),
        ):  # fmt: skip
            with self.subTest(one=one, other=other):
                (found,) = wires_between(case(("1", "between.x", wire(one, other))))
                self.assertEqual(set(found.wrong), wrong)

    def test_each_board_is_planned_once_however_many_wires_go_between_them(self) -> None:
        """A defect: every wire worked out the wiring of both its boards anew, and so did every look at their order."""
        many = [("1", f"between.{n}", wire("C1.1", "C1.1")) for n in range(20)]
        here = case(*many, *((name, "confirmed.record", {"note": ""}) for name in "12"))
        with patch("twincore.job.shared.between.wiring_plan", wraps=wiring_plan) as planned:
            self.assertEqual({side.new for each in wires_between(here) for side in each.sides}, {("C1.7",), ("C1.5",)})
            self.assertEqual(planned.call_count, 2)
            order_of_boards(here)
            self.assertEqual(planned.call_count, 2)

    def test_ends_that_are_none_are_refused_with_what_is_expected(self) -> None:
        target = declared("between.x")
        assert target is not None
        name = "6e0f0b0e-0000-4000-8000-000000000001"
        for said, words in (
            (wire("C1.9", "C1.1"), "Main board has no C1.9"), (wire("C1", "C1.1"), "two pins, or two plugs"),
            ({**wire("C1", "C1"), "other": {"board": "1", "place": "C1"}}, "two boards"),
            ({**wire("C1", "C1"), "other": {"board": "3", "place": "C1"}}, "no board 3"),
        ):  # fmt: skip
            with self.subTest(words), self.assertRaisesRegex(WrongValue, words):
                value_of(case(), target, name, said, GIVEN)

    def test_boards_come_one_after_another_and_go_while_nothing_is_recorded(self) -> None:
        target = declared("board.2")
        assert target is not None
        at = case()
        with self.assertRaisesRegex(WrongValue, "Expected board 3"):
            value_of(at, target, "4", {"title": "Display"}, GIVEN)
        with self.assertRaisesRegex(WrongValue, "is called drive board"):
            value_of(at, target, "3", {"title": "drive board"}, GIVEN)
        self.assertEqual(value_of(at, target, "3", {"title": "Display"}, GIVEN), {"title": "Display"})
        with self.assertRaisesRegex(Refusal, "Something of Drive board is recorded"):
            value_of(at, target, "2", None, GIVEN)
        fresh = Case(after(*TWO))
        self.assertIsNone(value_of(fresh, target, "2", None, GIVEN))
        order = declared("boards_order")
        assert order is not None
        for wrong in (["1"], ["1", "1"], ["1", "2", "3"]):
            with self.subTest(wrong), self.assertRaises(WrongValue):
                value_of(fresh, order, "", wrong, GIVEN)
