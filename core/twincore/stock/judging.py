"""Which pieces put a machine right, judged as Choose judges candidates."""

from collections.abc import Callable, Iterable, Sequence
from dataclasses import dataclass

from twincore.choose import Fitting, Machine, Statement, TwinChecked, Way, judge_candidate
from twincore.stock.serving import Grade, grade_of


@dataclass(frozen=True, slots=True)
class Considered:
    """A board, a kit, or a set of boards, that may put a machine right."""

    fitting: Fitting
    way: Way | None
    twin: Callable[[], TwinChecked | None]
    """Carry-over and twin check; asked for only where nothing else says no."""
    again: Callable[[TwinChecked], bool]
    """Whether a second program agrees that it never does anything else; asked for only where the twin check says so."""
    elsewhere: Sequence[Statement] = ()
    """What is said of it for other machines."""


def pieces_that_serve(machine: Machine, considered: Iterable[Considered]) -> dict[str, Grade]:
    """The pieces that serve a machine, and how well."""
    found: dict[str, Grade] = {}
    for each in considered:
        if judge_candidate(machine, each.fitting, each.way, None, None, each.elsewhere).verdict == "no":
            continue
        twin = each.twin()
        grade = grade_of(judge_candidate(machine, each.fitting, each.way, twin, None, each.elsewhere))
        if grade in ("proved", "work") and not (twin and each.again(twin)):
            # what is counted as a proved twin was checked twice
            grade = "listed"
        if grade is not None:
            found[each.fitting.part_number] = grade
    return found
