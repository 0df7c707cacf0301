"""Put wires where they belong: each by what it carries, not by its place."""

from collections.abc import Mapping
from dataclasses import dataclass
from random import Random
from typing import Any

from twincore.practice.outcome import Outcome, Row
from twincore.practice.signals import pins_of
from twincore.practice.task import Boards, Lead, Task

COLOURS = ("brown", "blue", "black", "grey", "white", "red", "yellow", "orange", "violet", "pink")
MOST_LEADS = 8


@dataclass(frozen=True, slots=True)
class Wiring:
    """Where each wire was put."""

    at: Mapping[str, str]


def leads_of(boards: Boards, rng: Random) -> tuple[Lead, ...]:
    """Wires of the machine that have a place on the new board, in the order of the old one's plugs; earth keeps its colours."""
    places: dict[str, list[str]] = {}
    for pin in pins_of(boards.replacement, boards.family):
        if pin.carries is not None:
            places.setdefault(pin.carries, []).append(pin.place)
    found = [
        (pin.place, pin.carries, pin.title, pin.group)
        for pin in pins_of(boards.original, boards.family)
        if pin.carries in places
    ]
    drawn = sorted(rng.sample(range(len(found)), min(MOST_LEADS, len(found))))
    colours = rng.sample(COLOURS, len(COLOURS))
    return tuple(
        Lead(
            f"W{number}", "green and yellow" if group == "earth" else colours[number % len(colours)], place,
            str(signal), title, tuple(places[str(signal)]),
        )
        for number, (place, signal, title, group) in enumerate((found[each] for each in drawn), start=1)
    )  # fmt: skip


def begin(task: Task) -> Wiring:
    """Every wire is off the old board, and on nothing."""
    return Wiring({})


def act(task: Task, state: Wiring, action: Mapping[str, Any]) -> Wiring:
    """Put a wire on a place of the new board, or take it off. Raises ValueError for a wire or place that is not there."""
    if action["do"] != "put":
        raise ValueError(f'expected "put" or "done", found "{action["do"]}"')
    wire, place = action["wire"], action["place"]
    if wire not in {each.id for each in task.leads}:
        raise ValueError(f'expected a wire of this machine, found "{wire}"')
    if place and place not in {each["place"] for each in places_of(task)}:
        raise ValueError(f'expected a place of {task.boards.replacement.part_number}, found "{place}"')
    at = {name: where for name, where in state.at.items() if name != wire}
    return Wiring({**at, wire: place} if place else at)


def places_of(task: Task) -> list[dict[str, str]]:
    """The places of the new board with what is printed at them, and what its leaflet says they carry."""
    return [
        {"place": pin.place, "mark": pin.mark, "title": pin.title}
        for pin in pins_of(task.boards.replacement, task.boards.family)
    ]


def shown(task: Task, state: Wiring) -> dict[str, Any]:
    """The tagged wires, the old board's places with what they carried, and the new board's."""
    return {
        "wires": [
            {
                "id": each.id, "colour": each.colour, "was": each.place, "carried": each.title,
                "at": state.at.get(each.id, ""),
            }
            for each in task.leads
        ],
        "places": places_of(task),
    }  # fmt: skip


def outcome(task: Task, state: Wiring) -> Outcome:
    """Wire by wire; what two that were taken for each other make the machine do."""
    rows = tuple(
        Row(f"{each.id}, {each.title}", " or ".join(each.right), state.at.get(each.id, ""),
            state.at.get(each.id, "") in each.right, "wires")
        for each in task.leads
    )  # fmt: skip
    carries = {place: lead for lead in task.leads for place in lead.right}
    told: list[tuple[str, dict[str, Any]]] = []
    for lead in task.leads:
        other = carries.get(state.at.get(lead.id, ""))
        if other is not None and other.signal != lead.signal:
            told.append(("taken for another", {"wire": lead.id, "device": lead.title, "driven_by": other.title}))
        elif not state.at.get(lead.id):
            told.append(("on nothing", {"wire": lead.id, "device": lead.title}))
    return Outcome(rows, told=tuple(told))
