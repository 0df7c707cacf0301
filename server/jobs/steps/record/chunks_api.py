"""Pictures of a job in chunks, over HTTP: tus 1.0.0 (see `pictures.chunks`), at an address that the client knows."""

from uuid import UUID

from django.http import HttpRequest, HttpResponse
from django.utils import timezone
from ninja import Router

from jobs.asked import job_of
from jobs.models import Picture
from jobs.sheets import SheetId, asked_for
from jobs.steps.record.pictures import add_picture
from people.access import person_of
from pictures.chunks import Chunks
from pictures.files import size_of
from twinshown.refusals import Faulty, Refused

router = Router(tags=["record"])
ADDRESS = "/jobs/{job_id}/pictures/{picture_id}/chunks"
VERSION = "1.0.0"


class OtherVersion(Refused):
    """A version of the protocol that is not spoken here."""

    status = 412


def _answer(status: int, **headers: int | str) -> HttpResponse:
    told = {name.replace("_", "-"): str(value) for name, value in headers.items()}
    return HttpResponse(status=status, headers={"Tus-Resumable": VERSION, **told})


def _asked(request: HttpRequest, job_id: str, picture_id: UUID) -> tuple[Chunks, Picture | None]:
    """A picture on its way, and the picture where the job has it."""
    if request.headers.get("Tus-Resumable") != VERSION:
        raise OtherVersion(f"Tus-Resumable: expected {VERSION}.")
    job = job_of(request, job_id)
    return Chunks(person_of(request), job.pk, picture_id), job.pictures.filter(name=picture_id).first()


def _number(request: HttpRequest, name: str) -> int:
    said = request.headers.get(name, "")
    if not (said.isascii() and said.isdigit() and len(said) < 10):
        raise Faulty(f"{name}: expected a number of bytes.")
    return int(said)


@router.post(ADDRESS, response={201: None})
def begin_picture(request: HttpRequest, job_id: SheetId, picture_id: UUID) -> HttpResponse:
    """Begin a picture of `Upload-Length` bytes; one that was begun goes on."""
    _asked(request, job_id, picture_id)[0].begin(_number(request, "Upload-Length"), timezone.now())
    return _answer(201, Location=request.path)


@router.api_operation(["HEAD"], ADDRESS, response={200: None})
def how_far_picture(request: HttpRequest, job_id: SheetId, picture_id: UUID) -> HttpResponse:
    """How much of a picture is there: all of it where the job has it."""
    chunks, there = _asked(request, job_id, picture_id)
    if there:
        size = size_of(there.file)
        return _answer(200, Upload_Offset=size, Upload_Length=size)
    offset, length = chunks.state()
    return _answer(200, Upload_Offset=offset, Upload_Length=length)


@router.patch(ADDRESS, response={204: None})
def go_on_with_picture(request: HttpRequest, job_id: SheetId, picture_id: UUID) -> HttpResponse:
    """Send what follows at `Upload-Offset`, or nothing more; once all is there, the picture is kept or refused."""
    chunks, there = _asked(request, job_id, picture_id)
    if request.content_type != "application/offset+octet-stream":
        raise Faulty("Content-Type: expected application/offset+octet-stream.")
    offset = _number(request, "Upload-Offset")
    if there:
        # the last chunk again, whose answer was not heard
        return _answer(204, Upload_Offset=offset + len(request.body))
    offset = chunks.add(offset, request.body)
    if offset == chunks.state()[1]:
        try:
            add_picture(person_of(request), asked_for(job_id)[0], picture_id, chunks.whole(), timezone.now())
        except Refused:
            chunks.end()
            raise
        chunks.end()
    return _answer(204, Upload_Offset=offset)
