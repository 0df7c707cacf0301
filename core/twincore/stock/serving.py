"""Who serves whom, and how well: the judgement of a candidate in the words of a van's shelf."""

from collections.abc import Mapping, Sequence
from typing import Literal

from twincore.choose import Candidate
from twincore.stock.failures import drawn, prior_of
from twincore.stock.served import Served
from twincore.stock.wanted import Kind

Grade = Literal["proved", "work", "listed"]
GRADES: tuple[Grade, ...] = ("proved", "work", "listed")
"""Proved twins that go in as they are; with work allowed; and what is only not known to fail."""
ALIKE = ("identical", "within tolerance")
DAYS_A_YEAR = 365.0
USUAL = 0.05
"""Failures a machine and year where nothing was counted (rough, common practice, no source)."""


def grade_of(candidate: Candidate) -> Grade | None:
    """How well a candidate serves; None where it does not: its fit is "no", its settings have no place, or it is different."""
    if candidate.verdict == "no" or candidate.closeness in ("different", "no position"):
        return None
    if candidate.closeness not in ALIKE or candidate.verdict == "to check":
        return "listed"
    return "proved" if candidate.verdict == "fits" else "work"


def failures_of(
    served: Sequence[Served], families: Mapping[str, str], days: float, usual: float = USUAL
) -> list[float]:
    """The expected failures of each row in so many days.

    Counts of a board are those of all its rows, drawn towards what is usual among the boards of its family.
    """
    counted: dict[str, tuple[float, float]] = {}
    for row in served:
        failed, years = counted.get(row.board, (0.0, 0.0))
        counted[row.board] = (failed + row.failed, years + row.years)
    of_family: dict[str, list[tuple[float, float]]] = {}
    for board, count in counted.items():
        of_family.setdefault(families.get(board, board), []).append(count)
    usually = {family: prior_of(counts, usual) for family, counts in of_family.items()}
    rates = {board: drawn(usually[families.get(board, board)], *count).mean for board, count in counted.items()}
    return [row.machines * rates[row.board] * days / DAYS_A_YEAR for row in served]


def kinds_of(
    served: Sequence[Served], failures: Sequence[float], grades: Sequence[Mapping[str, Grade]], least: Grade
) -> list[Kind]:
    """The rows to plan for; `grades` says of each row which pieces serve it, `least` what is enough."""
    enough = GRADES[: GRADES.index(least) + 1]
    return [
        Kind(f"{row.van}: {row.board} (row {number})", row.van, expected, {
            piece: 1.0 for piece, grade in grade_by.items() if grade in enough
        })
        for number, (row, expected, grade_by) in enumerate(zip(served, failures, grades, strict=True), start=1)
    ]  # fmt: skip
