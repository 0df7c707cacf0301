"""Tables of cells as edits of a draft: a grid of meanings, a chart, the pins of a plug, a state of the behaviour."""

from collections.abc import Callable, Iterable, Sequence
from typing import Any

from catalogue import queries as catalogue
from people.models import Person
from twincore.errors import Fault
from twincore.profile import Board, parse_board
from twincore.profile.document import jsonable
from twincore.profile.facts import ORIGINAL
from twincore.profile.values import Number, exact, plain
from twincore.workshop import (
    Arrow,
    Column,
    Draft,
    StateCells,
    chart_node,
    combinations_of,
    elements_of,
    filled_by_rule,
    guessed_columns,
    meanings_from,
    names_of,
    new_fact,
    node_of,
    on_ways,
    renamed,
    state_node,
    usual_behaviour,
)
from twinshown.refusals import Faulty, Refused
from workshop.schemas import BorrowGiven, ChartGiven, GridGiven, PinsGiven, StateGiven

MOST_OF_A_KIND = 200
Path = Sequence[str | int]
Change = tuple[Path, Any]
Changes = Callable[[Draft], list[Change]]


def grid_changes(draft: Draft, given: GridGiven) -> list[Change]:
    """A function's meaning, as the grid has it."""
    definition, points = draft.kind().function(given.function), draft.skeleton().points
    if definition is None:
        raise Faulty("This kind of machine has no such function.", [Fault("function", f'found "{given.function}"')])
    path = ["board", "functions", given.function]
    if given.reads:
        scale, offset = (plain(_exact(each)) for each in (given.scale, given.offset))
        node = {"from": given.reads}
        return [(path, node | ({} if (scale, offset) == (1, 0) else {"scale": scale, "offset": offset}))]
    cells = given.cells
    if given.fill is not None:
        count = len(combinations_of([p for p in given.points if p in points], points))
        cells = filled_by_rule(count, _exact(given.fill[0]), _exact(given.fill[1]))
    return [(path, jsonable(node_of(definition, given.points, cells, points)))]


def chart_changes(draft: Draft, given: ChartGiven) -> list[Change]:
    """A chart, as its cells have it; without columns it is taken away."""
    charts, skeleton = draft.board.get("charts", []), draft.skeleton()
    if given.index > len(charts):
        raise Refused("There is no chart of this number.")
    if not given.columns:
        # the list as a whole, so that it can be taken back whatever stood behind it
        return [(["board", "charts"], [each for at, each in enumerate(charts) if at != given.index])]
    there = charts[given.index] if given.index < len(charts) else {"id": _free("leaflet", {c["id"] for c in charts})}
    if unnamed := [each.heading for each in given.columns if each.role == "set" and not each.name]:
        raise Faulty("Say what each column is.", [Fault(unnamed[0], "expected something to be set")])
    facts = [dict(each) for each in draft.family.get("facts", [])]
    columns: list[Column] = []
    new: list[Change] = []
    for at, each in enumerate(given.columns):
        name = each.name
        if each.role == "fact" and not name:
            taken = {fact["id"] for fact in facts} | {ORIGINAL}
            fact = new_fact(each.heading, [row[at] for row in given.rows if at < len(row)], taken)
            new.append((["family", "facts", len(facts)], fact))
            facts.append(fact)
            name = fact["id"]
        columns.append(Column(each.heading, each.role, name))
    family = Draft(draft.board, {**draft.family, "facts": facts}).kind()
    node = chart_node(there, columns, given.rows, family, elements_of(skeleton), on_ways(skeleton))
    if given.title:
        node["title"] = given.title
    return [*new, (["board", "charts", given.index], jsonable(node))]


def guessed(draft: Draft, headings: Sequence[str], rows: Sequence[Sequence[str]]) -> list[Column]:
    """What columns with these headings and cells are."""
    return guessed_columns(headings, rows, draft.kind(), elements_of(draft.skeleton()))


def pin_changes(draft: Draft, given: PinsGiven) -> list[Change]:
    """The pins of a plug; a signal may be named by its id or its title. What names none stays in its cell as it was typed, to be
    shown there as wrong.
    """
    plugs = draft.board.get("connectors", [])
    if given.index >= len(plugs):
        raise Refused("There is no plug of this number.")
    signals = _signals_by_name(draft.family.get("signals", ()))
    there = {str(each["pin"]): each for each in plugs[given.index]["pins"]}
    pins = []
    for pin, mark, signal in given.rows:
        said = pin.strip()
        if not said:
            continue
        old = there.get(said, {})
        node = {key: value for key, value in old.items() if key not in ("mark", "signal")}
        node["pin"] = old.get("pin", int(said) if said.isdigit() else said)
        if mark.strip():
            node["mark"] = mark.strip()
        if signal.strip():
            node["signal"] = signals.get(signal.strip().lower(), signal.strip())
        pins.append(node)
    return [(["board", "connectors", given.index, "pins"], pins)]


def _signals_by_name(signals: Iterable[dict[str, Any]]) -> dict[str, str]:
    """The ids of signals by what people write: the id or the title, in any case."""
    rows = list(signals)
    return {name.lower(): each["id"] for each in rows for name in (each["id"], str(each.get("title", "")))}


def placed_changes(draft: Draft, path: Path, after: Any) -> list[Change]:
    """Something at any place of a draft. A signal that is added is found by the pins at which its name was written already."""
    changes: list[Change] = [(path, after)]
    if [*path[:2]] != ["family", "signals"] or not isinstance(after, dict) or "id" not in after:
        return changes
    named = _signals_by_name([after])
    for index, plug in enumerate(draft.board.get("connectors", [])):
        pins = [
            {**pin, "signal": named[written]} if (written := str(pin.get("signal", "")).lower()) in named else pin
            for pin in plug["pins"]
        ]
        if pins != plug["pins"]:
            changes.append((["board", "connectors", index, "pins"], pins))
    return changes


def state_changes(draft: Draft, given: StateGiven) -> list[Change]:
    """A state of the behaviour: new, changed, with another name, or gone."""
    behaviour = draft.board.get("behaviour") or {"start": given.name, "states": {}}
    single = "machines" not in behaviour
    machines = [behaviour] if single else behaviour["machines"]
    if given.machine >= len(machines):
        raise Refused("There is no machine of this number.")
    machine = machines[given.machine]
    name = given.name.strip()
    if not name:
        raise Faulty("Give the state a name.")
    if name != given.was and name in machine["states"]:
        raise Refused(f"There is a state {name} already.")
    path: list[str | int] = ["board", "behaviour"] if single else ["board", "behaviour", "machines", given.machine]
    if given.gone:
        states = {key: value for key, value in machine["states"].items() if key != given.was}
        return [(path, {**machine, "states": states} if states or not single else None)]
    arrows = tuple(Arrow(each.to, each.inputs, each.after, each.settings, each.does) for each in given.arrows)
    cells = StateCells(name, given.title, given.on, arrows)
    names = names_of(draft.kind(), tuple(behaviour.get("internal", ())))
    node = jsonable(state_node(cells, machine["states"].get(given.was, {}), names))
    if given.was and name != given.was:
        machine = renamed(machine, given.was, name)
        # an arrow of the state itself may lead back to it
        node["go"] = [{**each, "to": name if each["to"] == given.was else each["to"]} for each in node["go"]]
        return [(path, {**machine, "states": {**machine["states"], name: node}})]
    if "behaviour" not in draft.board:
        return [(path, {"start": name, "states": {name: node}})]
    return [([*path, "states", name], node)]


def borrowed_changes(draft: Draft, given: BorrowGiven, person: Person) -> tuple[list[Change], list[str]]:
    """What another board lends; and the functions whose meaning does not fit this board."""
    if given.part == "behaviour" and not given.part_number:
        found = usual_behaviour(_of_the_kind(draft, person))
        if found is None:
            raise Refused("No board of this kind has a behaviour yet.")
        node, numbers = found
        source = f"as {', '.join(numbers[:3])}{' and others' if len(numbers) > 3 else ''}"
        standing = {"worth": "usual", "sources": [{"what": source}]}
        return [(["board", "behaviour"], node), (["board", "standing", "behaviour"], standing)], []
    sibling = catalogue.board(given.part_number, person.depot_id)
    if sibling.family_id != draft.board["family"]:
        raise Refused(f"{sibling.part_number} is of another kind of machine.")
    assert sibling.current is not None  # queries.board sees to it
    document = jsonable(parse_board(bytes(sibling.current.document)).document)
    if given.part == "functions":
        functions, left = meanings_from(draft, document)
        return [(["board", "functions"], functions)], left
    if given.part not in document:
        raise Refused(f"Of {sibling.part_number} nobody knows this either.")
    return [(["board", given.part], document[given.part])], []


def _of_the_kind(draft: Draft, person: Person) -> list[Board]:
    rows = catalogue.boards(person.depot_id, family=draft.board["family"]).filter(withdrawn__isnull=True)
    others = rows.exclude(part_number=draft.board["part_number"])
    documents = others.values_list("current__document", flat=True)[:MOST_OF_A_KIND]
    return [parse_board(bytes(each)) for each in documents if each is not None]


def _free(name: str, taken: set[str]) -> str:
    return next(each for n in range(1, len(taken) + 2) if (each := f"{name}-{n}") not in taken)


def _exact(number: float) -> Number:
    """A number as it was typed. Raises Faulty for one that is finer than documents write."""
    try:
        return exact(repr(number))
    except ValueError as error:
        raise Faulty(f"Expected {error}, found {number:g}.") from error
