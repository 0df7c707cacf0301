"""What people write in the workshop's tables, against what the documents then say."""

import json
from collections.abc import Iterator
from unittest import TestCase

from hypothesis import given
from hypothesis import strategies as st

from tests.builders import DEMO
from twincore.errors import WrongValue
from twincore.profile import FunctionDef, Point
from twincore.profile.document import jsonable
from twincore.profile.faults import FaultList
from twincore.profile.functions import build_function, same_meaning
from twincore.workshop import (
    Column,
    Draft,
    cells_of,
    chart_node,
    columns_of,
    elements_of,
    filled_by_rule,
    grid_of,
    guessed_columns,
    names_of,
    new_fact,
    node_of,
    on_ways,
    opened,
    read_condition,
    read_position,
    read_seconds,
    read_value,
    renamed,
    same_json,
    state_cells,
    state_node,
    value_text,
)


def demo_drafts() -> Iterator[Draft]:
    families = {path.name.split(".")[0]: path.read_bytes() for path in (DEMO / "families").glob("*.json")}
    for path in sorted((DEMO / "boards").glob("*.json")):
        data = path.read_bytes()
        yield opened(data, families[json.loads(data)["family"]])


def function(kind: str, unit: str = "", choices: tuple[str, ...] = ()) -> FunctionDef:
    return FunctionDef("f", "F", kind, unit, choices, "behaviour", 0, 0, None)


class Writings(TestCase):
    """Common practice, no source."""

    def test_durations_are_read_as_leaflets_write_them(self) -> None:
        for text, seconds in (
            ("90", 90), ("90 s", 90), ("90s", 90), ("1:30", 90), ("1 min 30", 90), ("1 min 30 s", 90), ("1.5 min", 90),
            ("1,5 min", 90), ("2 h", 7200), ("1 h 30", 5400), ("1:00:00", 3600), ("0", 0), ("1 h 2 min 3 s", 3723),
            ("", None), ("soon", None), ("30 s 1 min", None), ("1:75", None), ("5 bar", None), ("-3", None), ("9" * 30, None), ("999999999 h", None),
        ):  # fmt: skip
            with self.subTest(text):
                self.assertEqual(read_seconds(text), seconds)

    def test_other_values_by_their_kind(self) -> None:
        self.assertEqual(read_value("ON", function("flag")), True)
        self.assertEqual(read_value("○", function("flag")), False)
        self.assertEqual(read_value("Man", function("choice", choices=("auto", "manual"))), "manual")
        self.assertIsNone(read_value("m", function("choice", choices=("manual", "mixed"))))
        self.assertEqual(read_value("4,5 bar", function("number", "bar")), read_value("4.5", function("number")))
        self.assertIsNone(read_value("2.5", function("count")))

    def test_positions_by_where_on_is(self) -> None:
        switch = Point("S1.1", ("off", "on"), "off", False)
        self.assertEqual(
            [read_position(text, switch, "up") for text in ("1", "●", "up", "down", "open", "closed", "x", "left")],
            ["on", "on", "on", "off", "off", "on", "on", "off"],
        )
        self.assertIsNone(read_position("up", switch))
        jumper = Point("J1", ("open", "1-2", "2-3"), "open", False)
        self.assertEqual([read_position(text, jumper) for text in ("1-2", "Open", "2-4")], ["1-2", "open", None])
        number = Point("P1", (0, 5, 10), 0, False)
        self.assertEqual([read_position(text, number) for text in ("5", "6")], [5, None])

    @given(st.integers(0, 10**9 // 3600), st.sampled_from([1, 60, 3600]))
    def test_what_a_cell_shows_is_read_as_the_same(self, number: int, weight: int) -> None:
        self.assertEqual(read_seconds(value_text(number * weight)), number * weight)
        unit = {1: "s", 60: "min", 3600: "h"}[weight]
        self.assertEqual(read_seconds(f"{number} {unit}"), number * weight)


class Grids(TestCase):
    def test_every_meaning_of_the_demo_world_survives_its_grid(self) -> None:
        grids = 0
        for draft in demo_drafts():
            board, family = draft.whole(), draft.kind()
            for name, node in board.document["functions"].items():
                definition = family.function(name)
                assert definition is not None
                grid = grid_of(definition, node, board.points)
                if not grid.cells:
                    continue
                again = node_of(definition, grid.points, [each.text for each in grid.cells], board.points)
                read = build_function(name, again, board.elements, board.points, "", FaultList())
                self.assertTrue(same_meaning(read, board.functions[name], board.points), (board.part_number, name))
                grids += 1
        self.assertGreater(grids, 200)

    def test_a_cell_that_cannot_be_read_stays_and_is_wrong_in_its_place(self) -> None:
        points = {name: Point(name, ("off", "on"), "off", False) for name in ("S1.1", "S1.2")}
        node = node_of(function("duration", "s"), ["S1.1", "S1.2"], ["15", "a while", "", "1 min"], points)
        grid = grid_of(function("duration", "s"), jsonable(node), points)
        self.assertEqual([each.text for each in grid.cells], ["15", "a while", "", "60"])
        self.assertEqual([bool(each.wrong) for each in grid.cells], [False, True, False, False])
        self.assertEqual(grid.notes, ("1 of 4 rows are empty: positions that nobody may set",))

    def test_a_rule_fills_a_grid_by_equal_steps(self) -> None:
        self.assertEqual(filled_by_rule(4, 0, 15), ["0", "15", "30", "45"])

    def test_a_grid_that_does_not_fit_is_refused(self) -> None:
        points = {"S1.1": Point("S1.1", ("off", "on"), "off", False)}
        for scope, cells in ((["S9.1"], ["1"]), (["S1.1"], ["1"])):
            with self.assertRaises(WrongValue):
                node_of(function("count"), scope, cells, points)
        self.assertIsNone(node_of(function("count"), ["S1.1"], ["", " "], points))

    def test_choices_that_no_position_gives_are_noted(self) -> None:
        points = {"S1.1": Point("S1.1", ("off", "on"), "off", False)}
        choice = function("choice", choices=("auto", "manual"))
        node = jsonable(node_of(choice, ["S1.1"], ["auto", "a"], points))
        self.assertEqual(grid_of(choice, node, points).notes, ("no position gives manual",))


class Charts(TestCase):
    def setUp(self) -> None:
        self.draft = next(each for each in demo_drafts() if each.board["part_number"] == "TVH-2210-B")
        self.elements = elements_of(self.draft.skeleton())

    def node(self, columns: list[Column], rows: list[list[str]]) -> dict[str, object]:
        made = chart_node({"id": "x"}, columns, rows, self.draft.kind(), self.elements, on_ways(self.draft.skeleton()))
        return dict(jsonable(made))

    def test_every_chart_of_the_demo_world_survives_its_cells(self) -> None:
        charts = 0
        for draft in demo_drafts():
            board = draft.skeleton()
            for chart in draft.board.get("charts", ()):
                columns = columns_of(chart, {})
                made = chart_node(
                    chart, columns, cells_of(chart, columns), draft.kind(), elements_of(board), on_ways(board)
                )
                made.pop("columns")
                self.assertTrue(same_json(jsonable(made), chart), board.part_number)
                charts += 1
        self.assertGreater(charts, 1)

    def test_cells_are_read_as_leaflets_print_them_and_shown_again(self) -> None:
        columns = [Column("Model", "fact", "model"), Column("Year", "fact", "made"), Column("S1", "set", "S1"),
                   Column("Kit", "use"), Column("Remarks", "note")]  # fmt: skip
        places = len(self.elements["S1"].points)
        rows = [
            ["DK2", "2001–2005", "● ○ -" + " -" * (places - 3), "adapter E, screws", "see page 2"],
            ["DK2, DK3", "from 2006", "1" * places, "", ""],
            ["any", "to 2000", "0" * places, "", ""],
        ]
        node = self.node(columns, rows)
        self.assertEqual(
            node["rows"],
            [
                {"if": {"model": "DK2", "made": {"from": 2001, "to": 2005}}, "set": {"S1": "10" + "-" * (places - 2)},
                 "use": ["adapter E", "screws"], "notes": {"Remarks": "see page 2"}},
                {"if": {"model": ["DK2", "DK3"], "made": {"from": 2006}}, "set": {"S1": "1" * places}},
                {"if": {"made": {"to": 2000}}, "set": {"S1": "0" * places}},
            ],
        )  # fmt: skip
        shown = cells_of(node, columns_of(node, {}))
        self.assertTrue(same_json(self.node(columns, shown)["rows"], node["rows"]))

    def test_a_column_for_every_switch_makes_one_bank(self) -> None:
        columns = [Column("1", "set", "S1.1"), Column("3", "set", "S1.3")]
        node = self.node(columns, [["on", "off"], ["", "●"], ["maybe", "off"]])
        places = len(self.elements["S1"].points)
        self.assertEqual(node["rows"][0]["set"], {"S1": "1-0" + "-" * (places - 3)})  # type: ignore[index]
        self.assertEqual(node["rows"][2]["set"]["S1.1"], "maybe")  # type: ignore[index]
        self.assertEqual(cells_of(node, columns), [["1", "0"], ["", "1"], ["maybe", "0"]])

    def test_columns_are_guessed_from_their_headings(self) -> None:
        found = guessed_columns(
            ["Model", "Year of make", "Replaces", "sl", "Adapter", "Remarks"], [], self.draft.kind(), self.elements
        )
        self.assertEqual(
            [(each.role, each.name) for each in found],
            [("fact", "model"), ("fact", "made"), ("fact", "original"), ("set", "S1"), ("use", ""), ("note", "")],
        )

    def test_columns_are_told_by_what_stands_in_them_where_the_heading_does_not_say(self) -> None:
        rows = [
            ["big", "electric", "010110", "x"],
            ["small", "steam", "011110", ""],
            ["big", "steam", "010010", "see 4"],
        ]
        found = guessed_columns(["Hood", "Heating", "?", "??"], rows, self.draft.kind(), self.elements)
        self.assertEqual(
            [(each.role, each.name) for each in found], [("fact", ""), ("fact", ""), ("set", "S1"), ("note", "")]
        )

    def test_a_fact_that_nobody_named_is_made_of_its_column(self) -> None:
        self.assertEqual(
            new_fact("Heating", ["electric", "steam", "electric", "steam"], {"heating"}),
            {"id": "heating.2", "title": "Heating", "choices": ["electric", "steam"]},
        )
        self.assertEqual(
            new_fact("Year", ["2001–2004", "1999"], set()), {"id": "year", "title": "Year", "number": True}
        )
        self.assertEqual(new_fact("Hood", ["yes", "no"], set()), {"id": "hood", "title": "Hood", "flag": True})
        self.assertEqual(new_fact("Name", ["a", "b", "c"], set()), {"id": "name", "title": "Name"})

    def test_every_remark_stays_in_its_own_column(self) -> None:
        columns = [Column("Seen", "note"), Column("S1", "set", "S1"), Column("By", "note")]
        node = self.node(columns, [["on a door", "010110", "Corm"], ["", "011110", "Ildro"]])
        self.assertEqual(cells_of(node, columns), [["on a door", "010110", "Corm"], ["", "011110", "Ildro"]])

    def test_conditions_on_facts(self) -> None:
        number, flag = {"id": "made", "title": "Year", "number": True}, {"id": "d", "title": "D", "flag": True}
        self.assertEqual(read_condition("2001-2005", number), {"from": 2001, "to": 2005})
        self.assertEqual(read_condition("2006 on", number), {"from": 2006})
        self.assertEqual(read_condition("until 2000", number), {"to": 2000})
        self.assertEqual(read_condition("2003", number), 2003)
        self.assertEqual(read_condition("yes", flag), True)
        self.assertEqual(read_condition("perhaps", flag), "perhaps")
        self.assertEqual(
            read_condition("GAS", {"id": "fuel", "title": "Fuel", "choices": ["gas", "oil"]}), "gas"
        )  # fmt: skip


class Sentences(TestCase):
    def test_every_state_of_the_demo_world_survives_its_cells(self) -> None:
        states = 0
        for draft in demo_drafts():
            behaviour = draft.board.get("behaviour", {"states": {}})
            names = names_of(draft.kind(), tuple(behaviour.get("internal", ())))
            for machine in behaviour.get("machines", [behaviour]):
                for name, state in machine["states"].items():
                    again = state_node(state_cells(name, state), state, names)
                    self.assertTrue(same_json(jsonable(again), {"on": [], "go": [], **state}), (draft.board, name))
                    states += 1
        self.assertGreater(states, 200)

    def test_titles_may_be_written_and_what_cannot_be_read_stays(self) -> None:
        family = next(demo_drafts()).kind()
        names = names_of(family)
        inputs, outputs = family.document["inputs"], family.document["outputs"]
        cells = state_cells("s", {"on": [outputs[0]["id"]], "go": [{"to": "t", "if": {inputs[0]["id"]: True}}]})
        written = type(cells)("s", "", outputs[0]["title"], (type(cells.arrows[0])("t", f"{inputs[0]['title']} on"),))
        self.assertTrue(same_json(state_node(written, {}, names), state_node(cells, {}, names)))
        odd = type(cells)("s", "", "smoke", (type(cells.arrows[0])("t", "moon full", "a bit", "luck good", "dance"),))
        node = state_node(odd, {}, names)
        self.assertEqual(node["on"], "smoke")
        self.assertEqual(state_cells("s", node), odd)

    def test_a_state_with_another_name_keeps_its_place_and_its_arrows(self) -> None:
        machine = {
            "start": "a",
            "survive_power_loss": ["a"],
            "states": {"a": {"go": [{"to": "b"}]}, "b": {"go": [{"to": "a"}]}},
        }
        self.assertEqual(
            renamed(machine, "a", "c"),
            {"start": "c", "survive_power_loss": ["c"],
             "states": {"c": {"go": [{"to": "b"}]}, "b": {"go": [{"to": "c"}]}}},
        )  # fmt: skip
        self.assertEqual(list(renamed(machine, "b", "d")["states"]), ["a", "d"])
