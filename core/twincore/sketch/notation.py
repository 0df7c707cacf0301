"""A sketch as lines of text, for whoever types faster than they tap: one thing a line, or several with a semicolon between.

    S1 bank 8, on up, from left          a bank of eight switches
    R1 dial 0..9                         a dial; 0..F is one of sixteen, 00..15 has its zeros
    J1 jumper 3                          pins 1 to 3: open, 1-2, 2-3
    VR1 trimmer 0..10                    a trimmer with a scale
    prog program A B C                   a program number or letter
    P07 number 0..300 by 5 s             a menu parameter
    W1 wheels 2                          thumbwheels
    key code 4                           a code, digit by digit
    C1 plug 8, keyed                     a plug with eight pins
    C2 plug 3, marked L N PE             the same with what is printed at its pins, from pin 1
    relays 3                             what else is seen: relays, lamp, button, fuse, display
    board green 160 x 110                its colour and its size in mm
    picture 4 x 3                        it lies over a picture of this shape
    S2 bank 4, at 30 62                  where it is there, in per cent from the left and from the top

The notation is this product's own. What is written comes out the same when it is read and written again.
"""

import re
from dataclasses import dataclass, replace

from twincore.profile import KINDS as PROFILE_KINDS
from twincore.profile import Kind
from twincore.profile.kinds.chosen import Jumper
from twincore.sketch.model import (
    COLOURS,
    MOST_ELEMENTS,
    MOST_PINS,
    MOST_PLUGS,
    MOST_RELAYS,
    PARTS,
    Sketch,
    SketchedElement,
    SketchedPlug,
)

KINDS = {kind.notation: kind for kind in PROFILE_KINDS.values() if kind.notation}
"""The kinds of element that can be sketched, by the word for each."""
WAYS, ENDS = ("up", "down", "left", "right"), ("left", "right", "top", "bottom")
MOST_VALUES, MOST_LINES, MOST_MARK = 100, 200, 12
NAME = re.compile(r"[A-Za-z][\w./+-]{0,19}$")
NUMBER = r"-?\d{1,7}(?:[.,]\d{1,4})?"
SPAN = re.compile(rf"({NUMBER})\s*\.\.\s*({NUMBER})(?:\s+by\s+({NUMBER}))?(?:\s+(\S{{1,10}}))?$")
PLACE = re.compile(r"at (\d{1,3}(?:\.\d)?) (\d{1,3}(?:\.\d)?)")
SIXTEEN = "0123456789ABCDEF"
"""The values of a dial of sixteen."""
SIZE = re.compile(r"(\d{1,4})\s*[x×]\s*(\d{1,4})(?:\s*mm)?$")


@dataclass(frozen=True, slots=True)
class Misread:
    """A line that says nothing that can be drawn: its number, from 1, and what was expected."""

    line: int
    expected: str


class _Wrong(Exception):
    """What was expected where a thing of the notation cannot be read."""


def read_lines(text: str) -> tuple[Sketch, list[Misread]]:
    """What lines of the notation say, and every line that says nothing; what can be read of the others stands."""
    sketch, wrong = Sketch(), []
    things = [(number, each) for number, line in enumerate(text.splitlines(), 1) for each in line.split(";")]
    for number, thing in things[:MOST_LINES]:
        if not thing.strip():
            continue
        try:
            sketch = _with(sketch, thing.strip())
        except _Wrong as error:
            wrong.append(Misread(number, str(error)))
    if len(things) > MOST_LINES:
        wrong.append(Misread(things[MOST_LINES][0], f"at most {MOST_LINES} things"))
    return sketch, wrong


def _with(sketch: Sketch, thing: str) -> Sketch:
    """The sketch with one more thing."""
    head, *more = [part.strip() for part in thing.split(",")]
    words = head.split()
    more, at = _at(more)
    if not words or any(ord(letter) < 32 for letter in thing.replace("\t", " ")):
        raise _Wrong("a thing with a name, in letters and digits")
    first = words[0].lower()
    ref = first if first in PARTS else words[0]
    made = _thing(sketch, words, more)
    if at is None:
        return made
    if first in ("board", "picture", "relay", "relays"):
        raise _Wrong("a place only for what can be set, plugs, lamps, buttons, fuses and displays")
    return replace(made, places=(*(each for each in made.places if each[0] != ref), (ref, *at)))


def _at(more: list[str]) -> tuple[list[str], tuple[float, float] | None]:
    """What follows a thing without its place, and the place."""
    said = [each for each in more if each.lower().startswith("at ")]
    if not said:
        return more, None
    place = PLACE.fullmatch(said[0].lower())
    if place is None or len(said) > 1 or max(map(float, place.groups())) > 100:
        raise _Wrong("one place in per cent from the left and from the top, such as “at 30 62.5”")
    return [each for each in more if each not in said], (float(place[1]), float(place[2]))


def _thing(sketch: Sketch, words: list[str], more: list[str]) -> Sketch:
    """The sketch with one more thing, wherever it is."""
    first = words[0].lower()
    if first in PARTS:
        return replace(sketch, parts=tuple(dict.fromkeys((*sketch.parts, first))))
    if first == "picture":
        return replace(sketch, picture=_shape(words[1:]))
    if first in ("relay", "relays"):
        return replace(sketch, relays=_count(words[1] if len(words) > 1 else "1", MOST_RELAYS, "relays"))
    if first == "board":
        return _board(sketch, words[1:])
    if len(words) < 2 or words[1].lower() not in (*KINDS, "plug"):
        raise _Wrong(f"a name and what it is: {', '.join(KINDS)} or plug, such as “S1 bank 8” or “C1 plug 6”")
    name = words[0]
    if not NAME.match(name):
        raise _Wrong("a name that begins with a letter, such as S1, of at most 20 letters and digits")
    if name in [each.id for each in sketch.elements] + [each.id for each in sketch.plugs]:
        raise _Wrong(f"a name that is not there yet; {name} is")
    if words[1].lower() == "plug":
        return _plug(sketch, name, words[2:], more)
    if len(sketch.elements) >= MOST_ELEMENTS:
        raise _Wrong(f"at most {MOST_ELEMENTS} things to be set")
    return replace(sketch, elements=(*sketch.elements, _element(name, KINDS[words[1].lower()], words[2:], more)))


def _board(sketch: Sketch, words: list[str]) -> Sketch:
    if words and words[0].lower() in COLOURS:
        sketch, words = replace(sketch, colour=words[0].lower()), words[1:]
    elif words and not words[0][0].isdigit():
        raise _Wrong(f"a colour ({', '.join(COLOURS)}), a size such as 160 x 110, or both")
    if not words:
        return sketch
    size = SIZE.match(" ".join(words))
    if size is None or not all(10 <= int(each) <= 2000 for each in size.groups()):
        raise _Wrong("a size in mm, from 10 to 2000 each way, such as 160 x 110")
    return replace(sketch, size_mm=(float(size[1]), float(size[2])))


def _shape(words: list[str]) -> tuple[float, float]:
    shape = SIZE.match(" ".join(words))
    if (
        shape is None
        or not all(int(each) for each in shape.groups())
        or not 1 / 8 <= int(shape[1]) / int(shape[2]) <= 8
    ):
        raise _Wrong("how wide and high the picture is, such as 4 x 3")
    return float(shape[1]), float(shape[2])


def _plug(sketch: Sketch, name: str, words: list[str], more: list[str]) -> Sketch:
    if len(sketch.plugs) >= MOST_PLUGS:
        raise _Wrong(f"at most {MOST_PLUGS} plugs")
    keyed: bool | None = None
    marks: tuple[str, ...] = ()
    pins = _count(words[0] if len(words) == 1 else "", MOST_PINS, "pins")
    for each in more:
        if each.lower() in ("keyed", "not keyed"):
            keyed = each.lower() == "keyed"
        elif each.lower().startswith("marked "):
            marks = tuple(each.split()[1:])
            if len(marks) > pins or any(len(mark) > MOST_MARK for mark in marks):
                raise _Wrong(f"as many marks as pins at most, of up to {MOST_MARK} letters, such as “marked L N PE”")
        else:
            raise _Wrong("after a plug only “keyed” or “not keyed”, and “marked” with what is printed at its pins")
    return replace(sketch, plugs=(*sketch.plugs, SketchedPlug(name, pins, keyed, marks)))


def _element(name: str, kind: Kind, words: list[str], more: list[str]) -> SketchedElement:
    made = SketchedElement(name, kind.name)
    if kind.most_places:
        made = replace(made, places=_count(words[0] if len(words) == 1 else "", kind.most_places, "places"))
    elif kind.ranged:
        made = _parameter(made, " ".join(words))
    else:
        made = replace(made, values=_values(kind, words))
    for each in more:
        made = _hung(made, each.lower().split())
    if made.upright and (made.on in ("up", "down") or made.first in ("left", "right")):
        raise _Wrong(
            "a bank that lies, with on up or down and numbers from left or right, or one upright, the other way"
        )
    return made


def _hung(element: SketchedElement, words: list[str]) -> SketchedElement:
    match words:
        case ["on", way] if way in WAYS and PROFILE_KINDS[element.kind].on_off:
            return replace(element, on=way)  # type: ignore[arg-type] # one of WAYS
        case ["from", end] if end in ENDS and PROFILE_KINDS[element.kind].on_off:
            return replace(element, first=end)  # type: ignore[arg-type] # one of ENDS
    raise _Wrong("after a bank only “on up” (or down, left, right) and “from left” (or right, top, bottom)")


def _parameter(element: SketchedElement, text: str) -> SketchedElement:
    span = SPAN.match(text)
    if span is None:
        raise _Wrong("the lowest and highest number, and a unit where there is one, such as “0..300 by 5 s”")
    low, high, step = (float(each.replace(",", ".")) if each else 1.0 for each in span.groups()[:3])
    if not (low < high and step > 0 and (high - low) / step <= 100_000):
        raise _Wrong("a lowest number under the highest, and steps above 0 that are not finer than 100,000")
    return replace(element, span=(low, high, step), unit=span[4] or "")


def _values(kind: Kind, words: list[str]) -> tuple[str, ...]:
    if isinstance(kind, Jumper) and len(words) <= 1 and (not words or words[0].isdigit()):
        pins = _count(words[0] if words else "2", 8, "pins", 2)
        return ("open", *(f"{pin}-{pin + 1}" for pin in range(1, pins)))
    text = " ".join(words) or kind.usual_values
    spans = re.sub(r"\s*\.\.\s*", "..", text).split()
    values = tuple(value for each in spans for value in (_from_to(*each.split("..", 1)) if ".." in each else (each,)))
    if not 2 <= len(values) <= MOST_VALUES or len(set(values)) != len(values) or "?" in values:
        raise _Wrong(f"2 to {MOST_VALUES} different values, such as “0..9”, “0..F”, “A..F” or “A B C”")
    return values


def _from_to(low: str, high: str) -> tuple[str, ...]:
    """Every value of a span as a dial has it: 0 to 9, 00 to 15 with its zeros, A to F, and 0 to F, which are sixteen."""
    if not (low + high).isascii() or not (1 <= len(low) <= 3 and 1 <= len(high) <= 3):
        return ()
    if low.isdecimal() and high.isdecimal():
        wide = len(low) if low[0] == "0" and len(low) > 1 else 0
        return tuple(str(number).zfill(wide) for number in range(int(low), int(high) + 1))
    if len(low) == len(high) == 1 and low.isdecimal() and high.upper() in SIXTEEN:
        found = SIXTEEN[SIXTEEN.index(low) : SIXTEEN.index(high.upper()) + 1]
        return tuple(found.lower() if high.islower() else found)
    if len(low) == len(high) == 1 and low.isalpha() and high.isalpha():
        return tuple(chr(code) for code in range(ord(low), ord(high) + 1))
    return ()


def _count(text: str, most: int, what: str, least: int = 1) -> int:
    if not (text.isascii() and text.isdecimal() and len(text) < 4 and least <= int(text) <= most):
        raise _Wrong(f"a number of {what} from {least} to {most}")
    return int(text)


def written(sketch: Sketch) -> str:
    """A sketch as lines of the notation."""
    at = {ref: f", at {x:g} {y:g}" for ref, x, y in sketch.places}
    lines = [
        f"{each.id} {PROFILE_KINDS[each.kind].notation} {_said(each)}{_way(each)}{at.get(each.id, '')}"
        for each in sketch.elements
    ]
    lines += [f"{each.id} plug {each.pins}{_plug_said(each)}{at.get(each.id, '')}" for each in sketch.plugs]
    lines += [f"relays {sketch.relays}"] if sketch.relays else []
    lines += [f"{each}{at.get(each, '')}" for each in sketch.parts]
    lines += [f"picture {sketch.picture[0]:g} x {sketch.picture[1]:g}"] if sketch.picture else []
    size = f"{sketch.size_mm[0]:g} x {sketch.size_mm[1]:g}" if sketch.size_mm else ""
    if sketch.colour or size:
        lines.append(" ".join(each for each in ("board", sketch.colour or "", size) if each))
    return "\n".join(lines)


def _plug_said(plug: SketchedPlug) -> str:
    keyed = "" if plug.keyed is None else ", keyed" if plug.keyed else ", not keyed"
    return f"{keyed}, marked {' '.join(plug.marks)}" if plug.marks else keyed


def _said(element: SketchedElement) -> str:
    if element.span:
        low, high, step = element.span
        by = "" if step == 1 else f" by {step:g}"
        return f"{low:.10g}..{high:.10g}{by}{f' {element.unit}' if element.unit else ''}"
    if not element.values:
        return str(element.places)
    ends = element.values[0], element.values[-1]
    return f"{ends[0]}..{ends[1]}" if _from_to(*ends) == element.values else " ".join(element.values)


def _way(element: SketchedElement) -> str:
    on = f", on {element.on}" if element.on else ""
    return on + (f", from {element.first}" if element.first else "")
