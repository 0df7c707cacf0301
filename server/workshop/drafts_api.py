"""Drafts over HTTP."""

from typing import Any
from uuid import UUID

from django.http import HttpRequest, HttpResponse
from django.utils import timezone
from ninja import Query, Router

from catalogue.profiles import board_profile
from catalogue.schemas import ChartColumn
from config.downloads import JSON, download
from config.paging import paged
from people.access import person_of
from twincore.profile import factory_record
from twinshown.comparison.playing import played
from twinshown.comparison.scenarios import checked_scenario
from twinshown.comparison.schemas import PlayShown, ScenarioGiven
from twinshown.paging import Page
from twinshown.refusals import Faulty
from workshop import drafting, publishing, tables
from workshop.changing import changes_shown
from workshop.models import LIVE, Draft
from workshop.schemas import (
    ActGiven,
    BoardGiven,
    BorrowGiven,
    ChangesShown,
    ChartGiven,
    DraftInFull,
    DraftLine,
    DraftSearch,
    GridGiven,
    HeadingsGiven,
    PinsGiven,
    PlaceGiven,
    PublishGiven,
    Seen,
    StateGiven,
    StepGiven,
)
from workshop.shown import draft_line, draft_shown

router = Router(tags=["workshop"])


@router.get("/drafts", response=Page[DraftLine])
def list_drafts(request: HttpRequest, search: Query[DraftSearch]) -> dict[str, Any]:
    """The depot's drafts, the one touched last first."""
    rows = (
        Draft.objects.filter(depot=person_of(request).depot_id)
        .select_related("base__board", "family_base__family", "started_by", "touched_by")
        .defer("board_text", "family_text", "base__document", "family_base__document")
    )
    return paged(rows.filter(LIVE) if search.live else rows.exclude(LIVE), search, draft_line)


@router.post("/drafts", response=DraftLine)
def open_draft(request: HttpRequest, given: BoardGiven) -> DraftLine:
    """Take a board into the workshop: the draft that is worked on, or a new one."""
    return draft_line(drafting.open_draft(person_of(request), given.part_number, timezone.now()))


@router.get("/drafts/{draft}", response=DraftInFull)
def show_draft(request: HttpRequest, draft: UUID) -> DraftInFull:
    """A draft in full."""
    person = person_of(request)
    return draft_shown(drafting.draft_of(person, draft), person)


@router.get("/drafts/{draft}/file", response={200: Any})
def draft_file(request: HttpRequest, draft: UUID) -> HttpResponse:
    """The draft's board as a file, as the command line reads it."""
    found = drafting.draft_of(person_of(request), draft)
    return download(found.board_text.encode(), JSON, f"{found.part_number}.board.json")


@router.post("/drafts/{draft}/meaning", response=DraftInFull)
def put_meaning(request: HttpRequest, draft: UUID, given: GridGiven) -> DraftInFull:
    """Say what positions mean for a function."""
    return _edited(request, draft, given, lambda documents: tables.grid_changes(documents, given))


@router.post("/drafts/{draft}/chart", response=DraftInFull)
def put_chart(request: HttpRequest, draft: UUID, given: ChartGiven) -> DraftInFull:
    """Put a leaflet's chart into the draft."""
    return _edited(request, draft, given, lambda documents: tables.chart_changes(documents, given))


@router.post("/drafts/{draft}/columns", response=list[ChartColumn])
def guess_columns(request: HttpRequest, draft: UUID, given: HeadingsGiven) -> list[ChartColumn]:
    """What the columns of a table with these headings are; nothing is kept."""
    documents = drafting.documents_of(drafting.draft_of(person_of(request), draft))
    found = tables.guessed(documents, given.headings, given.rows)
    return [ChartColumn(heading=each.heading, role=each.role, name=each.name) for each in found]


@router.post("/drafts/{draft}/pins", response=DraftInFull)
def put_pins(request: HttpRequest, draft: UUID, given: PinsGiven) -> DraftInFull:
    """Say what the pins of a plug are."""
    return _edited(request, draft, given, lambda documents: tables.pin_changes(documents, given))


@router.post("/drafts/{draft}/state", response=DraftInFull)
def put_state(request: HttpRequest, draft: UUID, given: StateGiven) -> DraftInFull:
    """Say what is on in a state of the behaviour, and what leads out of it."""
    return _edited(request, draft, given, lambda documents: tables.state_changes(documents, given))


@router.post("/drafts/{draft}/place", response=DraftInFull)
def put_place(request: HttpRequest, draft: UUID, given: PlaceGiven) -> DraftInFull:
    """Put something at any other place of the draft."""
    return _edited(request, draft, given, lambda documents: tables.placed_changes(documents, given.path, given.after))


@router.post("/drafts/{draft}/borrow", response=DraftInFull)
def borrow(request: HttpRequest, draft: UUID, given: BorrowGiven) -> DraftInFull:
    """Take meanings, plugs or behaviour over from another board."""
    person = person_of(request)
    return _edited(request, draft, given, lambda documents: tables.borrowed_changes(documents, given, person)[0])


@router.post("/drafts/{draft}/undo", response=DraftInFull)
def undo(request: HttpRequest, draft: UUID, given: ActGiven) -> DraftInFull:
    """Take back what one did last."""
    person = person_of(request)
    return draft_shown(drafting.undo(drafting.Act(person, timezone.now(), given.id), draft), person)


@router.get("/drafts/{draft}/changes", response=ChangesShown)
def show_changes(request: HttpRequest, draft: UUID) -> ChangesShown:
    """What publishing it would change."""
    person = person_of(request)
    return changes_shown(drafting.draft_of(person, draft), person)


@router.post("/drafts/{draft}/play", response=PlayShown)
def play_draft(request: HttpRequest, draft: UUID, given: ScenarioGiven) -> PlayShown:
    """A scenario on the revision in use and on the draft, both as they leave the maker."""
    found = drafting.draft_of(person_of(request), draft)
    documents = drafting.documents_of(found)
    family, new = documents.kind(), documents.whole()
    assert found.board.current_id is not None  # a board with a draft has a revision
    old = board_profile(found.board.current_id)
    if new.behaviour is None:
        raise Faulty("This board has no behaviour yet. There is nothing to play.")
    scenario = checked_scenario(given, family)
    return played([(each, factory_record(each)) for each in (old, new)], family, scenario)


@router.post("/drafts/{draft}/step", response=DraftInFull)
def step_draft(request: HttpRequest, draft: UUID, given: StepGiven) -> DraftInFull:
    """Propose it, give it back with what is missing, or put it away."""
    person = person_of(request)
    return draft_shown(publishing.step(person, draft, Draft.State(given.to), given.note, timezone.now()), person)


@router.post("/drafts/{draft}/publish", response=DraftInFull)
def publish(request: HttpRequest, draft: UUID, given: PublishGiven) -> DraftInFull:
    """Make it the board's next revision."""
    person = person_of(request)
    return draft_shown(publishing.publish(person, draft, given.seen, given.over, given.reason, timezone.now()), person)


def _edited(request: HttpRequest, draft: UUID, given: Seen, changes: tables.Changes) -> DraftInFull:
    person = person_of(request)
    act = drafting.Act(person, timezone.now(), given.id)
    return draft_shown(drafting.edit_draft(act, draft, given.seen, changes), person)
