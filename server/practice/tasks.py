"""Tasks from the boards of the catalogue: drawn by a seed, and made of the revisions that they name."""

from collections.abc import Iterator
from functools import lru_cache
from random import Random
from time import monotonic
from typing import NamedTuple

from django.db.models import F, QuerySet

from bench.kept import kept
from catalogue.models import Board, BoardRevision, FamilyRevision
from catalogue.profiles import board_profile, family_profile, rule_out_data
from catalogue.queries import guide
from people.models import Person
from twincore.practice import MOST_OTHERS, Boards, Level, NoTask, Task, make_task
from twinshown.practice.schemas import TaskNamed
from twinshown.refusals import NotAnswered, NotThere

LONGEST_S = 6.0
"""How long boards are looked for that make a task."""
MOST_TRIED, MOST_BESIDE = 60, 200
"""So many boards of the catalogue are tried, each beside so many of its kind of machine."""
WITH_FAULTS: tuple[Level, ...] = ("find", "whole")
"""Levels that ask what the family knows of faults."""
OF_ONE: tuple[Level, ...] = ("read", "keys", "meter", "find", "safe")
"""Levels of one board: nothing goes in for it."""


class Drawn(NamedTuple):
    """A task with what makes it."""

    named: TaskNamed
    task: Task


BY_NUMBER = ("part_number", F("depot").asc(nulls_last=True), "pk")
"""Of two boards of one number a depot's own comes first."""


class Candidate(NamedTuple):
    """A board in its current revision."""

    part_number: str
    revision: int
    kind: str
    family_revision: int


def task_of(person: Person, named: TaskNamed) -> Task:
    """The task that these revisions make. Raises NotThere for boards that this depot does not see, NotAnswered where they make none."""
    wanted = {named.original, named.replacement, *named.others}
    seen = BoardRevision.objects.filter(pk__in=wanted, board__in=Board.objects.seen_by(person.depot_id))
    families = set(seen.values_list("board__family_id", flat=True))
    if seen.count() != len(wanted) or len(families) != 1:
        raise NotThere("The boards of this task are not in the catalogue.")
    if not FamilyRevision.objects.filter(pk=named.family, family_id__in=families).exists():
        raise NotThere("The kind of machine of this task is not in the catalogue.")
    if named.rule_out is not None and named.rule_out != _rule_out(next(iter(families))):
        raise NotThere("What is known of faults was changed since this task was made. Take a new one.")
    try:
        return _made(
            named.level,
            named.seed,
            named.family,
            named.original,
            named.replacement,
            named.rule_out,
            tuple(named.others),
        )
    except NoTask as error:
        raise NotAnswered(f"These boards make no such task: {error}.") from error


@lru_cache(maxsize=64)
def _made(
    level: Level, seed: int, family: int, original: int, replacement: int, rule_out: int | None, others: tuple[int, ...]
) -> Task:
    data = None if rule_out is None else rule_out_data(rule_out)
    offered = tuple(board_profile(each) for each in others)
    boards = Boards(family_profile(family), board_profile(original), board_profile(replacement), data, offered)
    return make_task(level, boards, seed)


def _rule_out(kind: str) -> int | None:
    found = guide("rule-out", kind)
    return found.current_id if found else None


def draw_task(person: Person, level: Level, seed: int, original: str = "", replacement: str = "") -> Drawn:
    """A task of a level, of these boards or of boards that the seed draws. Raises NotThere, NotAnswered."""
    begun = monotonic()
    for one, other in _pairs(person, level, seed, original, replacement):
        named = TaskNamed(
            level=level, seed=seed, family=one.family_revision, original=one.revision, replacement=other.revision,
            rule_out=_rule_out(one.kind) if level in WITH_FAULTS else None,
            others=_others(person, one, other, seed) if level == "whole" else [],
        )  # fmt: skip
        if original and (replacement or level in OF_ONE):
            # these and no others were asked for: why they make none is the answer
            return Drawn(named, task_of(person, named))
        if (task := _task_if_any(person, named)) is not None:
            return Drawn(named, task)
        if monotonic() - begun > LONGEST_S:
            break
    raise NotAnswered("No boards of the catalogue were found that make such a task. Choose two boards yourself.")


def _task_if_any(person: Person, named: TaskNamed) -> Task | None:
    """The task of two boards, if they make one; whether they make any of a level is asked once for each two revisions."""
    made: list[Task] = []

    def makes_one() -> bool:
        try:
            made.append(task_of(person, named))
        except NotAnswered:
            return False
        return True

    # which boards are offered beside these two makes no difference
    parts = (named.level, named.family, named.original, named.replacement, named.rule_out)
    if kept(f"practice-{'-'.join(map(str, parts))}", makes_one) and not made:
        makes_one()
    return made[0] if made else None


def _pairs(
    person: Person, level: Level, seed: int, original: str, replacement: str
) -> Iterator[tuple[Candidate, Candidate]]:
    """Two boards of one kind of machine, in the order in which the seed draws them."""
    rows = (
        Board.objects.seen_by(person.depot_id)
        .filter(current__isnull=False, withdrawn__isnull=True, family__current__isnull=False)
        .order_by(*BY_NUMBER)
    )
    ones = rows.filter(part_number=original) if original else rows
    number = ones.count()
    if number == 0:
        raise NotThere(
            f"There is no board {original} in the catalogue." if original else "The catalogue has no boards yet."
        )
    rng = Random(f"{level} {seed}")
    # of a large catalogue some are looked at: nobody waits for all of it
    for place in rng.sample(range(number), min(number, MOST_TRIED)):
        (one,) = _candidates(ones[place : place + 1])
        if level in OF_ONE:
            yield one, one
            continue
        beside = rows.filter(family=one.kind).exclude(part_number=one.part_number)
        others = _candidates((beside.filter(part_number=replacement) if replacement else beside)[:MOST_BESIDE])
        for other in rng.sample(others, len(others)):
            yield one, other


def _others(person: Person, one: Candidate, other: Candidate, seed: int) -> list[int]:
    """Boards of the same kind of machine that are offered beside two."""
    seen = Board.objects.seen_by(person.depot_id).filter(current__isnull=False, withdrawn__isnull=True, family=one.kind)
    beside = seen.exclude(part_number__in=[one.part_number, other.part_number])
    found = _candidates(beside.order_by(*BY_NUMBER)[:MOST_BESIDE])
    return [each.revision for each in Random(f"others {seed}").sample(found, min(MOST_OTHERS, len(found)))]


def _candidates(rows: QuerySet[Board]) -> list[Candidate]:
    """Boards, each number once: where a depot has one of its own, that one."""
    found: dict[str, Candidate] = {}
    for row in rows.values_list("part_number", "current_id", "family_id", "family__current_id"):
        found.setdefault(row[0], Candidate(*row))
    return list(found.values())
