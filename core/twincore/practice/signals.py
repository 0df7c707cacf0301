"""What the pins of a board carry: which of the machine's outputs and inputs."""

from collections.abc import Mapping
from typing import Any

from twincore.profile import Board, Family
from twincore.wiring import Pin, plugs_of


def pins_of(board: Board, family: Family) -> list[Pin]:
    """Every pin of a board, in the order of its plugs."""
    return [pin for plug in plugs_of(board, family).values() for pin in plug.pins.values()]


def kind_of(family: Family, signal: str) -> Mapping[str, Any]:
    """What the family says of a signal."""
    found: Mapping[str, Any] = next(each for each in family.document["signals"] if each["id"] == signal)
    return found


def output_of(family: Family, signal: str) -> str | None:
    """The output that a pin drives."""
    first = signal.split(".")[0]
    return first if kind_of(family, signal)["kind"] == "output" and first in family.outputs else None


def input_of(family: Family, signal: str) -> str | None:
    """The input that a pin brings: of the same name, or the one that says what is well with it (`door`: `door_shut`)."""
    if kind_of(family, signal)["kind"] != "input":
        return None
    first = signal.split(".")[0]
    return next((name for name in family.flags if name == first or name.startswith(f"{first}_")), None)
