"""Values and positions as people write them in leaflets and spreadsheets, read and written back.

The writings are common practice, no source: "90", "90 s", "1 min 30", "1:30"; on/off, 1/0, yes/no, a full or an empty dot.
"""

import re
from collections.abc import Sequence

from twincore.profile import FunctionDef, Point, Value
from twincore.profile.values import LARGEST, Number, exact, is_number, tidy

YES = {"on", "1", "yes", "y", "true", "closed", "●", "■", "x", "✓"}
NO = {"off", "0", "no", "n", "false", "open", "○", "□"}
LEFT_OPEN = {"", "-", "–", "—", "any", "all", "*"}
"""What a cell says that says nothing."""
SECONDS = {
    "s": 1, "sec": 1, "secs": 1, "second": 1, "seconds": 1, "″": 1, '"': 1,
    "m": 60, "min": 60, "mins": 60, "minute": 60, "minutes": 60, "′": 60, "'": 60,
    "h": 3600, "hr": 3600, "hrs": 3600, "hour": 3600, "hours": 3600, "ms": None,
}  # fmt: skip
CLOCK = re.compile(r"(\d{1,3}):([0-5]\d)(?::([0-5]\d))?")
TIMED = re.compile(r"(\d+(?:[.,]\d+)?)\s*([a-z″\"′']*)\s*")
NUMBER = re.compile(r"[-+]?\d+(?:[.,]\d+)?")


def read_value(text: str, definition: FunctionDef) -> Value | None:
    """The value of a function that a text writes; None where it writes none.

    Durations come out in seconds, other numbers in the function's own unit, which may stand behind them.
    """
    said = text.strip()
    match definition.type:
        case "choice":
            return _chosen(said, definition.choices)
        case "flag":
            return True if said.lower() in YES else False if said.lower() in NO else None
        case "duration":
            found = read_seconds(said)
        case _:
            found = read_number(said, definition.unit)
    return found if found is not None and definition.accepts(found) else None


def read_seconds(text: str) -> Number | None:
    """How many seconds a text writes: "90", "90 s", "1 min 30", "1:30" (minutes and seconds), "1:00:00"."""
    said = text.strip().lower()
    if clock := CLOCK.fullmatch(said):
        first, second, third = (int(each or 0) for each in clock.groups())
        return first * 3600 + second * 60 + third if clock.group(3) else first * 60 + second
    total: Number = 0
    last = 0
    at = 0
    while at < len(said):
        part = TIMED.match(said, at)
        if part is None:
            return None
        unit = part.group(2)
        # a bare number behind minutes is seconds, as in "1 min 30"; a bare number alone is seconds too
        weight = SECONDS.get(unit) if unit else {3600: 60}.get(last, 1)
        number = _number(part.group(1))
        if weight is None or number is None or (last and weight >= last):
            return None
        total, last, at = total + number * weight, weight, part.end()
    return tidy(total) if last and total <= LARGEST else None


def read_number(text: str, unit: str = "") -> Number | None:
    """The number that a text writes, with a decimal point or comma, and with or without its unit."""
    said = text.strip()
    if unit and said.lower().endswith(unit.lower()):
        said = said[: -len(unit)].strip()
    return _number(said) if NUMBER.fullmatch(said) else None


def read_flag(text: str) -> bool | None:
    """Whether a text says yes or no; None where it says neither."""
    said = text.strip().lower()
    return True if said in YES else False if said in NO else None


def read_position(text: str, point: Point, on_is: str | None = None) -> Value | None:
    """Where a point stands by a text; None where it says nothing of the kind.

    `on_is` is the way in which a switch that is on points, as the board hangs ("up"): a leaflet may say so instead of on.
    """
    said = text.strip()
    if set(point.domain) == {"off", "on"}:
        if said.lower() in ("up", "down", "left", "right"):
            return None if on_is is None else "on" if said.lower() == on_is else "off"
        flag = read_flag(said)
        return None if flag is None else "on" if flag else "off"
    if is_number(point.domain[0]):
        number = read_number(said)
        return number if number in point.domain else None
    found = _chosen(said, [str(each) for each in point.domain])
    return next((each for each in point.domain if str(each) == found), None)


def value_text(value: Value) -> str:
    """A value as its cell shows it: without a unit, true and false as yes and no."""
    if isinstance(value, bool):
        return "yes" if value else "no"
    return f"{float(value):.12g}" if is_number(value) else str(value)


def _number(text: str) -> Number | None:
    try:
        return exact(text.replace(",", ".").lstrip("+"))
    except ValueError:
        return None  # beyond what documents write


def _chosen(text: str, among: Sequence[str]) -> str | None:
    """The one of several texts that is meant: as written, whatever the case, or the only one that begins so."""
    if text in among:
        return text
    small = text.lower()
    alike = [each for each in among if each.lower() == small] or (
        [each for each in among if each.lower().startswith(small)] if small else []
    )
    return alike[0] if len(alike) == 1 else None
