"""Practice over HTTP: tasks, what was done in them, and how somebody stands."""

from typing import Any, cast

from django.http import HttpRequest
from django.utils import timezone
from ninja import Query, Router

from catalogue.api import board_shown
from catalogue.models import BoardRevision, FamilyRevision, GuideRevision
from catalogue.profiles import family_document
from config.paging import paged
from people.access import person_of
from people.models import Person
from practice import actions, queries
from practice.models import Attempt
from practice.schemas import (
    AttemptGiven,
    AttemptKept,
    AttemptShown,
    LevelShown,
    PracticeHome,
    SkillShown,
    TaskDocuments,
    TaskShown,
    TaskWanted,
)
from practice.tasks import draw_task, task_of
from twincore.practice import LEVELS, OF_LEVEL, Level, Skill, next_level
from twinshown.paging import Page, Paging
from twinshown.practice import view
from twinshown.practice.schemas import PracticeShown, TaskNamed, TaskPlayed
from twinshown.practice.view import play_shown

router = Router(tags=["practice"])


@router.get("/practice", response=PracticeHome)
def show_practice(request: HttpRequest) -> PracticeHome:
    """How one stands, and what to practise next."""
    return home(person_of(request))


@router.get("/practice/task", response=TaskShown)
def show_task(request: HttpRequest, wanted: Query[TaskWanted]) -> TaskShown:
    """A task to be done."""
    person = person_of(request)
    drawn = draw_task(person, wanted.level, wanted.seed, wanted.original, wanted.replacement)
    return task_shown(person, drawn.named)


@router.post("/practice/play", response=PracticeShown)
def play(request: HttpRequest, given: TaskPlayed) -> PracticeShown:
    """A task after some actions; nothing of it is kept."""
    task = task_of(person_of(request), given.task)
    return play_shown(task, view.play(task, given.actions))


@router.post("/practice/attempts", response=AttemptKept)
def keep_attempt(request: HttpRequest, given: AttemptGiven) -> AttemptKept:
    """Keep a task that was ended."""
    person = person_of(request)
    laid = actions.keep_attempt(person, given.id, given.task, given.actions, given.seconds, given.made, timezone.now())
    return AttemptKept(laid=laid, home=home(person))


@router.get("/practice/attempts", response=Page[AttemptShown])
def list_attempts(request: HttpRequest, paging: Query[Paging]) -> dict[str, Any]:
    """What one did, newest first."""
    return paged(queries.attempts(person_of(request)), paging, _attempt)


def home(person: Person) -> PracticeHome:
    """How somebody stands."""
    skills, done, now = actions.skills_of(person), queries.done_of(person), timezone.now()
    following = next_level(skills, now)
    due = [name for name in OF_LEVEL[following] if (each := skills.get(name)) and each.due and each.due <= now]
    because = "due again" if due else "the first that you do not have yet"
    return PracticeHome(
        levels=[
            LevelShown(level=level, skills=[_skill(name, skills) for name in OF_LEVEL[level]], done=done.get(level, 0))
            for level in LEVELS
        ],
        next=following,
        because=because,
    )


def task_shown(person: Person, named: TaskNamed) -> TaskShown:
    """A task with its boards as they are drawn, and the files that make it."""
    revisions = BoardRevision.objects.select_related("board", "board__family").in_bulk(
        [named.original, named.replacement, *named.others]
    )
    family = FamilyRevision.objects.get(pk=named.family)
    rule_out = GuideRevision.objects.filter(pk=named.rule_out).first() if named.rule_out else None
    told: dict[str, Any] = family_document(family.pk)
    one, other = revisions[named.original], revisions[named.replacement]
    others = [revisions[each] for each in named.others]
    return TaskShown(
        task=named,
        kind=told["title"],
        inputs=told["inputs"],
        outputs=told["outputs"],
        rest=told.get("rest", {}),
        original=board_shown(one.board, one, person.depot_id),
        replacement=board_shown(other.board, other, person.depot_id),
        others=[board_shown(each.board, each, person.depot_id) for each in others],
        documents=TaskDocuments(
            family=_text(family.document), original=_text(one.document), replacement=_text(other.document),
            rule_out=_text(rule_out.document) if rule_out else "", others=[_text(each.document) for each in others],
        ),
    )  # fmt: skip


def _text(document: Any) -> str:
    return bytes(document).decode()


def _skill(name: str, skills: dict[str, Skill]) -> SkillShown:
    found = skills.get(name, Skill())
    return SkillShown(skill=name, known=found.known, due=found.due)


def _attempt(each: Attempt) -> AttemptShown:
    return AttemptShown(
        id=each.pk, level=cast(Level, each.level), title=each.title, right=each.right, rows=each.rows, wrong_rows=each.wrong_rows,
        seconds=each.seconds, at=each.at,
    )  # fmt: skip
