"""Choose: what the API shows of the board that was chosen."""

from twinshown.comparison.schemas import Positions
from twinshown.shapes import Schema


class TakenShown(Schema):
    """One thing to have at hand, and why; `unknown` are facts that would say whether it is needed."""

    what: str
    count: int
    why: str
    needed: str
    unknown: list[str]


class AlternativeShown(Schema):
    """A candidate as it stood when the choice was made."""

    part_number: str
    verdict: str
    closeness: str
    minutes: float
    price: float | None
    days: float | None
    cells: dict[str, str]


class TakeAlongShown(Schema):
    """What to take along, and how the new board would be set as far as is known now."""

    lines: list[TakenShown]
    positions: Positions | None
    basis: str
