"""Facts of the machine, gathered from the plate and from what people entered, each with its source."""

from dataclasses import dataclass
from typing import Any

from twincore.carry_over import exactly
from twincore.job.case import Case
from twincore.profile import Board
from twincore.recognise import PlateRead, Scheme, read_plate

SEPARATORS = " -./"
"""What stands between the groups of a number and is not always keyed in."""


@dataclass(frozen=True, slots=True)
class Fact:
    """One fact with where it is known from."""

    value: Any
    source: str


@dataclass(frozen=True, slots=True)
class Disagreement:
    """What the display says otherwise than the plate: the plate is believed, the difference is a finding."""

    fact: str
    plate: Any
    display: Any


def plates_of(case: Case) -> dict[str, tuple[Scheme, PlateRead]]:
    """The numbers taken from the plate and the display, decoded."""
    given = case.state["plates"]
    schemes = {each.id: each for each in case.shelf.schemes} if given else {}
    return {
        name: (schemes[plate["scheme"]], read_plate(plate["text"], schemes[plate["scheme"]]))
        for name, plate in given.items()
        if plate["scheme"] in schemes
    }


def facts_of(case: Case, plates: dict[str, tuple[Scheme, PlateRead]] | None = None) -> dict[str, Fact]:
    """Every fact that later steps use; what a person entered stands above the plate, the plate above the display."""
    read = plates_of(case) if plates is None else plates
    facts: dict[str, Fact] = {}
    for name in ("display", "plate"):
        if name in read:
            facts |= {fact: Fact(value, name) for fact, value in read[name][1].facts.items()}
    entered = case.state["facts"]
    return facts | {name: Fact(exactly(each["value"]), each["source"]) for name, each in entered.items()}


def fact_values(case: Case) -> dict[str, Any]:
    """The facts as plain values."""
    return {name: fact.value for name, fact in facts_of(case).items()}


def told_of_plate(case: Case, fact: str) -> str | None:
    """A fact as it stands on the plate or the sticker, as somebody copies it; the serial number is kept by itself."""
    if fact == "serial":
        return case.state["serial"]
    found = facts_of(case).get(fact)
    return None if found is None else str(found.value)


def codes_of_plate(board: Board | None) -> list[dict[str, Any]]:
    """The codes of a board that stand on its machine's plate, as its profile has them."""
    return [node for node in (board.document["settings"] if board else ()) if node["kind"] == "code" and "fact" in node]


def codes_told(case: Case) -> dict[str, str]:
    """What the codes of the new board must be by what stands on the plate: with or without its dashes, as the board has them.

    One that does not fit its places is left out: somebody looks.
    """
    told = {}
    for node in codes_of_plate(case.replacement):
        written = told_of_plate(case, node["fact"])
        if written is not None:
            symbols = node["symbols"]
            marks = "".join(mark for mark in written if mark in symbols or mark not in SEPARATORS)
            if len(marks) == node["places"] and set(marks) <= set(symbols):
                told[node["id"]] = marks
    return told


def codes_to_read(case: Case) -> list[dict[str, Any]]:
    """The codes of the new board that stand on the plate, as its profile has them, where nobody read one that fits them and
    nobody set them by hand: what they are made with is no answer.
    """
    said = {**codes_told(case), **case.state["overrides"]}
    return [node for node in codes_of_plate(case.replacement) if node["id"] not in said]


def disagreements(plates: dict[str, tuple[Scheme, PlateRead]]) -> list[Disagreement]:
    """Where the display does not agree with the plate."""
    if set(plates) != {"plate", "display"}:
        return []
    plate, display = plates["plate"][1].facts, plates["display"][1].facts
    return [
        Disagreement(name, plate.get(name), display.get(name))
        for name in dict.fromkeys([*plate, *display])
        if plate.get(name) != display.get(name)
    ]
