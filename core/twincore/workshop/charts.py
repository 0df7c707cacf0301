"""Charts as a leaflet prints them: columns with a heading, each of them a fact, a position or a remark, and rows of cells."""

import re
from collections.abc import Collection, Mapping, Sequence
from dataclasses import dataclass
from typing import Any, Literal

from twincore.profile import KINDS, Element, Family, Point
from twincore.profile.facts import ORIGINAL
from twincore.recognise import without_look_alikes
from twincore.workshop.values import LEFT_OPEN, read_flag, read_number, read_position, value_text

Role = Literal["fact", "set", "use", "note"]
"""A fact of the machine, positions of an element or point, parts of the kit to use, a remark."""
RANGE = re.compile(r"(\d+(?:[.,]\d+)?)\s*(?:-|–|—|to|\.\.)\s*(\d+(?:[.,]\d+)?)")
BEFORE = re.compile(r"(?:to|until|up to|-|–|≤)\s*(\d+(?:[.,]\d+)?)")
AFTER = re.compile(r"(?:from|since|≥)\s*(\d+(?:[.,]\d+)?)|(\d+(?:[.,]\d+)?)\s*(?:-|–|on|\+|and later|onwards)")
MOST_CHOICES = 12


@dataclass(frozen=True, slots=True)
class Column:
    """A column: what stands above it, what it is, and of what (a fact's, element's or point's name)."""

    heading: str
    role: Role
    name: str = ""


def columns_of(chart: Mapping[str, Any], titles: Mapping[str, str]) -> list[Column]:
    """The columns of a chart: as the leaflet has them, else in the order in which its rows name things.

    `titles` are what the facts of the kind of machine are called.
    """
    if "columns" in chart:
        return [Column(each["heading"], each["role"], each.get("name", "")) for each in chart["columns"]]
    facts = dict.fromkeys(name for row in chart["rows"] for name in row.get("if", {}))
    sets = dict.fromkeys(name for row in chart["rows"] for name in row.get("set", {}))
    found = [Column(titles.get(name, name), "fact", name) for name in facts] + [
        Column(name, "set", name) for name in sets
    ]
    if any(row.get("use") for row in chart["rows"]):
        found.append(Column("Parts", "use"))
    return found


def cells_of(chart: Mapping[str, Any], columns: Sequence[Column]) -> list[list[str]]:
    """The cells of a chart, a list a row."""
    return [[_text(row, column) for column in columns] for row in chart["rows"]]


def chart_node(
    chart: Mapping[str, Any], columns: Sequence[Column], cells: Sequence[Sequence[str]], family: Family,
    elements: Mapping[str, Element], on_ways: Mapping[str, str],
) -> dict[str, Any]:  # fmt: skip
    """What typed cells are in a board document; a cell that cannot be read stays as it was typed.

    Rows that are empty at the end are left out; `chart` is what the chart is so far, for all that has no column.
    """
    facts = {each["id"]: each for each in family.document.get("facts", ())}
    rows = [_row(columns, row, facts, elements, on_ways) for row in cells]
    while rows and rows[-1] == {"if": {}, "set": {}}:
        rows.pop()
    headed = [
        {"heading": each.heading, "role": each.role, **({"name": each.name} if each.name else {})} for each in columns
    ]
    return {**chart, "columns": headed, "rows": rows}


def guessed_columns(
    headings: Sequence[str], rows: Sequence[Sequence[str]], family: Family, elements: Mapping[str, Element]
) -> list[Column]:
    """What columns are, by their headings and by what stands in them: to be corrected by whoever looks.

    An element or point, a fact of the kind of machine, parts to use, or a remark. A fact that the kind does not have
    yet has no name: such are columns before the first that sets something. A heading that says nothing is told by its
    cells where they are as long as the only bank.
    """
    points = {point.id.lower(): point.id for each in elements.values() for point in each.points}
    names = {name.lower(): name for name in elements}
    facts = {str(each["title"]).lower(): each["id"] for each in family.document.get("facts", ())}
    facts |= {each["id"].lower(): each["id"] for each in family.document.get("facts", ())}
    for kind in KINDS.values():
        alone = [each.id for each in elements.values() if each.kind == kind.name]
        if len(alone) == 1:
            names |= {word: alone[0] for word in kind.chart_words if word not in names}
    found = [_guess(each, points, names, facts) for each in headings]
    found = [_by_cells(each, [row[i] for row in rows if i < len(row)], found, elements) for i, each in enumerate(found)]
    first = next((i for i, each in enumerate(found) if each.role == "set"), 0)
    return [
        Column(each.heading, "fact") if i < first and each.role == "note" and not _says_remark(each.heading) else each
        for i, each in enumerate(found)
    ]


def _by_cells(
    column: Column, cells: Sequence[str], others: Sequence[Column], elements: Mapping[str, Element]
) -> Column:
    """A column whose heading says nothing, by its cells: positions of the only bank that no other column sets."""
    filled = ["".join(each.split()) for each in cells if each.strip()]
    taken = {each.name.partition(".")[0] for each in others if each.role == "set"}
    if column.role != "note" or not filled:
        return column
    for element in elements.values():
        whole = [len(each) == len(element.points) and set(each) <= set("01-●○") for each in filled]
        if element.rules.on_off and element.id not in taken and sum(whole) > 0.7 * len(filled):
            return Column(column.heading, "set", element.id)
    return column


def _says_remark(heading: str) -> bool:
    return any(word in heading.lower() for word in ("remark", "note", "comment"))


def new_fact(heading: str, cells: Sequence[str], taken: Collection[str]) -> dict[str, Any]:
    """A fact that a chart asks for and the kind of machine does not have yet: a number, yes or no, or some words."""
    base = re.sub(r"[^a-z0-9]+", ".", heading.lower()).strip(".")[:60] or "fact"
    name = next(each for n in range(1, len(taken) + 2) if (each := base if n == 1 else f"{base}.{n}") not in taken)
    filled = [each.strip() for each in cells if each.strip().lower() not in LEFT_OPEN]
    node: dict[str, Any] = {"id": name, "title": heading}
    if filled and all(read_number(each) is not None or _span(each) is not None for each in filled):
        node["number"] = True
    elif filled and all(read_flag(each) is not None for each in filled):
        node["flag"] = True
    elif 1 < len(set(filled)) <= MOST_CHOICES and len(filled) >= 2 * len(set(filled)):
        node["choices"] = list(dict.fromkeys(filled))
    return node


def read_condition(text: str, fact: Mapping[str, Any] | None) -> Any:
    """The condition that a cell writes on a fact: a value, a range, or one of several; the text where it writes none.

    Raises nothing. `fact` is how the kind of machine describes it; None for one that it does not know.
    """
    said = " ".join(text.split())
    if fact and fact.get("flag"):
        flag = read_flag(said)
        return said if flag is None else flag
    number = fact is None or fact.get("number", False)
    if number and (found := _span(said)) is not None:
        return found
    if "," in said and not (number and read_number(said) is not None):
        return [_single(part.strip(), fact) for part in said.split(",") if part.strip()]
    return _single(said, fact)


def _single(text: str, fact: Mapping[str, Any] | None) -> Any:
    choices = (fact or {}).get("choices")
    if choices:
        return next((each for each in choices if value_text(each).lower() == text.lower()), text)
    if fact is None or fact.get("number"):
        number = read_number(text, (fact or {}).get("unit", ""))
        return text if number is None else number
    return text


def _span(text: str) -> dict[str, Any] | None:
    said = text.lower()
    if both := RANGE.fullmatch(said):
        return {"from": read_number(both.group(1)), "to": read_number(both.group(2))}
    if before := BEFORE.fullmatch(said):
        return {"to": read_number(before.group(1))}
    if after := AFTER.fullmatch(said):
        return {"from": read_number(after.group(1) or after.group(2))}
    return None


def condition_text(condition: Any) -> str:
    """A condition as its cell shows it."""
    if isinstance(condition, dict):
        low, high = condition.get("from"), condition.get("to")
        if low is None or high is None:
            return (
                f"from {value_text(low)}" if low is not None else f"to {value_text(high)}" if high is not None else ""
            )
        return f"{value_text(low)}–{value_text(high)}"
    if isinstance(condition, list):
        return ", ".join(value_text(each) for each in condition)
    return value_text(condition)


def read_positions(text: str, element: Element, on_is: str | None = None) -> Any:
    """Where an element stands by a cell, as charts write it (`-` leaves a place open); the text where it says nothing."""
    said = text.strip()
    if not element.placed:
        found = read_position(said, element.points[0], on_is)
        return said if found is None else found
    if not element.rules.on_off:
        return said
    marks = said.split() if len(said.split()) == len(element.points) else list("".join(said.split()))
    if len(marks) != len(element.points):
        return said
    read = [_mark(each, element.points[0], on_is) for each in marks]
    return said if None in read else "".join(str(each) for each in read)


def _mark(text: str, point: Point, on_is: str | None) -> str | None:
    if text.lower() in LEFT_OPEN:
        return "-"
    found = read_position(text, point, on_is)
    return None if found is None else "1" if found == "on" else "0"


def _row(
    columns: Sequence[Column], cells: Sequence[str], facts: Mapping[str, Any], elements: Mapping[str, Element],
    on_ways: Mapping[str, str],
) -> dict[str, Any]:  # fmt: skip
    row: dict[str, Any] = {"if": {}, "set": {}}
    places: dict[str, dict[int, str]] = {}
    for column, cell in zip(columns, cells, strict=False):
        said = cell.strip()
        if column.role == "fact" and said.lower() not in LEFT_OPEN:
            row["if"][column.name] = read_condition(said, facts.get(column.name))
        elif column.role == "set" and said.lower() not in LEFT_OPEN:
            element, place = _place_of(column.name, elements)
            if element is None or place is None:
                row["set"][column.name] = read_positions(said, element, on_ways.get(element.id)) if element else said
            else:
                mark = _mark(said, element.points[place], on_ways.get(element.id)) if element.rules.on_off else said
                if mark is None or len(mark) != 1:
                    row["set"][column.name] = said
                else:
                    places.setdefault(element.id, {})[place] = mark
        elif column.role == "use" and said:
            row["use"] = row.get("use", []) + [each.strip() for each in re.split(r"[,;+]", said) if each.strip()]
        elif column.role == "note" and said:
            row.setdefault("notes", {})[column.heading] = said
    for name, marks in places.items():
        row["set"][name] = "".join(marks.get(index, "-") for index in range(len(elements[name].points)))
    return row


def _place_of(name: str, elements: Mapping[str, Element]) -> tuple[Element | None, int | None]:
    """The element that a column sets, and which of its places where it is one of them."""
    if name in elements:
        return elements[name], None
    for element in elements.values():
        for index, point in enumerate(element.points):
            if point.id == name:
                return element, index
    return None, None


def _text(row: Mapping[str, Any], column: Column) -> str:
    match column.role:
        case "fact":
            return condition_text(row["if"][column.name]) if column.name in row.get("if", {}) else ""
        case "use":
            return ", ".join(row.get("use", ()))
        case "note":
            return str(row.get("notes", {}).get(column.heading, ""))
    sets = row.get("set", {})
    if column.name in sets:
        return value_text(sets[column.name])
    name, dot, number = column.name.rpartition(".")
    written = sets.get(name, "")
    if dot and number.isdigit() and isinstance(written, str) and 0 < int(number) <= len(written):
        return "" if written[int(number) - 1] == "-" else written[int(number) - 1]
    return ""


def _guess(heading: str, points: Mapping[str, str], names: Mapping[str, str], facts: Mapping[str, str]) -> Column:
    said = " ".join(heading.lower().split())
    bare = re.sub(r"^(switch|bank|dial|jumper|set|sw)\s+", "", said)
    read = {without_look_alikes(name): name for name in (*points, *names)}.get(without_look_alikes(bare), bare)
    if read in names or read in points:
        return Column(heading, "set", names.get(read) or points[read])
    if bare.isdigit() and len(banks := [p for p in points if p.endswith(f".{bare}")]) == 1:
        return Column(heading, "set", points[banks[0]])
    if said in facts:
        return Column(heading, "fact", facts[said])
    if any(word in said for word in ("replaces", "old board", "old number", "original")):
        return Column(heading, "fact", ORIGINAL)
    alike = [name for title, name in facts.items() if said and (said in title or title in said)]
    if len(set(alike)) == 1:
        return Column(heading, "fact", alike[0])
    if any(word in said for word in ("kit", "part", "adapter", "lead", "use")):
        return Column(heading, "use")
    return Column(heading, "note")
