"""What is looked at and read on the running machine: the check list, and readings against their bands."""

from collections.abc import Mapping
from typing import Any

from twincore.job.case import Case
from twincore.job.rules.order import cleared
from twincore.job.shared.facts import fact_values
from twincore.job.targets.prove import CheckKept
from twincore.measure import Judgement, judge, judge_beyond
from twincore.profile import Board, Family
from twincore.prove import OWN, CheckLine, ReadingWanted, check_lines, readings_of

LINES = {
    "output": "{} comes on and goes off again", "input": "{} is made, and the board answers",
    "supply": "Supply off and on again: it comes back as it should", "codes": "No fault is shown",
    "leaks": "No leak, no smell, nothing hot or loose", "own": "{}",
}  # fmt: skip
"""What is looked at, by kind of line."""


def board_in(case: Case) -> Board | None:
    """The board that is in the machine when it is looked at: the new one, or the old one where that was cleared."""
    return case.original if cleared(case.state) else case.replacement


def check_list(case: Case) -> list[CheckLine]:
    """What this machine is looked at for once the work is done."""
    own = {name: kept.get("what", "") for name, kept in case.state["checks"].items() if name.startswith(OWN)}
    return check_lines(case.family, board_in(case), own)


def wanted_readings(case: Case) -> list[ReadingWanted]:
    """The readings that this machine is to show."""
    return readings_of(case.family, fact_values(case)) if case.family else []


def judged_reading(wanted: ReadingWanted, said: Mapping[str, Any]) -> Judgement:
    """Where a reading lies against its band."""
    value = None if said.get("value") is None else float(said["value"])
    if (beyond := said.get("beyond")) is not None or value is None:
        return judge_beyond(beyond or "above", value, wanted.band)
    return judge(value, wanted.band, float(said.get("uncertainty", wanted.uncertainty)))


def not_so(case: Case) -> list[str]:
    """The lines of the check list that are not as they should be, in words."""
    looked_at = case.state["checks"]
    return [
        f"{line_words(line, case.family)}: not as it should be"
        for line in check_list(case)
        if _wrong(looked_at.get(line.id))
    ]


def looked_at(case: Case) -> bool:
    """Whether every line of the check list was answered, and something of it was seen."""
    said = case.state["checks"]
    return all(line.id in said for line in check_list(case)) and _anything_seen(case)


def _anything_seen(case: Case) -> bool:
    return any(not each.get("absent") for each in case.state["checks"].values())


def nothing_seen(case: Case) -> list[str]:
    """Where nothing at all was looked at on the machine, in words."""
    return [] if _anything_seen(case) else ["nothing was looked at on the machine"]


def outside(case: Case) -> list[str]:
    """The readings that lie outside their bands, in words."""
    found = []
    for reading in wanted_readings(case):
        said = case.state["readings"].get(reading.id)
        if said and judged_reading(reading, said).verdict == "outside":
            found.append(f"{reading.title} outside its band")
    return found


def line_words(line: CheckLine, family: Family | None) -> str:
    """What a line of the check list is about."""
    return LINES[line.kind].format(family.titles.get(line.of, line.of) if family else line.of)


def _wrong(said: CheckKept | None) -> bool:
    return said is not None and not said["ok"]
