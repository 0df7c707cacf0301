"""The middle of a job over HTTP: make safe, record, carry over."""

from base64 import b64encode
from io import BytesIO
from typing import Any
from uuid import UUID

from django.http import FileResponse, HttpRequest, HttpResponse
from django.utils import timezone
from ninja import Router

from config.downloads import CSV, JSON, PDF, download
from config.errors import Refused
from jobs import queries
from jobs.cases import case_of
from jobs.models import Job
from jobs.work import pictures, port
from jobs.work.drafting import draft_checked, draft_shown, load_draft
from jobs.work.plan_view import plan_json, plan_pdf, presses_shown, tags_pdf, wires_csv, wiring_shown
from jobs.work.record_view import record_shown, traces_shown
from jobs.work.safe_view import make_safe_shown
from jobs.work.schemas import (
    BankGiven,
    BankShown,
    DraftGiven,
    DraftLoaded,
    DraftShown,
    MakeSafeShown,
    PictureShown,
    PortShown,
    PortValue,
    PressesShown,
    RecordShown,
    SliderShown,
    TraceShown,
    WiringShown,
)
from people.access import person_of
from twincore.job.case import original_of

router = Router(tags=["middle of a job"])


def _job(request: HttpRequest, job_id: UUID) -> Job:
    return queries.job(person_of(request), job_id)


def _with_original(request: HttpRequest, job_id: UUID) -> Job:
    job = _job(request, job_id)
    if job.original_revision_id is None:
        raise Refused("Find out first which board is to be replaced.")
    return job


def _with_both(request: HttpRequest, job_id: UUID) -> Job:
    job = _with_original(request, job_id)
    if job.replacement_revision_id is None:
        raise Refused("Choose the replacement first.")
    return job


@router.get("/jobs/{job_id}/make-safe", response=MakeSafeShown)
def show_make_safe(request: HttpRequest, job_id: UUID) -> MakeSafeShown:
    """The hold points of this machine and board."""
    return make_safe_shown(_job(request, job_id), timezone.now())


@router.get("/jobs/{job_id}/record", response=RecordShown)
def show_record(request: HttpRequest, job_id: UUID) -> RecordShown:
    """What is to be recorded, and what is missing."""
    return record_shown(_with_original(request, job_id))


@router.get("/jobs/{job_id}/traces", response=list[TraceShown])
def show_traces(request: HttpRequest, job_id: UUID) -> list[TraceShown]:
    """What the live original was seen to do, against the replacement as planned."""
    return traces_shown(_with_original(request, job_id))


@router.post("/jobs/{job_id}/draft", response=DraftShown)
def draft(request: HttpRequest, job_id: UUID) -> DraftShown:
    """A behaviour proposed from the traces, for the parts lead to look through and load."""
    return draft_shown(person_of(request), _with_original(request, job_id))


@router.post("/jobs/{job_id}/draft/check", response=DraftShown)
def check_draft(request: HttpRequest, job_id: UUID, given: DraftGiven) -> DraftShown:
    """Which runs a draft makes as it was edited."""
    return draft_checked(person_of(request), _with_original(request, job_id), given.behaviour)


@router.post("/jobs/{job_id}/draft/load", response=DraftLoaded)
def keep_draft(request: HttpRequest, job_id: UUID, given: DraftGiven) -> DraftLoaded:
    """Load the board with this behaviour into the catalogue as a new revision."""
    loaded = load_draft(person_of(request), _with_original(request, job_id), given.behaviour, timezone.now())
    return DraftLoaded(part_number=loaded.name, revision=loaded.revision)


@router.post("/jobs/{job_id}/port/read", response=PortShown)
def read_port(request: HttpRequest, job_id: UUID) -> PortShown:
    """Ask the old board over its service port; nothing is kept before somebody takes it."""
    read = port.read_port(_with_original(request, job_id))
    values = [PortValue(**each) for each in read.values]
    return PortShown(identity=read.identity, values=values, unreadable=read.unreadable, fault=read.fault)


@router.post("/jobs/{job_id}/pictures/{picture_id}", response=PictureShown)
def add_picture(request: HttpRequest, job_id: UUID, picture_id: UUID) -> PictureShown:
    """Send a picture: the body is the file itself."""
    length = int(request.headers.get("Content-Length") or 0)
    data = request.read(min(length, pictures.MOST_BYTES) + 1) if length else b""
    kept = pictures.add_picture(person_of(request), job_id, picture_id, data, timezone.now())
    return PictureShown(id=str(kept.name), width=kept.width, height=kept.height)


@router.get("/jobs/{job_id}/pictures/{picture_id}", response={200: Any})
def show_picture(request: HttpRequest, job_id: UUID, picture_id: UUID) -> FileResponse:
    """A picture's file."""
    picture = pictures.picture_of(_job(request, job_id), picture_id)
    response = FileResponse(picture.file.open("rb"))
    response["Cache-Control"] = "private, max-age=86400"
    return response


@router.post("/jobs/{job_id}/pictures/{picture_id}/bank", response=BankShown)
def read_bank(request: HttpRequest, job_id: UUID, picture_id: UUID, given: BankGiven) -> BankShown:
    """The sliders of a bank in a picture: proposed with how sure each is, for a person to confirm."""
    job = _with_original(request, job_id)
    picture = pictures.picture_of(job, picture_id)
    board = original_of(case_of(job))[1]
    element = next((each for each in board.elements if each.id == given.element and each.kind == "dip"), None)
    if element is None:
        raise Refused(f"{given.element} is no switch bank of {board.part_number}.")
    drawn: dict[str, Any] = next((e for e in board.document.get("layout", []) if e["ref"] == element.id), {})
    on_side = "bottom" if drawn.get("on_side") in ("bottom", "right") else "top"
    corners = [(each.x, each.y) for each in given.corners]
    read = pictures.read_bank_from(picture, corners, len(element.points), on_side, given.sliders)
    out = BytesIO()
    read.rectified.save(out, "PNG")
    marks = [SliderShown(mark=each.mark, confidence=each.confidence) for each in read.sliders]
    shown = f"data:image/png;base64,{b64encode(out.getvalue()).decode()}"
    backwards = drawn.get("first") in ("right", "bottom")
    written = read.written[::-1] if backwards else read.written
    return BankShown(written=written, sliders=marks[::-1] if backwards else marks, picture=shown)


@router.get("/jobs/{job_id}/wiring", response=WiringShown)
def show_wiring(request: HttpRequest, job_id: UUID) -> WiringShown:
    """The wiring plan."""
    return wiring_shown(_with_both(request, job_id))


@router.get("/jobs/{job_id}/presses", response=PressesShown)
def show_presses(request: HttpRequest, job_id: UUID) -> PressesShown:
    """The programming plan."""
    return presses_shown(_with_both(request, job_id))


@router.get("/jobs/{job_id}/plan.json", response={200: Any})
def plan_as_json(request: HttpRequest, job_id: UUID) -> HttpResponse:
    """The whole plan as plain data."""
    job = _with_both(request, job_id)
    return download(plan_json(job).encode(), JSON, f"{job.code}.plan.json")


@router.get("/jobs/{job_id}/plan.csv", response={200: Any})
def plan_as_csv(request: HttpRequest, job_id: UUID) -> HttpResponse:
    """The wiring plan for a spreadsheet."""
    job = _with_both(request, job_id)
    return download(wires_csv(job).encode(), CSV, f"{job.code}.wires.csv")


@router.get("/jobs/{job_id}/plan.pdf", response={200: Any})
def plan_as_pdf(request: HttpRequest, job_id: UUID) -> HttpResponse:
    """The plan as one sheet."""
    job = _with_both(request, job_id)
    return download(plan_pdf(job, timezone.now()), PDF, f"{job.code}.plan.pdf")


@router.get("/jobs/{job_id}/tags.pdf", response={200: Any})
def tags_as_pdf(request: HttpRequest, job_id: UUID) -> HttpResponse:
    """Tags for the wires."""
    job = _with_original(request, job_id)
    return download(tags_pdf(job, timezone.now()), PDF, f"{job.code}.tags.pdf")
