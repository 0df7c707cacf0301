"""Packages of whole jobs over HTTP."""

from tempfile import TemporaryFile

from django.http import FileResponse, HttpRequest
from django.utils import timezone
from ninja import Router

from config.downloads import ZIP, a_file, named
from jobs import queries
from jobs.packages import packaging
from jobs.packages.schemas import ImportedShown
from jobs.sheets import SheetId
from people.access import person_of
from twincore.chain import LARGEST_PACKAGE
from twinshown.refusals import Faulty

router = Router(tags=["packages"])


CHUNK = 1 << 20


@router.get("/jobs/{job_id}/package.zip", openapi_extra=a_file(ZIP))
def package(request: HttpRequest, job_id: SheetId) -> FileResponse:
    """The whole job with its pictures and profiles, to be verified and brought in elsewhere."""
    job = queries.job(person_of(request), job_id)
    return FileResponse(packaging.package_of(job), content_type=ZIP, headers=named(f"{job.code}.job.zip"))


@router.post("/packages", response=ImportedShown)
def bring_in(request: HttpRequest) -> ImportedShown:
    """Bring a job in from another depot: the body is the package itself."""
    with TemporaryFile() as file:
        size = 0
        while chunk := request.read(CHUNK):
            size += len(chunk)
            if size > LARGEST_PACKAGE:
                raise Faulty(f"Expected at most {LARGEST_PACKAGE // 1_000_000} MB.")
            file.write(chunk)
        file.seek(0)
        brought = packaging.bring_in(person_of(request), file, timezone.now())
    job = brought.job
    return ImportedShown(
        id=job.pk, code=job.code, machine=job.machine, new=brought.new, entries=job.entry_count,
        pictures=brought.pictures, profiles=brought.profiles,
    )  # fmt: skip
