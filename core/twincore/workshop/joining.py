"""What speaks against a sketch being a board that was there already: what was seen and is not on it."""

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Any, Literal

from twincore.profile import Board, Element


@dataclass(frozen=True, slots=True)
class Apart:
    """Something on a sketch that the board does not have, or has otherwise."""

    of: str
    what: Literal["not there", "another kind", "other positions", "other pins"]
    seen: str
    known: str


def apart(sketch: Board, board: Board) -> list[Apart]:
    """Where the two do not agree, as far as the sketch goes; what nobody put down says nothing.

    Elements and plugs are held against those of the same name, for the name is printed beside them.
    """
    there = {each.id: each for each in board.elements}
    found = [_element(each, there.get(each.id)) for each in sketch.elements]
    plugs = {each["id"]: each for each in board.document.get("connectors", ())}
    if plugs:
        found += [_plug(each, plugs.get(each["id"])) for each in sketch.document.get("connectors", ())]
    return [each for each in found if each is not None]


def _element(seen: Element, known: Element | None) -> Apart | None:
    if known is None:
        return Apart(seen.id, "not there", seen.kind, "")
    if seen.kind != known.kind:
        return Apart(seen.id, "another kind", seen.kind, known.kind)
    domains = [[list(map(str, point.domain)) for point in each.points] for each in (seen, known)]
    if domains[0] != domains[1]:
        return Apart(seen.id, "other positions", _size(seen), _size(known))
    return None


def _size(element: Element) -> str:
    points = element.points
    return str(len(points)) if len(points) > 1 else f"{points[0].domain[0]} … {points[0].domain[-1]}"


def _plug(seen: Mapping[str, Any], known: Mapping[str, Any] | None) -> Apart | None:
    if known is None:
        return Apart(seen["id"], "not there", "plug", "")
    pins = [len(each.get("pins", ())) for each in (seen, known)]
    if all(pins) and pins[0] > pins[1]:
        return Apart(seen["id"], "other pins", str(pins[0]), str(pins[1]))
    return None
