"""The documents that come of a sketch: a board like any other, of which little is known, and a kind of machine for it."""

from typing import Any

from twincore.profile import KINDS
from twincore.sketch.layout import placed
from twincore.sketch.model import Sketch, SketchedElement, SketchedPlug, doubts_of

USUAL_INPUTS = (("power", "Supply on"), ("call", "Called for"), ("stop", "Stop pressed"))
USUAL_OUTPUTS = (
    ("fan", "Fan"), ("motor", "Motor"), ("valve", "Valve"), ("heater", "Heater"), ("lamp", "Lamp"), ("alarm", "Alarm"),
)  # fmt: skip
USUAL_SIGNALS = (
    ("supply.line", "Supply, line", "supply", "mains"), ("supply.neutral", "Supply, neutral", "supply", "mains"),
    ("earth", "Earth", "earth", "earth"), ("fan.line", "Fan", "output", "mains"), ("motor.line", "Motor", "output", "mains"),
    ("valve.line", "Valve", "output", "mains"), ("heater.line", "Heater", "output", "mains"),
    ("lamp.line", "Lamp", "output", "mains"), ("switch", "Switch", "input", "24dc"),
    ("sensor", "Sensor", "input", "sensor"), ("bus", "Bus", "bus", "bus"),
)  # fmt: skip
"""What machines of most kinds have (common practice, no source); a kind of one's own starts with them, to be renamed."""


def kind_document(code: str, title: str) -> dict[str, Any]:
    """A family document for a kind of machine that nobody entered: the usual signals, and no function yet."""
    return {
        "format": "worthy-twin/family", "version": 1, "id": code, "title": title,
        "inputs": [{"id": name, "title": said} for name, said in USUAL_INPUTS],
        "outputs": [{"id": name, "title": said} for name, said in USUAL_OUTPUTS],
        "signals": [
            {"id": name, "title": said, "kind": kind, "volts_class": volts, "optional": True}
            for name, said, kind, volts in USUAL_SIGNALS
        ],
        "functions": [],
        "standing": {"settings": {"worth": "sketched"}},
    }  # fmt: skip


def board_document(
    sketch: Sketch, part_number: str, maker: str, title: str, family: str, who: str = "", on: str = ""
) -> dict[str, Any]:
    """A board document of a sketch. What its positions mean and how it behaves is not in it: nobody said.

    How it leaves the maker is not known either: a document has to name a position, so that the first one stands there,
    and a doubt says so. `who` looked, `on` which day (ISO 8601).
    """
    size, places = placed(sketch)
    source = [{"what": "seen at the machine", **({"who": who} if who else {}), **({"on": on} if on else {})}]
    document: dict[str, Any] = {
        "format": "worthy-twin/board", "version": 1, "part_number": part_number, "maker": maker or "not known",
        "title": title, "family": family, "status": "current",  # nobody said that it is no longer made
        "settings": [KINDS[each.kind].setting(each) for each in sketch.elements],
        "functions": {},
        "size_mm": list(size),
        "layout": [_place(part.ref, [x, y], [part.width, part.height], sketch) for part, x, y in places],
        "connectors": [
            {"id": each.id, **({} if each.keyed is None else {"keyed": each.keyed}),
             "pins": [
                 {"pin": pin, **({"mark": each.marks[pin - 1]} if pin <= len(each.marks) else {})}
                 for pin in range(1, each.pins + 1)
             ]}
            for each in sketch.plugs
        ],
        "standing": {
            "settings": {
                "worth": "sketched", "sources": source,
                "doubts": [{"of": each.of, "what": each.what} for each in doubts_of(sketch)],
            },
            "layout": {"worth": "drawn", "sources": source},
        },
    }  # fmt: skip
    if sketch.colour:
        document["look"] = {"colour": sketch.colour}
    return document


def with_places(document: dict[str, Any]) -> dict[str, Any]:
    """A board's document with a tidy place for every part, where nobody measured any; it says that it is drawn so.

    A document with a layout comes back as it is.
    """
    if "layout" in document:
        return document
    size = document.get("size_mm")
    sketch = Sketch(
        elements=tuple(_seen(each) for each in document["settings"]),
        plugs=tuple(SketchedPlug(each["id"], len(each["pins"])) for each in document.get("connectors", ())),
        relays=len(document.get("relays", ())),
        size_mm=(float(size[0]), float(size[1])) if size else None,
    )
    board, places = placed(sketch)
    layout = [_place(part.ref, [x, y], [part.width, part.height], sketch) for part, x, y in places]
    standing = {**document.get("standing", {}), "layout": {"worth": "drawn"}}
    return {**document, "size_mm": list(board), "layout": layout, "standing": standing}


def _seen(node: dict[str, Any]) -> SketchedElement:
    """An element of a document as a sketch has it, as far as a drawing needs it."""
    return SketchedElement(node["id"], node["kind"], node.get(KINDS[node["kind"]].places_key) or 1)


def _place(ref: str, at: list[float], size: list[float], sketch: Sketch) -> dict[str, Any]:
    element = next((each for each in sketch.elements if each.id == ref), None)
    place: dict[str, Any] = {"ref": ref, "at": at, "size": size}
    if element is None or not KINDS[element.kind].on_off:
        return place
    if element.upright:
        # drawn as if it lay and then turned upright: its length is its width again
        half = (size[1] - size[0]) / 2
        place |= {"at": [round(at[0] - half, 2), round(at[1] + half, 2)], "size": [size[1], size[0]]}
        place["turn"] = 90
    sides = {"up": "top", "down": "bottom", "left": "left", "right": "right"}
    if element.on:
        place["on_side"] = sides[element.on]
    if element.first:
        place["first"] = element.first
    return place
