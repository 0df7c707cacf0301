"""Use cases of practice: keep what somebody did, and look after groups of learners."""

from collections.abc import Sequence
from dataclasses import asdict
from datetime import datetime, timedelta
from typing import Any
from uuid import UUID

from django.db import IntegrityError, transaction

from people.access import depot_of, require_parts_lead
from people.models import Person
from practice.models import Attempt, Group, SkillHeld
from practice.tasks import draw_task, task_of
from twincore.practice import Level, Skill, Task, after_task, parse_tasks
from twinshown.practice.schemas import Laid, TaskNamed
from twinshown.practice.view import play, play_shown
from twinshown.refusals import Faulty, NotThere, Refused


@transaction.atomic
def keep_attempt(
    person: Person, id: UUID, named: TaskNamed, actions: Sequence[dict[str, Any]], seconds: float, made: datetime | None,
    now: datetime,
) -> Laid:  # fmt: skip
    """Keep a task that was ended, and let it move what its maker can do. What was sent already changes nothing.

    It is played anew here: what the client says came of it does not count.
    """
    Person.objects.select_for_update().get(pk=person.pk)
    task = task_of(person, named)
    played = play(task, actions)
    laid, outcome = play_shown(task, played).ended, played.outcome
    if laid is None or outcome is None:
        raise Faulty("This task is not ended yet.")
    if there := Attempt.objects.filter(pk=id).first():
        if there.person_id != person.pk:
            raise Refused("This id is in use. Load the page again.")
        return laid
    at = min(made, now) if made is not None and made > now - timedelta(days=60) else now
    Attempt.objects.create(
        id=id, person=person, level=named.level, task=named.dict(), title=title_of(task), actions=list(actions),
        right=outcome.right, rows=len(outcome.rows), wrong_rows=sum(not row.right for row in outcome.rows),
        seconds=seconds, at=at,
    )  # fmt: skip
    for name, skill in after_task(skills_of(person), outcome.rows, at).items():
        SkillHeld.objects.update_or_create(person=person, skill=name, defaults=asdict(skill))
    return laid


def title_of(task: Task) -> str:
    """The boards of a task, as it is listed."""
    one, other = task.boards.original.part_number, task.boards.replacement.part_number
    return (one if one == other else f"{one} → {other}")[:200]


def skills_of(person: Person) -> dict[str, Skill]:
    """What somebody can do."""
    return {
        each.skill: Skill(each.known, each.times, each.ease, each.days, each.due)
        for each in SkillHeld.objects.filter(person=person)
    }


@transaction.atomic
def keep_group(person: Person, id: UUID, name: str, members: Sequence[str]) -> Group:
    """Add a group of learners, or change one."""
    require_parts_lead(person)
    depot = depot_of(person)
    group = Group.objects.filter(pk=id).first() or Group(id=id, depot=depot)
    if group.depot_id != depot.pk:
        raise Refused("This id is in use. Load the page again.")
    group.name = " ".join(name.split())
    if not group.name or not group.name.isprintable():
        raise Faulty("Give the group a name, in letters that can be read.")
    people = list(Person.objects.filter(username__in=members, depot=depot))
    if strange := sorted(set(members) - {each.username for each in people}):
        raise Faulty(f"{strange[0]} is nobody of this depot.")
    try:
        with transaction.atomic():
            group.save()
    except IntegrityError as error:
        raise Refused(f"There is a group {group.name} already.") from error
    group.members.set(people)
    return group


@transaction.atomic
def remove_group(person: Person, id: UUID) -> None:
    """Take a group off the list; what its members did stays theirs."""
    group_of_lead(person, id).delete()


@transaction.atomic
def set_tasks(person: Person, id: UUID, levels: Sequence[Level], seed: int) -> Group:
    """Set tasks for a group, drawn by a seed: one of each of these levels, in their order."""
    group = group_of_lead(person, id)
    group.tasks = [draw_task(person, level, seed + number).named.dict() for number, level in enumerate(levels)]
    group.save()
    return group


@transaction.atomic
def load_tasks(person: Person, id: UUID, data: bytes) -> Group:
    """Set the tasks of a file for a group. Raises DocumentError; NotThere, NotAnswered where the catalogue makes one of them not."""
    group = group_of_lead(person, id)
    group.tasks = [
        draw_task(person, each.level, each.seed, each.original, each.replacement).named.dict()
        for each in parse_tasks(data)
    ]
    group.save()
    return group


def group_of_lead(person: Person, id: UUID) -> Group:
    """A group that this trainer looks after. Raises NotAllowed, NotThere."""
    require_parts_lead(person)
    group = Group.objects.filter(pk=id, depot=person.depot_id).first()
    if group is None:
        raise NotThere("Your depot has no such group.")
    return group
