"""Service ports over HTTP: read, write, watch."""

from django.http import HttpRequest, StreamingHttpResponse
from ninja import Router

from config.downloads import EVENTS, a_file
from jobs import queries
from jobs.asked import job_with_original, planned_job
from jobs.ports import reading, streaming, writing
from jobs.ports.reading import required_outputs
from jobs.ports.schemas import PortShown, PortValue, PortWrittenShown
from jobs.sheets import SheetId
from people.access import person_of, still_signed_in

router = Router(tags=["ports"])


@router.post("/jobs/{job_id}/port/read", response=PortShown)
def read_port(request: HttpRequest, job_id: SheetId) -> PortShown:
    """Ask the old board over its service port; nothing is kept before somebody takes it."""
    read = reading.read_port(job_with_original(request, job_id))
    values = [PortValue(**each) for each in read.values]
    return PortShown(identity=read.identity, values=values, unreadable=read.unreadable, fault=read.fault)


@router.post("/jobs/{job_id}/port/write", response=PortWrittenShown)
def write_port(request: HttpRequest, job_id: SheetId) -> PortWrittenShown:
    """Set the new board over its port; undone if it does not read back as written."""
    done = writing.write_port(planned_job(request, job_id))
    return PortWrittenShown(values=done.values, differ=done.differ, fault=done.fault, undone=done.undone)


@router.get("/jobs/{job_id}/port/stream", openapi_extra=a_file(EVENTS))
def stream_port(request: HttpRequest, job_id: SheetId, side: str = "replacement") -> StreamingHttpResponse:
    """What the port shows, as it changes (server-sent events)."""
    at = required_outputs(queries.job(person_of(request), job_id), side)
    events = streaming.stream_port(at, allowed=lambda: still_signed_in(request))
    response = StreamingHttpResponse(events, content_type=EVENTS)
    response["Cache-Control"] = "no-store"
    response["X-Accel-Buffering"] = "no"
    # said to be encoded already, so that nothing gathers it to compress it
    response["Content-Encoding"] = "identity"
    return response
