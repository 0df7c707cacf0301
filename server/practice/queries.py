"""Reading practice: what somebody did and can do, and how a group stands."""

from collections import defaultdict
from collections.abc import Iterable
from datetime import datetime
from typing import Any, NamedTuple
from uuid import UUID

from django.db.models import Count, Max, Q, QuerySet

from catalogue.models import BoardRevision
from people.models import Person
from practice.models import Attempt, Group, SkillHeld
from twincore.practice import TaskWritten
from twinshown.practice.schemas import TaskNamed
from twinshown.refusals import NotThere


def attempts(person: Person) -> QuerySet[Attempt]:
    """What somebody did, newest first."""
    return Attempt.objects.filter(person=person).defer("actions")


def done_of(person: Person) -> dict[str, int]:
    """How many tasks of each level somebody has ended."""
    rows = Attempt.objects.filter(person=person).order_by().values("level").annotate(n=Count("pk"))
    return {row["level"]: row["n"] for row in rows}


def groups(person: Person) -> QuerySet[Group]:
    """The groups that somebody looks after, or belongs to."""
    rows = Group.objects.filter(depot=person.depot_id).annotate(people=Count("members"))
    return rows if person.keeps_catalogue else rows.filter(members=person)


def group(person: Person, id: UUID) -> Group:
    """One of them. Raises NotThere."""
    mine = Q() if person.keeps_catalogue else Q(members=person)
    found = Group.objects.filter(mine, pk=id, depot=person.depot_id).first()
    if found is None:
        raise NotThere("There is no such group that you belong to.")
    return found


class Learner(NamedTuple):
    """Somebody in a group: what they can do, and which of its tasks they have ended, and rightly."""

    person: Person
    skills: dict[str, float]
    due: int
    done: list[bool | None]
    """For each task of the group: None where it was not ended yet, else whether rightly, the last time."""
    last_at: datetime | None


def learners(found: Group, now: datetime) -> list[Learner]:
    """How the members of a group stand: five queries, however many they are."""
    people = list(found.members.order_by("first_name", "last_name", "username"))
    skills: dict[int, list[SkillHeld]] = defaultdict(list)
    for each in SkillHeld.objects.filter(person__in=people):
        skills[each.person_id].append(each)
    mine = Attempt.objects.filter(person__in=people).order_by()
    last = dict(mine.values_list("person").annotate(at=Max("at")))
    # of each task of the group the last attempt of each member
    of_group = mine.filter(task__seed__in=[task["seed"] for task in found.tasks])
    newest = of_group.order_by("person", "task", "-at", "-pk").distinct("person", "task")
    ended = {(person, _key(task)): right for person, task, right in newest.values_list("person", "task", "right")}
    return [
        Learner(
            each, {skill.skill: skill.known for skill in skills[each.pk]},
            sum(skill.due is not None and skill.due <= now for skill in skills[each.pk]),
            [ended.get((each.pk, _key(task))) for task in found.tasks], last.get(each.pk),
        )
        for each in people
    ]  # fmt: skip


def _key(task: dict[str, Any]) -> str:
    return f"{task['level']} {task['seed']} {task['original']} {task['replacement']}"


def numbers_of(tasks: Iterable[dict[str, Any]]) -> dict[int, str]:
    """The part numbers of the revisions that tasks name."""
    wanted = {task[side] for task in tasks for side in ("original", "replacement")}
    return dict(BoardRevision.objects.filter(pk__in=wanted).values_list("pk", "board__part_number"))


def written(tasks: list[dict[str, Any]]) -> list[TaskWritten]:
    """Tasks as a file has them."""
    names = numbers_of(tasks)
    named = [TaskNamed(**task) for task in tasks]
    return [
        TaskWritten(each.level, each.seed, names.get(each.original, ""), names.get(each.replacement, ""))
        for each in named
    ]
