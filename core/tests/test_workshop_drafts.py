"""A draft while it is worked on: always readable, every fault at its place, and what publishing it changes."""

import json
from contextlib import suppress
from typing import Any
from unittest import TestCase

from hypothesis import given, settings
from hypothesis import strategies as st

from tests.builders import DEMO, encoded
from twincore.errors import Refusal, WrongValue
from twincore.profile import Record, factory_record, parse_board, parse_trace
from twincore.workshop import (
    Draft,
    changes_between,
    document_bytes,
    edited,
    findings,
    meanings_from,
    merged_family,
    opened,
    taught_by,
    traces_against,
    usual_behaviour,
)

OVEN = "TVH-2210-B"


def demo_draft(part_number: str = OVEN) -> Draft:
    return opened(
        (DEMO / f"boards/{part_number}.board.json").read_bytes(), (DEMO / "families/deck-oven.family.json").read_bytes()
    )


def put(draft: Draft, path: str, after: Any) -> Draft:
    """The draft with something else at a place written as in a finding."""
    parts: list[str | int] = ["board"]
    for part in path.split("/"):
        parts.append(int(part) if part.isdigit() else part)
    return edited(draft, parts, draft.at(parts), after)


def places(draft: Draft, weight: str = "fault") -> list[str]:
    return [each.place for each in findings(draft) if each.weight == weight]


nodes = st.recursive(
    st.none() | st.booleans() | st.integers(-5, 400) | st.text(max_size=6),
    lambda inner: st.lists(inner, max_size=3) | st.dictionaries(st.sampled_from(["to", "if", "on", "go", "x"]), inner, max_size=3),
    max_leaves=6,
)  # fmt: skip


class Readable(TestCase):
    @settings(deadline=None, max_examples=50)
    @given(st.data())
    def test_random_edits_never_make_a_draft_unreadable(self, data: st.DataObject) -> None:
        draft = demo_draft()
        for _ in range(4):
            path: list[str | int] = ["board"]
            node: Any = draft.board
            for _ in range(data.draw(st.integers(1, 5))):
                if isinstance(node, dict):
                    path.append(data.draw(st.sampled_from([*node, "new"])))
                elif isinstance(node, list):
                    path.append(data.draw(st.integers(0, len(node))))
                node = draft.at(path)
            with suppress(Refusal, WrongValue):
                draft = edited(draft, path, draft.at(path), data.draw(nodes))
            draft.skeleton()
            draft.kind()
            findings(draft)
            self.assertEqual(opened(document_bytes(draft.board), document_bytes(draft.family)), draft)

    def test_a_draft_without_a_fault_is_a_board_that_can_be_read(self) -> None:
        draft = put(demo_draft(), "title", "Another title")
        self.assertEqual(places(draft), [])
        self.assertEqual(draft.whole().title, "Another title")

    def test_what_somebody_else_put_there_meanwhile_is_not_lost(self) -> None:
        draft = put(demo_draft(), "title", "Theirs")
        with self.assertRaises(Refusal):
            edited(draft, ["board", "title"], demo_draft().board["title"], "Mine")

    def test_what_it_is_a_draft_of_stays(self) -> None:
        for path in (["board", "part_number"], ["family", "id"], ["board"], ["elsewhere", "x"], []):
            with self.assertRaises(Refusal):
                edited(demo_draft(), path, demo_draft().at(path), "x")

    def test_what_a_document_cannot_hold_is_refused(self) -> None:
        deep: Any = 1
        for _ in range(100):
            deep = [deep]
        for after in (float("nan"), float("inf"), "half \ud800", {"x": [float("nan")]}, deep):
            with self.assertRaises(WrongValue):
                put(demo_draft(), "functions/purge.post/table/0/value", after)

    def test_settings_that_could_not_be_drawn_are_refused_whole(self) -> None:
        with self.assertRaises(WrongValue) as caught:
            put(demo_draft(), "settings/0/positions", 99)
        self.assertTrue(caught.exception.faults)


class Findings(TestCase):
    def test_every_fault_stands_at_its_place(self) -> None:
        draft = demo_draft()
        for path, after, place in (
            ("functions/purge.post/table/0/value", "a while", "functions.purge.post.table[0].value"),
            ("behaviour/states/standby/go/0/to", "nowhere", "behaviour.states.standby.go[0].to"),
            ("behaviour/states/standby/go/0/if", "moon full", "behaviour.states.standby.go[0].if"),
            ("charts/0/rows/0/set", {"S1": "0?1"}, "charts[0].rows[0].set.S1"),
            ("charts/0/rows/0/if", {"moon": "full"}, "charts[0].rows[0].if.moon"),
            ("charts/0/rows/0/if", {"fuel": "coal"}, "charts[0].rows[0].if.fuel"),
            ("charts/0/rows/0/if", {"made": {"from": 2005, "to": 2001}}, "charts[0].rows[0].if.made"),
            ("charts/0/rows/0/if", {"made": "lately"}, "charts[0].rows[0].if.made"),
            ("charts/0/rows/0/if", {"fuel": {"from": 1}}, "charts[0].rows[0].if.fuel"),
            ("charts/0/rows/0/if", {"damper.fitted": 7}, "charts[0].rows[0].if.damper.fitted"),
        ):  # fmt: skip
            with self.subTest(path, after=after):
                self.assertIn(place, places(put(draft, path, after)))

    def test_rows_that_contradict_each_other_and_rows_that_are_not_needed(self) -> None:
        rows = [
            {"if": {"model": "DK1"}, "set": {"S1": "1-----"}},
            {"if": {"model": "DK1", "made": {"from": 2001}}, "set": {"S1": "0-----"}},
            {"if": {"model": "DK2", "made": {"to": 2000}}, "set": {"S1": "0-----"}},
            {"if": {"model": "DK2", "made": {"to": 2000}}, "set": {"S1": "0-----"}},
            {"if": {"model": ["DK3", "DK4"]}, "set": {"S1": "-1----"}},
            {"if": {"model": "DK4"}, "set": {"S1": "-----1"}},
        ]  # fmt: skip
        draft = put(demo_draft(), "charts/0/rows", rows)
        self.assertEqual(places(draft), ["charts[0].rows[1]"])
        self.assertEqual(places(draft, "note"), ["charts[0].rows[3]"])

    def test_one_row_unlike_its_neighbours_is_asked_about(self) -> None:
        def row(model: str, fuel: str, s1: str) -> dict[str, Any]:
            return {"if": {"model": model, "fuel": fuel}, "set": {"S1": s1}}

        same = [row(model, fuel, "--00--") for model in ("DK1", "DK2", "DK3") for fuel in ("gas", "oil")]
        self.assertEqual(places(put(demo_draft(), "charts/0/rows", same), "note"), [])
        misprint = [*same[:3], row("DK2", "oil", "--11--"), *same[4:]]
        self.assertEqual(places(put(demo_draft(), "charts/0/rows", misprint), "note"), ["charts[0].rows[3].set"])
        # a model that is otherwise for both fuels is no misprint
        reason = [*same[:2], row("DK2", "gas", "--11--"), row("DK2", "oil", "--11--"), *same[4:]]
        self.assertEqual(places(put(demo_draft(), "charts/0/rows", reason), "note"), [])

    def test_states_without_a_way_in_or_out_and_arrows_never_taken(self) -> None:
        draft = demo_draft()
        states = dict(draft.board["behaviour"]["states"])
        first = next(iter(states))
        arrow = states[first]["go"][0]
        states[first] = {
            **states[first],
            "go": [*states[first]["go"], {**arrow, "if": {**arrow["if"], "limit_ok": True}}],
        }
        states["island"] = {"on": [], "go": []}
        found = findings(put(draft, "behaviour/states", states))
        told = {(each.place, each.says.split(":")[0]) for each in found}
        self.assertIn((f"behaviour.states.{first}.go[{len(states[first]['go']) - 1}]", "never taken"), told)
        self.assertIn(("behaviour.states.island", "no arrow leads to this state"), told)
        self.assertIn(("behaviour.states.island", "no arrow leads out of this state"), told)
        self.assertEqual({each.weight for each in found}, {"note"})

    def test_a_round_without_end_says_what_makes_it(self) -> None:
        draft = opened(
            encoded({
                "format": "worthy-twin/board", "version": 1, "part_number": "R", "maker": "m", "title": "t",
                "family": "small", "status": "current", "settings": [], "functions": {},
                "behaviour": {"start": "s", "states": {
                    "s": {"go": [{"to": "t", "if": {"a": True}}]}, "t": {"go": [{"to": "s", "if": {"b": False}}]}}},
            }),
            encoded({
                "format": "worthy-twin/family", "version": 1, "id": "small",
                "inputs": [{"id": name} for name in ("power", "a", "b")], "outputs": [{"id": "x"}], "functions": [],
            }),
        )  # fmt: skip
        self.assertRegex(findings(draft)[0].says, r"^goes round (s > t|t > s) without end once a on$")


class Changes(TestCase):
    def test_what_changes_is_told_function_by_function_and_by_a_counter_case(self) -> None:
        draft = demo_draft()
        old = draft.whole()
        table = draft.board["functions"]["purge.post"]["table"]
        longer = [{**row, "value": row["value"] + 30} for row in table]
        new = put(draft, "functions/purge.post/table", longer).whole()
        found = changes_between(old, new, draft.kind())
        changed = {each.id: each for each in found.functions if each.how != "same"}
        self.assertEqual(list(changed), ["purge.post"])
        self.assertEqual(changed["purge.post"].count, len(table))
        for moved in changed["purge.post"].moved:
            self.assertEqual((moved.becomes, moved.at), (moved.was + 30, dict(moved.at)))  # type: ignore[operator]
        assert found.proof is not None and found.proof.counter_case is not None
        self.assertEqual(found.proof.verdict, "different")
        self.assertFalse(changes_between(old, old, draft.kind()).any)

    def test_the_same_meaning_written_otherwise_is_no_change(self) -> None:
        draft = demo_draft()
        table = list(reversed(draft.board["functions"]["purge.post"]["table"]))
        found = changes_between(draft.whole(), put(draft, "functions/purge.post/table", table).whole(), draft.kind())
        self.assertEqual({each.how for each in found.functions}, {"same"})

    def test_a_setting_that_is_gone_or_new_is_told(self) -> None:
        draft = demo_draft()
        new = put(draft, "settings/1", {"id": "J9", "kind": "jumper", "values": ["A", "B"], "factory": "A"}).whole()
        self.assertEqual(dict(changes_between(draft.whole(), new, draft.kind()).elements), {"S1": "same", "J9": "new"})

    def test_what_was_timed_is_held_against_the_draft(self) -> None:
        draft = demo_draft()
        board, family = draft.whole(), draft.kind()
        trace = parse_trace(encoded({
            "format": "worthy-twin/trace", "version": 1, "part_number": OVEN, "until": 20,
            "steps": [{"at": 1, "set": {"call": True}}], "seen": [{"at": 1, "output": "fan", "on": True, "within_s": 1}],
        }), family)  # fmt: skip
        states = {**draft.board["behaviour"]["states"]}
        stuck = put(draft, "behaviour/states/standby", {**states["standby"], "go": []}).whole()
        timed = {"run": (trace, factory_record(board))}
        checked = traces_against(board, family, timed)["run"], traces_against(stuck, family, timed)["run"]
        self.assertEqual([each.agrees for each in checked if each], [True, False])
        unknown = Record(OVEN, dict.fromkeys(board.points))
        self.assertIsNone(traces_against(board, family, {"run": (trace, unknown)})["run"])


class Uses(TestCase):
    def test_places_that_jobs_could_not_read_and_positions_that_mean_nothing_are_told(self) -> None:
        draft = put(
            demo_draft(), "functions/purge.post/table", demo_draft().board["functions"]["purge.post"]["table"][:1]
        )
        board, family = draft.whole(), draft.kind()
        found = [{"S1": "0?1100"}, {"S1": "00?100"}, {"S1": "0?1100", "gone": 7}, {}, {"S1": "too long a text"}]
        told = [(each.of, each.what, each.jobs) for each in taught_by(board, family, found)]
        # S1.3 and S1.4 give post-purge: of its four rows only the one for off and off is left
        self.assertEqual(told, [("purge.post", "means nothing", 3), ("S1.2", "unread", 2), ("S1.3", "unread", 1)])


class Borrowed(TestCase):
    def test_meanings_of_a_sibling_come_along_where_they_fit(self) -> None:
        draft = demo_draft()
        bare = put(put(put(draft, "behaviour", None), "functions", {}), "charts", None)
        sibling = json.loads((DEMO / "boards/TVH-2210-C.board.json").read_bytes())
        functions, left = meanings_from(bare, sibling)
        self.assertEqual((set(functions), left), (set(sibling["functions"]), []))
        stranger = json.loads((DEMO / "boards/TVH-2420-A.board.json").read_bytes())
        functions, left = meanings_from(bare, stranger)
        self.assertTrue(left)
        self.assertEqual(places(put(bare, "functions", functions)), [])

    def test_the_usual_behaviour_is_what_most_boards_share(self) -> None:
        def board(number: str, states: dict[str, Any]) -> Any:
            return parse_board(encoded({
                "format": "worthy-twin/board", "version": 1, "part_number": number, "maker": "m", "title": "t",
                "family": "f", "status": "current", "settings": [], "functions": {},
                "behaviour": {"start": "s", "states": states},
            }))  # fmt: skip

        found = usual_behaviour([board("A", {"s": {"on": []}}), board("B", {"s": {}}), board("C", {"s": {"on": []}})])
        assert found is not None
        self.assertEqual(found[1], ["A", "C"])
        self.assertIsNone(usual_behaviour([]))


class Kinds(TestCase):
    def test_what_two_drafts_add_to_a_kind_stands_side_by_side(self) -> None:
        base = {"id": "f", "functions": [{"id": "a", "x": 1}]}
        mine = {**base, "functions": [*base["functions"], {"id": "b"}]}
        theirs = {**base, "functions": [*base["functions"], {"id": "c"}], "title": "T"}
        merged = merged_family(base, mine, theirs)
        self.assertEqual([each["id"] for each in merged["functions"]], ["a", "c", "b"])
        self.assertEqual(merged["title"], "T")
        both = merged_family(base, {**base, "functions": [*base["functions"], {"id": "c", "x": 9}]}, theirs)
        self.assertEqual(both["functions"], theirs["functions"])
        with self.assertRaises(Refusal):
            merged_family(
                base, {**base, "functions": [{"id": "a", "x": 2}]}, {**base, "functions": [{"id": "a", "x": 3}]}
            )
