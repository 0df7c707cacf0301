"""Board: one control board: its settable points, what they mean, and how it behaves."""

from collections.abc import Mapping
from dataclasses import dataclass, field
from typing import TYPE_CHECKING, Any, cast

from twincore.measure import is_designation
from twincore.profile.behaviour import Behaviour, build_behaviour
from twincore.profile.document import open_document
from twincore.profile.elements import Element, Point, build_element
from twincore.profile.extras import check_extras
from twincore.profile.facts import ORIGINAL
from twincore.profile.faults import FaultList, known
from twincore.profile.functions import FunctionMap, build_function

if TYPE_CHECKING:  # types alone: a browser need not make them
    from twincore.profile.documents import BoardDocument

MOST_POINTS = 400


@dataclass(frozen=True, slots=True)
class TableRow:
    """One row of a setting table: the conditions on facts, the positions as written, the parts that it says are used with it,
    and what it notes besides, by the heading that it stands under.
    """

    conditions: dict[str, Any]
    positions: dict[str, Any]
    use: tuple[str, ...] = ()
    notes: Mapping[str, str] = field(default_factory=dict)


@dataclass(frozen=True, slots=True)
class Chart:
    """A setting table: what to set for a machine, row by row."""

    id: str
    title: str
    rows: tuple[TableRow, ...]
    page: str = ""
    """Where it stands in the data sheet, as somebody wrote it down."""


@dataclass(frozen=True, slots=True)
class Board:
    """A checked board; `document` keeps what only drawings and lists use."""

    part_number: str
    also_marked: tuple[str, ...]
    maker: str
    title: str
    family: str
    settings_layout: str | None
    status: str
    elements: tuple[Element, ...]
    points: dict[str, Point]
    functions: dict[str, FunctionMap]
    behaviour: Behaviour | None
    charts: tuple[Chart, ...]
    document: "BoardDocument"

    @property
    def meanings_known(self) -> bool:
        """Whether anybody wrote down what its positions mean; without that they cannot be solved for."""
        return bool(self.functions) or not self.points


def parse_board(data: bytes) -> Board:
    """Read a board document. Raises DocumentError with every fault and its place.

    What needs the family (names of inputs, outputs and functions) is checked by `check_board_in_family`.
    """
    root = open_document(data, "board").root
    faults = FaultList()
    built = [build_element(node, f"settings[{index}]", faults) for index, node in enumerate(root["settings"])]
    faults.done()
    elements = tuple(element for element in built if element)
    names = [point.id for element in elements for point in element.points]
    faults.unique([node["id"] for node in root["settings"]], "settings[{}].id", "name")
    if len(set(names)) != len(names) or len(names) > MOST_POINTS:
        faults.add("settings", f"expected at most {MOST_POINTS} points, each with a name of its own")
    points = {point.id: point for element in elements for point in element.points}
    functions = {
        name: build_function(name, node, elements, points, f"functions.{name}", faults)
        for name, node in root["functions"].items()
    }
    behaviour = build_behaviour(root["behaviour"], "behaviour", faults) if "behaviour" in root else None
    charts = _charts(root.get("charts", []), elements, faults)
    _check_lists(root, faults)
    check_extras(root, {element.id: element for element in elements}, points, faults)
    faults.done()
    return Board(
        part_number=root["part_number"],
        also_marked=tuple(root.get("also_marked", ())),
        maker=root["maker"],
        title=root["title"],
        family=root["family"],
        settings_layout=root.get("settings_layout"),
        status=root["status"],
        elements=elements,
        points=points,
        functions=functions,
        behaviour=behaviour,
        charts=charts,
        document=cast("BoardDocument", root),
    )


def _charts(nodes: list[dict[str, Any]], elements: tuple[Element, ...], faults: FaultList) -> tuple[Chart, ...]:
    by_id = {element.id: element for element in elements}
    for index, node in enumerate(nodes):
        for row_index, row in enumerate(node["rows"]):
            for name, written in row["set"].items():
                place = f"charts[{index}].rows[{row_index}].set.{name}"
                element = by_id.get(name)
                if element is None:
                    faults.add(place, f"expected an element of this board ({known(by_id)})")
                elif not _chart_sets(element, written):
                    faults.add(place, f"expected {_chart_wanted(element)}")
    return tuple(
        Chart(
            node["id"],
            node.get("title", node["id"]),
            tuple(
                TableRow(_meant_for(node) | row["if"], row["set"], tuple(row.get("use", ())), _noted(row))
                for row in node["rows"]
            ),
            node.get("page", ""),
        )
        for node in nodes
    )


def _noted(row: dict[str, Any]) -> dict[str, str]:
    """What a row notes; a note of another form than text under a heading is nobody's to read."""
    notes = row.get("notes")
    return {name: text for name, text in notes.items() if isinstance(text, str)} if isinstance(notes, dict) else {}


def _meant_for(node: dict[str, Any]) -> dict[str, Any]:
    """What a whole chart is for, as conditions: `replaces` speaks of the board that is replaced."""
    return {
        ORIGINAL if name == "replaces" else name: each for name, each in node.get("for", {}).items() if name != "notes"
    }


def _chart_sets(element: Element, written: Any) -> bool:
    if element.placed:
        allowed = {*element.symbols(), "-"}
        return isinstance(written, str) and len(written) == len(element.points) and set(written) <= allowed
    return written == "-" or written in element.points[0].domain


def _chart_wanted(element: Element) -> str:
    """What a chart may set an element to, in words."""
    if element.placed:
        return f"{len(element.points)} places of {known(element.symbols())}, or - for one left open"
    return f"{element.wanted()}, or - to leave it open"


def _check_lists(root: dict[str, Any], faults: FaultList) -> None:
    made = root.get("made", {})
    if made.get("to", 9999) < made.get("from", 0):
        faults.add("made.to", "expected a year not before made.from")
    for name in ("connectors", "relays", "charts", "moves"):
        faults.unique([each["id"] for each in root.get(name, ())], f"{name}[{{}}].id", "name")
    supply = root.get("supply", {}).get("volts")
    if supply and supply[1] < supply[0]:
        faults.add("supply.volts[1]", f"expected at least {float(supply[0]):g}")
    for name, band in root.get("surroundings", {}).items():
        if name != "notes" and band[1] < band[0]:
            faults.add(f"surroundings.{name}[1]", f"expected at least {float(band[0]):g}")
    for index, relay in enumerate(root.get("relays", ())):
        if "rating" in relay and not is_designation(relay["rating"]):
            faults.add(f"relays[{index}].rating", f'expected a designation such as "B300", found "{relay["rating"]}"')
    for index, each in enumerate(root.get("accepts", ())):
        if ("one_of" in each) == ("between" in each):
            faults.add(f"accepts[{index}]", 'expected either "one_of" or "between"')
