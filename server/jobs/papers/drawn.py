"""Drawings for paper: time tracks and positions as SVG, in two inks that also read in black and white.

The original is a thin line with square ends, the replacement a thick line with round ends, what was measured a dotted one.
"""

from collections.abc import Mapping, Sequence
from html import escape
from typing import Any

from twincore.profile import Board, hanging_of
from twincore.profile.values import stands
from twinshown.comparison.schemas import ShownAt
from twinshown.steps.prove.schemas import MeasuredShown
from twinshown.words.banks import seen_words

WIDTH, LEFT, ROW, BAR = 620, 130, 26, 5


INKS = {"original": ("#2b4c77", 2.0, "butt", ""), "replacement": ("#94400f", 3.6, "round", ""),
        "measured": ("#1d1b19", 2.4, "butt", "1.5 3")}  # fmt: skip


Span = tuple[float, float]


def tracks_svg(run: MeasuredShown, titles: dict[str, str], rest: Mapping[str, Any], outputs: Sequence[str]) -> str:
    """A measured run laid over both boards: inputs as thin lines above, each output with up to three lines."""
    until = max(run.until, 1.0)
    inputs = list(dict.fromkeys(name for step in run.steps for name in step["set"]))
    shown = [o for o in outputs if any(o in e.on for t in (run.original, run.replacement, run.measured) for e in t)]
    parts: list[str] = []
    y = 14.0
    for name in inputs:
        parts.append(_label(titles.get(name, name), y + 4))
        values = [(float(step["at"]), step["set"][name]) for step in run.steps if name in step["set"]]
        first = rest.get(name, False)
        if isinstance(first, bool):
            spans = _input_spans(values, first, run.until)
            parts += [_line(a, b, y, until, ("#5c574d", 1.2, "butt", "")) for a, b in spans]
        else:
            # of a level its values, each where it was reached
            parts += [_value(at, value, y + 4, until) for at, value in [(0.0, first), *values]]
        y += 15
    y += 4
    for name in shown:
        parts.append(_label(titles.get(name, name), y + 8))
        for offset, (track, ink) in enumerate(
            ((run.original, "original"), (run.replacement, "replacement"), (run.measured, "measured"))
        ):
            parts += [_line(a, b, y + offset * 6, until, INKS[ink]) for a, b in _spans(track, name, until)]
        y += ROW
    parts += _axis(y, until)
    return (
        f'<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 {WIDTH} {y + 22:g}" width="84%" role="img">'
        f"{''.join(parts)}</svg>"
    )


def _x(at: float, until: float) -> float:
    return LEFT + (WIDTH - LEFT - 10) * min(at, until) / until


def _line(begin: float, end: float, y: float, until: float, ink: tuple[str, float, str, str]) -> str:
    colour, width, cap, dashes = ink
    dash = f' stroke-dasharray="{dashes}"' if dashes else ""
    return (
        f'<line x1="{_x(begin, until):.1f}" x2="{max(_x(end, until), _x(begin, until) + 1):.1f}" y1="{y:g}" y2="{y:g}" '
        f'stroke="{colour}" stroke-width="{width}" stroke-linecap="{cap}"{dash}/>'
    )


def _label(text: str, y: float) -> str:
    return f'<text x="0" y="{y:g}" font-size="10" fill="#1d1b19">{escape(text[:24])}</text>'


def _value(at: float, value: Any, y: float, until: float) -> str:
    return f'<text x="{_x(at, until):.1f}" y="{y:g}" font-size="9" fill="#5c574d">{stands(value)}</text>'


def _axis(y: float, until: float) -> list[str]:
    step = next(s for s in (1, 2, 5, 10, 20, 60, 120, 300, 600, 1800, 3600, 1e9) if until / s <= 8)
    marks = [i * step for i in range(int(until / step) + 1)]
    return [
        f'<line x1="{LEFT}" x2="{WIDTH - 10}" y1="{y:g}" y2="{y:g}" stroke="#857d6e" stroke-width="0.6"/>',
        *(
            f'<text x="{_x(m, until):.1f}" y="{y + 12:g}" font-size="9" text-anchor="middle">{m:g}</text>'
            for m in marks
        ),
        f'<text x="{LEFT - 8}" y="{y + 12:g}" font-size="9" text-anchor="end">seconds</text>',
    ]


def _spans(track: Sequence[ShownAt], name: str, until: float) -> list[Span]:
    """When an output is on."""
    found: list[Span] = []
    begun: float | None = None
    for entry in track:
        if name in entry.on and begun is None:
            begun = entry.at
        elif name not in entry.on and begun is not None:
            found.append((begun, entry.at))
            begun = None
    return found if begun is None else [*found, (begun, until)]


def _input_spans(values: Sequence[tuple[float, bool]], rest: bool, until: float) -> list[Span]:
    """When an input is on."""
    on, begun = rest, 0.0
    found: list[Span] = []
    for at, value in values:
        if value != on:
            if on:
                found.append((begun, at))
            on, begun = value, at
    return [*found, (begun, until)] if on else found


def bank_svg(board: Board, element: str, written: str) -> str:
    """A switch bank as it hangs: a slot a place in the order in which the eye meets them, numbered, its slider as it points."""
    hanging = hanging_of(board, element)
    down = hanging.axis == "down"
    slots = []
    for slot, (number, mark) in enumerate(hanging.seen(list(enumerate(written, 1)))):
        at = 3 + slot * 13
        x, y, wide, high = (12, at, 26, 10) if down else (at, 12, 10, 26)
        way = hanging.points(mark)
        far = 12 if way in ("down", "right") else 0
        slots.append(
            f'<rect x="{x}" y="{y}" width="{wide}" height="{high}" fill="none" stroke="#1d1b19" stroke-width="0.9"/>'
            + (
                ""
                if way is None
                else f'<rect x="{x + 1.2 + (far if down else 0):g}" y="{y + 1.2 + (0 if down else far):g}" '
                f'width="{12 if down else 7.6}" height="{7.6 if down else 12}" fill="#1d1b19"/>'
            )
            + f'<text x="{5 if down else x + 5}" y="{y + 8 if down else 48}" font-size="8" text-anchor="middle">{number}</text>'
        )
    long, deep = 6 + len(written) * 13, 52
    width, height = (deep, long) if down else (long, deep)
    return (
        f'<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 {width} {height}" width="{width * 0.23:.1f}mm" role="img">'
        f"{''.join(slots)}</svg>"
    )


def as_set(board: Board, positions: Mapping[str, Any]) -> list[dict[str, str]]:
    """What is to be set on a board, element by element: a bank drawn as it hangs with its digits so, anything else in words."""
    found = []
    for element in board.elements:
        if element.id not in positions:
            continue
        written = str(positions[element.id])
        if element.kind == "dip":
            svg, words = bank_svg(board, element.id, written), seen_words(board, element.id, written)
        else:
            svg, words = "", written
        found.append({"id": element.id, "svg": svg, "words": words})
    return found
