"""What a kind of element is: all that is particular to it, on a board, in a record, in registers, in a chart and in a sketch."""

from abc import ABC, abstractmethod
from collections.abc import Sequence
from dataclasses import dataclass
from fractions import Fraction
from typing import Any, ClassVar, Literal, Protocol

from twincore.profile.faults import FaultList, known
from twincore.profile.values import Value

Coding = Literal["bcd", "complement"]
"""What a thumbwheel's contacts give for each digit: its four bits, or each of them the other way round."""


@dataclass(frozen=True, slots=True)
class Point:
    """One thing that can be set; `domain` in the order in which carry-over prefers."""

    id: str
    domain: tuple[Value, ...]
    factory: Value
    locked: bool


class Sketched(Protocol):
    """An element as somebody sketched it: see `twincore.sketch`."""

    @property
    def id(self) -> str:
        """Its name."""

    @property
    def places(self) -> int:
        """How many places it has."""

    @property
    def values(self) -> tuple[str, ...]:
        """What it may stand at."""

    @property
    def on(self) -> str | None:
        """The way in which a switch that is on points."""

    @property
    def first(self) -> str | None:
        """The end at which number 1 is."""

    @property
    def unit(self) -> str:
        """The unit of its number."""

    @property
    def span(self) -> tuple[float, float, float] | None:
        """The lowest and highest number, and the step."""

    @property
    def upright(self) -> bool:
        """Whether its places run from top to bottom."""


class Built(Protocol):
    """An element as it is built of a board: see `twincore.profile.elements`."""

    @property
    def points(self) -> tuple[Point, ...]:
        """Its points, in their order."""

    @property
    def domain(self) -> tuple[Value, ...]:
        """What its point, or each of its places, may be."""

    @property
    def coding(self) -> Coding | None:
        """How its contacts are coded; None where they are not."""


class Kind(ABC):
    """A kind of element; see `docs/add-an-element-kind.md`."""

    name: ClassVar[str]
    placed: ClassVar[bool] = False
    """Whether it has a point a place, which a record writes as one text."""
    places_key: ClassVar[str] = ""
    """The key of a document that counts its places."""
    on_off: ClassVar[bool] = False
    """Whether its places are on or off."""
    spells_number: ClassVar[bool] = False
    """Whether its places spell a number, from which a function may be read."""
    ranged: ClassVar[bool] = False
    """Whether its values are the numbers of a range, of which there may be very many."""
    turned: ClassVar[bool] = False
    """Whether it stands at an angle that can be read."""
    powered: ClassVar[bool] = False
    """Whether a board shows it and nobody can see it."""
    readable: ClassVar[bool] = False
    """Whether it can be read in a picture."""
    panels: ClassVar[tuple[str, ...]] = ()
    """The kinds of panel that set it."""
    seen: ClassVar[tuple[str, str] | None] = None
    """What one and several are called where they are counted on a board that nobody knows yet."""
    chart_words: ClassVar[tuple[str, ...]] = ()
    """What data sheets call the only element of its kind (common practice, no source)."""
    notation: ClassVar[str] = ""
    """The word for it in a sketch; none where it is not sketched."""
    most_places: ClassVar[int] = 0
    """The places that a sketch counts; 0 where it does not count any."""
    usual_values: ClassVar[str] = ""
    """What it may stand at where a sketch does not say it."""

    @abstractmethod
    def points(self, node: dict[str, Any], place: str, faults: FaultList) -> tuple[Point, ...]:
        """The points that it gives, from a part of a board whose structure was checked; none where it is faulty."""

    def coding(self, node: dict[str, Any]) -> Coding | None:
        """How its contacts are coded; None where they are not."""
        return None

    def symbols(self, domain: Sequence[Value]) -> dict[str, Value]:
        """What each written symbol means; the same for every place."""
        return {str(value): value for value in domain}

    def write(self, values: Sequence[Value | None]) -> Value:
        """The element as a record writes it; None is unreadable."""
        if self.placed:
            return "".join("?" if value is None else str(value) for value in values)
        return "?" if values[0] is None else values[0]

    def is_written_as(self, written: Any) -> bool:
        """Whether something written has the form of a value that is no list of places."""
        return isinstance(written, str)

    def wanted(self, domain: Sequence[Any]) -> str:
        """What a position must be, in words."""
        return "one of " + known(domain)

    # in registers of 16 bits: places are digits of a number whose base is the domain, the first weighing most

    def register_bits(self, element: Built, scale: Fraction) -> int:
        """How many bits every position fits into."""
        return (int(len(element.domain) ** len(element.points)) - 1).bit_length()

    def to_register(self, element: Built, values: Sequence[Value], scale: Fraction) -> int:
        """The number that stands for a position."""
        raw = 0
        for value in values:
            raw = raw * len(element.domain) + element.domain.index(value)
        return raw

    def from_register(self, element: Built, raw: int, scale: Fraction, bits: int) -> list[Value | None] | None:
        """The position that a number of so many bits stands for; None where it stands for none, or a place of it for none."""
        places: list[Value | None] = []
        for _ in element.points:
            raw, index = divmod(raw, len(element.domain))
            places.append(element.domain[index])
        return None if raw else places[::-1]

    # in a sketch

    @abstractmethod
    def setting(self, sketched: Sketched) -> dict[str, Any]:
        """What a board's document says of one that was sketched."""

    @abstractmethod
    def sketch_words(self, sketched: Sketched) -> str:
        """One that was sketched, read back in words."""

    def size_mm(self, sketched: Sketched) -> tuple[float, float] | None:
        """How wide and high it is drawn where nobody measured it; None for one that cannot be seen."""
        return None if self.powered else (14.0, 14.0)
