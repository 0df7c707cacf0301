"""A draft as the screen has it: tables of cells with their findings."""

import json
from collections.abc import Iterable, Mapping
from typing import Any, cast

from catalogue.api import charts_shown, elements_shown
from people.models import Person
from twincore.profile import Board, Family, worth_of
from twincore.sketch import with_places
from twincore.workshop import (
    Draft as Documents,
)
from twincore.workshop import (
    findings,
    grid_of,
    state_cells,
    value_text,
)
from twinshown.comparison.playing import step_shown
from workshop.drafting import documents_of, to_take_back
from workshop.models import Draft
from workshop.schemas import (
    ArrowCells,
    DraftEdit,
    DraftFact,
    DraftFinding,
    DraftFunction,
    DraftInFull,
    DraftLine,
    DraftMachine,
    DraftName,
    DraftPin,
    DraftPlug,
    DraftPoint,
    DraftSource,
    DraftState,
    FactKind,
    GridCell,
    State,
)
from workshop.wording import place_words, where_words

LAST_EDITS = 30


def draft_line(draft: Draft) -> DraftLine:
    """A draft in a list."""
    board, family = draft.board, draft.family_base.family
    return DraftLine(
        id=draft.pk, part_number=draft.part_number, title=board.title, maker=board.maker, family=family.code,
        family_title=family.title, state=cast(State, draft.state), version=draft.version, note=draft.note,
        started_by=draft.started_by.shown_name, touched_by=draft.touched_by.shown_name, touched_at=draft.touched_at,
    )  # fmt: skip


def draft_shown(draft: Draft, person: Person) -> DraftInFull:
    """A draft in full."""
    documents = documents_of(draft)
    family, board = documents.kind(), documents.skeleton()
    current = draft.board.current
    assert current is not None  # a board with a draft has a revision
    edits = list(draft.edits.select_related("by", "undone_by")[:LAST_EDITS])
    return DraftInFull(
        **draft_line(draft).dict(),
        document=with_places(documents.board),
        elements=elements_shown(board),
        points=[
            DraftPoint(id=each.id, positions=len(each.domain), first=value_text(each.domain[0]))
            for each in board.points.values()
        ],
        functions=[_function(documents, family, board, each.id) for each in family.functions],
        charts=charts_shown(documents.board, family),
        plugs=[_plug(each) for each in documents.board.get("connectors", ())],
        machines=_machines(documents.board.get("behaviour")),
        clocks=_ids(documents.board, "clocks"),
        counters=_ids(documents.board, "counters"),
        signals=_named(family.document.get("signals", ())),
        facts=[_fact(each) for each in family.document.get("facts", ())],
        inputs=_named(family.document["inputs"]),
        outputs=_named(family.document["outputs"]),
        sources=_sources(documents.board),
        findings=[
            DraftFinding(
                place=f.place,
                where=where_words(f.place, documents.board, family.titles),
                says=f.says,
                weight=f.weight,
                steps=[step_shown(step) for step in f.way.steps] if f.way else None,
                at=float(f.way.until) if f.way else 0,
            )
            for f in findings(documents)
        ],
        edits=[
            DraftEdit(
                number=each.number, by=each.by.shown_name, mine=each.by_id == person.pk, at=each.at,
                what=place_words(json.loads(each.path)), undone=each.undoes_id is not None or hasattr(each, "undone_by"),
            )
            for each in edits
        ],
        base=draft.base.number,
        current=current.number,
        may_publish=person.keeps_catalogue,
        can_undo=to_take_back(draft, person).exists(),
    )  # fmt: skip


def _function(documents: Documents, family: Family, board: Board, name: str) -> DraftFunction:
    definition = family.function(name)
    assert definition is not None  # called for the family's functions
    node = documents.board.get("functions", {}).get(name)
    grid = grid_of(definition, node, board.points)
    return DraftFunction(
        id=name, title=definition.title, type=definition.type, unit=definition.unit, choices=list(definition.choices),
        importance=definition.importance, said=node is not None, points=list(grid.points),
        cells=[GridCell(at=[value_text(each) for each in c.at], text=c.text, wrong=c.wrong) for c in grid.cells],
        reads=grid.reads, scale=float(grid.scale), offset=float(grid.offset), too_large=grid.too_large,
        notes=list(grid.notes),
    )  # fmt: skip


def _plug(node: dict[str, Any]) -> DraftPlug:
    pins = [
        DraftPin(pin=str(each.get("pin", "")), mark=each.get("mark", ""), signal=each.get("signal") or "")
        for each in node.get("pins", ())
    ]
    return DraftPlug(id=node["id"], style=node.get("style", ""), keyed=node.get("keyed"), pins=pins)


def _machines(node: dict[str, Any] | None) -> list[DraftMachine]:
    if node is None:
        return []
    single = "machines" not in node
    return [
        DraftMachine(
            id=machine.get("id", ""),
            start=machine.get("start", ""),
            states=[
                _state(name, state, machine, "behaviour" if single else f"behaviour.machines[{index}]")
                for name, state in machine["states"].items()
            ],
        )
        for index, machine in enumerate([node] if single else node["machines"])
    ]


def _state(name: str, node: dict[str, Any], machine: dict[str, Any], place: str) -> DraftState:
    cells = state_cells(name, node)
    return DraftState(
        name=name, title=cells.title, on=cells.on, place=f"{place}.states.{name}",
        survives=name in machine.get("survive_power_loss", ()),
        arrows=[
            ArrowCells(to=a.to, inputs=a.inputs, after=a.after, settings=a.settings, does=a.does) for a in cells.arrows
        ],
    )  # fmt: skip


def _ids(board: dict[str, Any], what: str) -> list[str]:
    return [each["id"] for each in board.get("behaviour", {}).get(what, ())]


def _named(nodes: Iterable[Mapping[str, Any]]) -> list[DraftName]:
    return [DraftName(id=each["id"], title=each.get("title") or each["id"]) for each in nodes]


def _fact(node: Mapping[str, Any]) -> DraftFact:
    kind: FactKind = (
        "number" if node.get("number") else "flag" if node.get("flag") else "choice" if node.get("choices") else "text"
    )
    choices = [value_text(each) for each in node.get("choices", ())]
    return DraftFact(id=node["id"], title=node["title"], kind=kind, unit=node.get("unit", ""), choices=choices)


def _sources(board: dict[str, Any]) -> list[DraftSource]:
    found = []
    for part, said in board.get("standing", {}).items():
        for source in said.get("sources", ()) or [{}]:
            found.append(
                DraftSource(
                    part=part,
                    worth=worth_of(board, part) or "",
                    what=source.get("what", ""),
                    page=str(source.get("page", "")),
                    who=source.get("who", ""),
                    on=source.get("on", ""),
                )
            )
    return found
