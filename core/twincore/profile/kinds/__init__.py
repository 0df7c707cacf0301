"""The kinds of element, each registered once."""

from twincore.profile.kinds.base import Coding, Kind, Point, Sketched
from twincore.profile.kinds.chosen import Jumper, Link, Memory, Program, Rotary, Trimmer
from twincore.profile.kinds.parameter import Parameter
from twincore.profile.kinds.placed import WHEEL_MASK, Code, Dip, Thumbwheel

KINDS: dict[str, Kind] = {
    kind.name: kind
    for kind in (
        Dip(), Rotary(), Trimmer(), Jumper(), Program(), Link(), Memory(), Parameter(), Code(), Thumbwheel(),
    )
}  # fmt: skip
"""By the name that files give them. What a file may say of each is in `schemas/board.schema.json`."""

__all__ = ["KINDS", "WHEEL_MASK", "Coding", "Kind", "Point", "Sketched"]
