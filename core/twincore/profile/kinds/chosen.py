"""Elements that stand at one of some values: dials, jumpers, trimmers, program numbers, links, memory chips."""

from typing import Any, ClassVar

from twincore.profile.faults import FaultList
from twincore.profile.kinds.base import Kind, Point, Sketched


class Chosen(Kind):
    """One that stands at one of its `values`: such a kind needs no more than its name."""

    called: ClassVar[str] = ""
    """What it is called in words; its name where nothing else is said."""

    def points(self, node: dict[str, Any], place: str, faults: FaultList) -> tuple[Point, ...]:
        """One point, with the values in the order of the file."""
        return (Point(node["id"], tuple(node["values"]), node["factory"], node.get("locked") is True),)

    def setting(self, sketched: Sketched) -> dict[str, Any]:
        """What a board's document says of one that was sketched."""
        return {
            "id": sketched.id, "kind": self.name, "values": list(sketched.values), "factory": sketched.values[0]
        }  # fmt: skip

    def sketch_words(self, sketched: Sketched) -> str:
        """One that was sketched, in words."""
        return f"a {self.called or self.name} that may stand at {', '.join(sketched.values)}"


class Rotary(Chosen):
    """A dial with numbered settings."""

    name, called, notation, usual_values = "rotary", "dial", "dial", "0..9"
    panels = ("menu", "cycle", "dial", "guided")
    seen, chart_words = ("selector", "selectors"), ("dial", "selector", "rotary")


class Jumper(Chosen):
    """A pluggable link."""

    name, notation = "jumper", "jumper"
    seen, chart_words = ("jumper", "jumpers"), ("jumper",)


class Program(Chosen):
    """A program number that a board shows."""

    name, called, notation, usual_values, powered = "program", "program number", "program", "A..F", True
    panels = ("menu", "cycle", "dial", "guided")
    chart_words = ("program", "program number", "programme")


class Trimmer(Chosen):
    """A trimmer, at one of its marks; its angle can be read."""

    name, notation, usual_values, turned = "trimmer", "trimmer", "0..10", True
    seen, chart_words = ("trimmer", "trimmers"), ("trimmer", "pot")


class Link(Chosen):
    """A soldered or plugged-in link."""

    name, panels = "link", ("menu", "guided")


class Memory(Chosen):
    """A memory chip, by what is in it."""

    name, panels = "memory", ("menu", "cycle", "guided")
