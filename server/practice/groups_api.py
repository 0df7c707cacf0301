"""Groups of learners over HTTP, for whoever trains them."""

import json
from typing import Any
from uuid import UUID

from django.http import HttpRequest, HttpResponse
from django.utils import timezone
from ninja import Query, Router

from config.downloads import JSON, download
from config.paging import paged
from people.access import person_of
from people.models import Person
from practice import actions, queries
from practice.models import Group
from practice.schemas import GroupGiven, GroupLine, GroupShown, GroupTask, LearnerShown, TasksWanted
from twincore.practice import SKILLS, tasks_document
from twinshown.paging import Page, Paging

router = Router(tags=["practice"])


@router.get("/practice/groups", response=Page[GroupLine])
def list_groups(request: HttpRequest, paging: Query[Paging]) -> dict[str, Any]:
    """The groups that one looks after, or belongs to."""
    return paged(queries.groups(person_of(request)), paging, lambda each: _line(each, each.people))  # type: ignore[attr-defined]


@router.post("/practice/groups", response=GroupShown)
def keep_group(request: HttpRequest, given: GroupGiven) -> GroupShown:
    """Add a group, or change one."""
    person = person_of(request)
    return _shown(person, actions.keep_group(person, given.id, given.name, given.members))


@router.get("/practice/groups/{group_id}", response=GroupShown)
def show_group(request: HttpRequest, group_id: UUID) -> GroupShown:
    """A group with its tasks, and how its members stand."""
    person = person_of(request)
    return _shown(person, queries.group(person, group_id))


@router.delete("/practice/groups/{group_id}", response={204: None})
def remove_group(request: HttpRequest, group_id: UUID) -> tuple[int, None]:
    """Take a group off the list."""
    actions.remove_group(person_of(request), group_id)
    return 204, None


@router.post("/practice/groups/{group_id}/draw", response=GroupShown)
def draw_tasks(request: HttpRequest, group_id: UUID, wanted: TasksWanted) -> GroupShown:
    """Set tasks that a seed draws."""
    person = person_of(request)
    return _shown(person, actions.set_tasks(person, group_id, wanted.levels, wanted.seed))


@router.post("/practice/groups/{group_id}/tasks", response=GroupShown)
def load_tasks(request: HttpRequest, group_id: UUID) -> GroupShown:
    """Set the tasks of a file (the body)."""
    person = person_of(request)
    return _shown(person, actions.load_tasks(person, group_id, request.body))


@router.get("/practice/groups/{group_id}/tasks", response={200: Any})
def take_tasks(request: HttpRequest, group_id: UUID) -> HttpResponse:
    """The tasks of a group as a file."""
    group = queries.group(person_of(request), group_id)
    document = tasks_document(group.name, queries.written(group.tasks))
    return download(json.dumps(document, indent=1).encode(), JSON, f"{group.name}.tasks.json")


def _line(group: Group, people: int) -> GroupLine:
    return GroupLine(id=group.pk, name=group.name, people=people, tasks=len(group.tasks))


def _shown(person: Person, group: Group) -> GroupShown:
    learners = queries.learners(group, timezone.now())
    mine = learners if person.keeps_catalogue else [each for each in learners if each.person.pk == person.pk]
    return GroupShown(
        **_line(group, len(learners)).dict(),
        skills=list(SKILLS),
        set=[GroupTask(**each._asdict()) for each in queries.written(group.tasks)],
        learners=[
            LearnerShown(
                username=each.person.username, name=each.person.shown_name, skills=each.skills, due=each.due,
                done=each.done, last_at=each.last_at,
            )
            for each in mine
        ],
    )  # fmt: skip
