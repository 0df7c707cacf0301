"""Record over HTTP: what is missing, timed runs and drafts, pictures."""

from uuid import UUID

from django.http import FileResponse, HttpRequest
from django.utils import timezone
from ninja import Router

from config.downloads import PICTURE, a_file
from jobs.asked import job_of, job_with_original
from jobs.cases import case_of
from jobs.ports.reading import port_of
from jobs.sheets import SheetId, asked_for
from jobs.steps.record import pictures
from jobs.steps.record.assuming import assumable_shown
from jobs.steps.record.drafting import draft_checked, draft_shown, load_draft
from jobs.steps.record.stripping import route_shown
from people.access import person_of
from pictures.files import as_address, body_of, opened
from twincore.job.case import original_of
from twincore.profile import hanging_of
from twinshown.refusals import Refused
from twinshown.steps.record.schemas import (
    AssumableShown,
    BankGiven,
    BankShown,
    DraftGiven,
    DraftLoaded,
    DraftShown,
    PictureShown,
    RecordShown,
    RouteShown,
    SliderShown,
    TraceShown,
)
from twinshown.steps.record.view import record_shown, traces_shown

router = Router(tags=["record"])


@router.get("/jobs/{job_id}/record", response=RecordShown)
def show_record(request: HttpRequest, job_id: SheetId) -> RecordShown:
    """What is to be recorded, and what is missing."""
    job = job_with_original(request, job_id)
    return record_shown(case_of(job), port_of(job) is not None)


@router.get("/jobs/{job_id}/assumable", response=list[AssumableShown])
def show_assumable(request: HttpRequest, job_id: SheetId) -> list[AssumableShown]:
    """Where the positions that cannot be read may be taken from."""
    return assumable_shown(job_with_original(request, job_id))


@router.get("/jobs/{job_id}/way-in", response=RouteShown | None)
def show_way_in(request: HttpRequest, job_id: SheetId) -> RouteShown | None:
    """The way in as an earlier job took it; nothing where nobody logged it."""
    return route_shown(job_of(request, job_id))


@router.get("/jobs/{job_id}/traces", response=list[TraceShown])
def show_traces(request: HttpRequest, job_id: SheetId) -> list[TraceShown]:
    """What the live original was seen to do, against the replacement as planned."""
    return traces_shown(case_of(job_with_original(request, job_id)))


@router.post("/jobs/{job_id}/draft", response=DraftShown)
def draft(request: HttpRequest, job_id: SheetId) -> DraftShown:
    """A behaviour proposed from the traces, for the parts lead to look through and load."""
    return draft_shown(person_of(request), job_with_original(request, job_id))


@router.post("/jobs/{job_id}/draft/check", response=DraftShown)
def check_draft(request: HttpRequest, job_id: SheetId, given: DraftGiven) -> DraftShown:
    """Which runs a draft makes as it was edited."""
    return draft_checked(person_of(request), job_with_original(request, job_id), given.behaviour)


@router.post("/jobs/{job_id}/draft/load", response=DraftLoaded)
def keep_draft(request: HttpRequest, job_id: SheetId, given: DraftGiven) -> DraftLoaded:
    """Load the board with this behaviour into the catalogue as a new revision."""
    loaded = load_draft(person_of(request), job_with_original(request, job_id), given.behaviour, timezone.now())
    return DraftLoaded(part_number=loaded.name, revision=loaded.revision)


@router.post("/jobs/{job_id}/pictures/{picture_id}", response=PictureShown)
def add_picture(request: HttpRequest, job_id: SheetId, picture_id: UUID) -> PictureShown:
    """Send a picture: the body is the file itself."""
    kept = pictures.add_picture(person_of(request), asked_for(job_id)[0], picture_id, body_of(request), timezone.now())
    return PictureShown(id=str(kept.name), width=kept.width, height=kept.height)


@router.get("/jobs/{job_id}/pictures/{picture_id}", openapi_extra=a_file(PICTURE))
def show_picture(request: HttpRequest, job_id: SheetId, picture_id: UUID) -> FileResponse:
    """A picture's file."""
    picture = pictures.picture_of(job_of(request, job_id), picture_id)
    response = FileResponse(opened(picture.file))
    response["Cache-Control"] = "private, max-age=86400"
    return response


@router.post("/jobs/{job_id}/pictures/{picture_id}/bank", response=BankShown)
def read_bank(request: HttpRequest, job_id: SheetId, picture_id: UUID, given: BankGiven) -> BankShown:
    """The sliders of a bank, or the digits of thumbwheels, in a picture: proposed with how sure each is, to be confirmed."""
    job = job_with_original(request, job_id)
    picture = pictures.picture_of(job, picture_id)
    board = original_of(case_of(job))[1]
    element = next((each for each in board.elements if each.id == given.element and each.rules.readable), None)
    if element is None:
        raise Refused(f"{given.element} is no switch bank and no row of thumbwheels of {board.part_number}.")
    corners = [(each.x, each.y) for each in given.corners]
    read = pictures.read_element_from(picture, corners, element, hanging_of(board, element.id), given.sliders)
    marks = [SliderShown(mark=each.mark, confidence=each.confidence) for each in read.places]
    return BankShown(written=read.written, sliders=marks, picture=as_address(read.rectified))
