"""Tests that borrow the machine: switches set, pins bridged, plugs pulled for a while, as this board has them; and put back."""

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass
from fractions import Fraction
from typing import Any, Literal

from twincore.profile import Board, Family
from twincore.profile.record import UNREADABLE
from twincore.profile.times import time_words
from twincore.wiring import Pin, plugs_of

What = Literal["set", "bridge", "unplug", "wait", "expect"]


@dataclass(frozen=True, slots=True)
class Borrowed:
    """One thing to do, on this board: in words, and how it is put back where it changes anything. `wait_s` of a wait.

    `missing` says what this board does not have, or nobody knows of it, so that a person looks for it.
    """

    what: What
    words: str
    back: str = ""
    wait_s: float = 0.0
    missing: bool = False


def borrowed(
    does: Sequence[Mapping[str, Any]], board: Board | None, family: Family, found: Mapping[str, Any]
) -> list[Borrowed]:
    """What a test does, line by line, with the points, pins and plugs of this board; `found` is how it was read to stand."""
    if not does:
        return []
    pins = [pin for plug in plugs_of(board, family).values() for pin in plug.pins.values()] if board else []
    return [_line(node, board, family, pins, found) for node in does]


def put_back(lines: Iterable[Borrowed], also: str = "") -> str:
    """All that is put back afterwards, the last first, and what besides is said to be; empty where nothing was changed."""
    return "; ".join([*[each.back for each in lines if each.back][::-1], *([also] if also else [])])


def unread_sets(does: Iterable[Mapping[str, Any]], board: Board | None, found: Mapping[str, Any]) -> list[str]:
    """The positions that a test moves and that nobody has read yet."""
    points = [str(node["set"]) for node in does if "set" in node]
    return [each for each in points if board is None or _stood(each, board, found) is None]


def _line(
    node: Mapping[str, Any], board: Board | None, family: Family, pins: list[Pin], found: Mapping[str, Any]
) -> Borrowed:
    if "set" in node:
        return _set(node["set"], node["to"], board, found)
    if "bridge" in node:
        places = [_place(signal, family, pins) for signal in node["bridge"]]
        words = " and ".join(words for words, _ in places)
        return Borrowed(
            "bridge", f"Bridge {words}", f"Bridge between {words} off", missing=not all(known for _, known in places)
        )
    if "unplug" in node:
        plug = next((pin.connector for pin in pins if pin.carries == node["unplug"]), None)
        words = plug or f"the plug of {_title(family, node['unplug'])}"
        return Borrowed("unplug", f"Pull {words}", f"{words} on again, as it sat", missing=plug is None)
    if "wait_s" in node:
        return Borrowed("wait", f"Wait {time_words(Fraction(node['wait_s']))}", wait_s=float(node["wait_s"]))
    return Borrowed("expect", f"Expected then: {node['expect']}")


def _set(point: str, to: Any, board: Board | None, found: Mapping[str, Any]) -> Borrowed:
    known = board is not None and (point in board.points or any(each.id == point for each in board.elements))
    stood = _stood(point, board, found) if board else None
    back = f"{point} back to {stood}" if stood else f"{point} back as it stood, as it was written down"
    return Borrowed("set", f"Set {point} to {to}", back, missing=not known)


def _stood(point: str, board: Board, found: Mapping[str, Any]) -> str | None:
    """How a point was read to stand, as it is told: `off` of a switch, the value of anything else; None where nobody read it."""
    element, _, place = point.partition(".")
    read = found.get(element)
    if read is None or UNREADABLE in str(read):
        return None
    if not place:
        return str(read)
    if not place.isdigit() or int(place) > len(str(read)):
        return None
    mark = str(read)[int(place) - 1]
    return {"0": "off", "1": "on"}.get(mark, mark)


def _place(signal: str, family: Family, pins: list[Pin]) -> tuple[str, bool]:
    place = next((pin.place for pin in pins if pin.carries == signal), None)
    title = _title(family, signal)
    return (f"{place} ({title})", True) if place else (title, False)


def _title(family: Family, signal: str) -> str:
    signals = family.document.get("signals", ())
    return next((str(each.get("title", signal)) for each in signals if each["id"] == signal), signal)
