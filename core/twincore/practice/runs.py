"""What the machine of a task can be made to do, so that every mistake shows itself in what it does."""

from collections.abc import Iterator
from dataclasses import replace
from typing import Any

from twincore.behaviour import Proof, Twin, make_twin, prove, simulate
from twincore.errors import TwinError
from twincore.practice.task import Boards, Run
from twincore.profile import Record, Scenario, Value
from twincore.settings import Carried, carry

MOST_RUNS = 16
MOST_TRIED = 32
"""Single mistakes for which it is seen to that some run shows them."""
LIMIT = 15_000
"""Arrivals of a twin check while a task is made, and while it is played."""
SHALLOW = 600
"""Arrivals in which a run that shows a mistake is looked for: of 69 mistakes on nine pairs every one was found in 500."""
AGAIN_AND_AGAIN = (10, 50)
"""So often a run of the family is made one after another, for what shows only after many, as a count that is too high by one."""
SEEN_S = 5
"""For so long a difference stands before a run ends: it is seen, not caught."""


def runs_for(boards: Boards, stood: Record, carried: Carried) -> tuple[Run, ...]:
    """The family's runs, and for each single mistake that none of them shows one that does."""
    assert carried.record is not None  # a task has a right answer
    nodes = boards.family.document.get("scenarios", ())
    runs = [Run(node["id"], each.title, each) for node, each in zip(nodes, boards.family.scenarios, strict=True)]
    right = _twin(boards, stood, carried.record)
    for record in mistakes(boards, carried.record):
        if len(runs) >= MOST_RUNS:
            break
        if _twin(boards, stood, record).values == right.values:
            continue  # every function is within its tolerance, as it should be
        if any(parts(boards, record, carried.record, each.scenario) for each in runs):
            continue
        proof = _parted(boards, stood, record)
        found = _shows(boards, proof, record, carried.record) if proof.verdict == "different" else None
        if proof.verdict == "not proved":
            found = _in_time(boards, record, carried.record)
        if found is not None:
            runs.append(Run(f"more-{len(runs)}", "", found))
    return tuple(runs)


def telling_runs(boards: Boards, stood: Record) -> tuple[Run, ...]:
    """A run in which the machine does otherwise than it did, set as well as this board can be; none where it does not."""
    best = carry(boards.original, stood, boards.replacement, boards.family).record
    proof = None if best is None else proof_of(boards, stood, best)
    if proof is None or proof.counter_case is None:
        return ()
    return (Run("other", "", Scenario("", proof.counter_case.steps, proof.counter_case.at + SEEN_S)),)


def _in_time(boards: Boards, wrong: Record, right: Record) -> Scenario | None:
    """A run of the family that shows a mistake when it is made again and again."""
    for often in AGAIN_AND_AGAIN:
        for each in boards.family.scenarios:
            longer = _again(each, often)
            if parts(boards, wrong, right, longer):
                return longer
    return None


def _again(run: Scenario, often: int) -> Scenario:
    """A run made so often, one after another."""
    steps = [replace(step, at=step.at + number * run.until) for number in range(often) for step in run.steps]
    return Scenario("", tuple(steps), run.until * often)


def _shows(boards: Boards, proof: Proof, wrong: Record, right: Record) -> Scenario | None:
    """A run in which the machine set wrong does something else than set right: the counter-case; where that hangs on a number
    that right differs in within its tolerance, one of the board against itself.
    """
    own = replace(boards, original=boards.replacement)
    return _shown(boards, proof, wrong, right) or _shown(boards, _parted(own, right, wrong), wrong, right)


def _shown(boards: Boards, proof: Proof, wrong: Record, right: Record) -> Scenario | None:
    case = proof.counter_case
    scenario = case and Scenario("", case.steps, case.at + SEEN_S)
    return scenario if scenario and parts(boards, wrong, right, scenario) else None


def mistakes(boards: Boards, right: Record) -> Iterator[Record]:
    """The replacement with one position wrong: each free one, one place further and one less."""
    tried = 0
    for name, point in boards.replacement.points.items():
        value = right.points[name]
        if point.locked or value is None:
            continue
        at = point.domain.index(value)
        for other in (at - 1, at + 1):
            if 0 <= other < len(point.domain) and tried < MOST_TRIED:
                tried += 1
                wrong: Value = point.domain[other]
                yield replace(right, points={**right.points, name: wrong})


def proof_of(boards: Boards, stood: Record, record: Record) -> Proof:
    """The twin check of the machine as it was and as it is set."""
    return prove(_twin(boards, stood, record), LIMIT)


def _parted(boards: Boards, stood: Record, wrong: Record) -> Proof:
    """The same where a difference is expected, and looked for not far from the start."""
    return prove(_twin(boards, stood, wrong), SHALLOW, cheap=False)


def _twin(boards: Boards, stood: Record, record: Record) -> Twin:
    return make_twin(boards.original, stood, boards.replacement, record, boards.family)


def parts(boards: Boards, one: Record, other: Record, scenario: Scenario) -> bool:
    """Whether the machine does something else in a run, set so or so."""

    def seen(record: Record) -> list[tuple[Any, list[str]]]:
        found: list[tuple[Any, list[str]]] = []
        for entry in simulate(boards.replacement, record, boards.family, scenario):
            on = [name for name in entry.on if name in boards.family.compared]
            if not found or found[-1][1] != on:
                found.append((entry.at, on))
        return found

    try:
        return seen(one) != seen(other)
    except TwinError:
        # it stands still or never settles: that is seen too
        return True
