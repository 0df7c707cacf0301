"""What a job's sheet answers, kept: read again it costs no computing, whichever worker is asked.

An answer is kept with the version of everything that it hangs on: the rows of the job, its depot and its boards as they
stand (PostgreSQL's xmin and ctid, of which every change of a row changes one), the guides of the catalogue, and the source that shapes it.
Whoever says that it has that version (If-None-Match, RFC 9110) is told that it still is.
"""

import re
from collections.abc import Callable
from datetime import datetime, timedelta
from hashlib import sha256
from typing import Any
from uuid import UUID

from django.db import connection
from django.http import HttpRequest, HttpResponse
from django.utils import timezone
from django.utils.deprecation import MiddlewareMixin
from django.utils.http import parse_etags

from bench.kept import SOURCE
from jobs.models import KeptAnswer
from people.models import Person

PARTS = (
    "boards/original", "boards/replacement", "between", "comparison", "entries", "machine", "presses", "proving", "record",
    "runs", "wiring",
)  # fmt: skip
"""Parts of a job that hang on nothing but what a version names; of lists the first page."""
KEPT = re.compile(rf"/api/jobs/(?P<job>[0-9a-fA-F-]{{32,36}})(\.[1-6])?(/({'|'.join(PARTS)}))?$")
FIRST_PAGE = ("", "page=1")
KEPT_FOR = timedelta(days=7)
VERSION = """
select concat_ws(' ', job.xmin, job.ctid, depot.xmin, depot.ctid, opener.xmin, opener.ctid,
  original.xmin, original.ctid, replacement.xmin, replacement.ctid,
  (select string_agg(concat_ws(' ', other.name, other.xmin, other.ctid, a.xmin, a.ctid, b.xmin, b.ctid), ' ' order by other.name)
     from jobs_otherboard other
     left join catalogue_boardrevision ra on ra.id = other.original_revision_id
     left join catalogue_board a on a.id = ra.board_id
     left join catalogue_boardrevision rb on rb.id = other.replacement_revision_id
     left join catalogue_board b on b.id = rb.board_id
    where other.job_id = job.id),
  (select string_agg(current_id::text, ' ' order by id) from catalogue_guide))
from jobs_job job
join people_depot depot on depot.id = job.depot_id
join people_person opener on opener.id = job.opened_by_id
left join catalogue_boardrevision ro on ro.id = job.original_revision_id
left join catalogue_board original on original.id = ro.board_id
left join catalogue_boardrevision rr on rr.id = job.replacement_revision_id
left join catalogue_board replacement on replacement.id = rr.board_id
where job.id = %s and job.depot_id = %s
"""


def version_of(job: UUID, depot: int | None) -> str | None:
    """The version of what a job's answers hang on; None where the depot has no such job."""
    with connection.cursor() as cursor:
        cursor.execute(VERSION, [job, depot])
        row = cursor.fetchone()
    return sha256(f"{SOURCE} {row[0]}".encode()).hexdigest()[:40] if row else None


class KeptAnswers(MiddlewareMixin):
    """Middleware, after those that know who asks: answers from what is kept, and keeps what was worked out anew."""

    def process_view(
        self, request: HttpRequest, view: Callable[..., HttpResponse], args: Any, kwargs: Any
    ) -> HttpResponse | None:
        """The answer that is kept, where there is one."""
        person = request.user
        found = KEPT.fullmatch(request.path)
        query = request.META.get("QUERY_STRING", "")
        if request.method != "GET" or found is None or query not in FIRST_PAGE or not isinstance(person, Person):
            return None
        version = version_of(UUID(found["job"]), person.depot_id)
        if version is None:
            return None
        if version in _versions_had(request):
            return _tagged(HttpResponse(status=304), version)
        path = f"{request.path}?{query}"
        there = KeptAnswer.objects.filter(path=path, version=version).values_list("body", flat=True).first()
        if there is not None:
            return _tagged(HttpResponse(bytes(there), content_type="application/json; charset=utf-8"), version)
        request.keep_as = (path, version)  # type: ignore[attr-defined]
        return None

    def process_response(self, request: HttpRequest, response: HttpResponse) -> HttpResponse:
        """Keep what was worked out."""
        path, version = getattr(request, "keep_as", ("", None))
        if version is not None and response.status_code == 200 and not response.streaming:
            keep(path, version, response.content, timezone.now())
            return _tagged(response, version)
        return response


def keep(path: str, version: str, body: bytes, now: datetime) -> None:
    """Keep an answer in the place of the one that was kept for this address."""
    KeptAnswer.objects.bulk_create(
        [KeptAnswer(path=path, version=version, body=body, at=now)],
        update_conflicts=True, unique_fields=["path"], update_fields=["version", "body", "at"],
    )  # fmt: skip


def forget_old(now: datetime) -> int:
    """Forget what nobody asked for anew in a week; how many answers that were."""
    return KeptAnswer.objects.filter(at__lt=now - KEPT_FOR).delete()[0]


def keep_sheet_of(request: HttpRequest, job: UUID, depot: int | None) -> None:
    """Have the sheet kept with which an entry is answered. Said before the sheet is worked out, and while the job is locked:
    what is kept is never older than its version.
    """
    request.keep_as = (f"{request.path.removesuffix('/entries')}?", version_of(job, depot))  # type: ignore[attr-defined]


def _versions_had(request: HttpRequest) -> list[str]:
    """The versions that whoever asks says to have."""
    tags = parse_etags(request.headers.get("If-None-Match", ""))
    return [tag.removeprefix("W/").strip('"') for tag in tags]


def _tagged(response: HttpResponse, version: str) -> HttpResponse:
    response["ETag"] = f'W/"{version}"'
    return response
