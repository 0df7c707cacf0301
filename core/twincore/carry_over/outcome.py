"""One function of a machine before and after: what was found, what is wanted and by whose word, what the new board is left at."""

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Literal

from twincore.profile import Board, Family, Record
from twincore.settings import CarriedFunction, Decoded, School, judge

Word = Literal["found", "owner"] | School
"""By whose word something is wanted: as it was found, as the owner wishes, or as another school than that of functions has it."""


@dataclass(frozen=True, slots=True)
class Wanted:
    """What the new board should do, and by whose word."""

    value: Decoded
    word: Word = "found"


@dataclass(frozen=True, slots=True)
class Outcome:
    """A function as it was found, as it is wanted, and as the new board gives it.

    Whether the two boards are alike in it is judged from what was found and what is given alone; whether anybody still has to
    decide about it, from what is wanted.
    """

    id: str
    importance: str
    found: Decoded | None
    """None where the old board does not have it, and nothing says what it is then."""
    wanted: Wanted
    compared: CarriedFunction | None
    """What is given held against what was found."""
    asked: CarriedFunction
    """What is given held against what is wanted."""
    assumed: bool = False
    """Whether what was found is told only by positions that somebody assumed."""

    @property
    def verdict(self) -> str:
        """How the new board compares with what was found; a difference that the owner wants, and has, is as wanted."""
        if self.compared is None:
            return "only on the new board"
        wanted = self.wanted.word == "owner" and self.asked.met and not self.compared.met
        return "as wanted" if wanted else self.compared.verdict

    @property
    def otherwise(self) -> bool:
        """Whether something else is wanted than what was found."""
        return self.wanted.word != "found" and self.wanted.value != self.found


def outcomes(
    found: Mapping[str, Decoded],
    wanted: Mapping[str, Wanted],
    read: Mapping[str, Decoded],
    replacement: Board,
    record: Record,
    family: Family,
) -> tuple[Outcome, ...]:
    """Every function of a pair in the family's order, the new board standing as in `record`.

    `found` is what the old board did, assumed positions included; `read` is what its readable positions alone tell. `wanted` has
    every function of `found`, and those that the owner wants besides.
    """
    compared = {each.id: each for each in judge(dict(found), replacement, record, family)}
    asked = judge({name: each.value for name, each in wanted.items()}, replacement, record, family)
    return tuple(
        Outcome(
            each.id,
            each.importance,
            was := found.get(each.id),
            wanted[each.id],
            compared.get(each.id),
            each,
            assumed=was is not None and was.decided and not read[each.id].decided,
        )
        for each in asked
    )
