"""What a job's sheet answers, kept: read again it costs no computing, whichever worker is asked.

An answer is kept with the version of everything that it hangs on: the rows of the job, of the others on its machine, of its
depot and its boards (each by its `row_version`, which every change of a row makes a new one), the guides of the catalogue, and
the source that shapes it.
Whoever says that it has that version (If-None-Match, RFC 9110) is told that it still is.
"""

import gzip
import re
from collections.abc import Callable
from datetime import datetime, timedelta
from hashlib import sha256
from typing import Any, NamedTuple
from uuid import UUID

from django.db import connection
from django.http import HttpRequest, HttpResponse
from django.utils import timezone
from django.utils.cache import patch_vary_headers
from django.utils.deprecation import MiddlewareMixin
from django.utils.http import parse_etags

from bench.kept import SOURCE
from jobs.models import KeptAnswer
from people.models import Person
from twincore.job import TARGETS

OF_THE_BOARDS = ("boards/original", "boards/replacement")
"""What hangs on the boards alone, whatever else the job says."""
OF_THE_PLAN = ("between", "comparison", "leaflet", "machine", "presses", "proving", "record", "wiring")
"""What hangs on all that the job says, but for what is only said of handing over."""
OF_ALL = ("", "entries", "runs")
"""What hangs on all of the job; of lists the first page."""
OF_THE_CATALOGUE = "candidates"
"""What hangs on the plan and on all of the catalogue; and on the minute, for the parts desk is asked again by who looks."""
PARTS = (*OF_THE_BOARDS, *OF_THE_PLAN, *OF_ALL, OF_THE_CATALOGUE, "earlier")
"""The last one hangs on the other jobs on the machine."""
HANDING_OVER = sorted({target.key for target in TARGETS.values() if target.step == "hand_over"} | {"refused"})
KEPT = re.compile(
    rf"/api/jobs/(?P<job>[0-9a-f]{{8}}(-[0-9a-f]{{4}}){{3}}-[0-9a-f]{{12}})(\.[1-6])?/?(?P<part>(?<=/)({'|'.join(PARTS)}))?$"
)
FIRST_PAGE = ("", "page=1", "page=1&size=12")
KEPT_FOR = timedelta(days=7)
LEVEL = 5
"""How hard an answer is packed, once."""
# every row by its key: a join of as many tables would take longer to plan than to read
BOARD = """concat_ws(' ', board.row_version, (select row_version from catalogue_family where code = board.family_id),
    (select string_agg(row_version::text, ' ' order by id) from catalogue_boardpicture
      where depot_id = job.depot_id and part_number = board.part_number and under))"""
"""A board as it is now, its kind, and the depot's picture under its drawing."""
MINUTE = "floor((extract(epoch from now()) + get_byte(uuid_send(job.id), 15) %% 60) / 60)"
"""Minutes that begin for each job at a second of its own, so that not all are worked out anew at once."""
VERSION = f"""
select concat_ws(' ', family_revision_id, original_revision_id, replacement_revision_id,
  case %s when 'boards' then '' when 'earlier' then concat(machine, machine_key) when 'plan' then
    md5(concat_ws(' ', case jsonb_typeof(state) when 'object' then state - %s::text[] else state end, machine, complaint, closed_at, origin is null))
  else job.row_version::text end,
  (select row_version from people_depot where id = job.depot_id),
  (select row_version from people_person where id = job.opened_by_id),
  (select {BOARD} from catalogue_board board
    where id = (select board_id from catalogue_boardrevision where id = job.original_revision_id)),
  (select {BOARD} from catalogue_board board
    where id = (select board_id from catalogue_boardrevision where id = job.replacement_revision_id)),
  (select string_agg(concat_ws(' ', other.row_version,
     (select string_agg({BOARD}, ' ' order by id) from catalogue_board board
       where id in (select board_id from catalogue_boardrevision
                     where id in (other.original_revision_id, other.replacement_revision_id)))), ' ' order by name)
     from jobs_otherboard other where job_id = job.id),
  (select string_agg(current_id::text, ' ' order by id) from catalogue_guide),
  (select concat(string_agg(id::text, ' ' order by id), {MINUTE}) from jobs_cataloguechange where %s),
  (select string_agg(row_version::text, ' ' order by id) from jobs_job other
    where %s = 'earlier' and other.id <> job.id and other.depot_id = job.depot_id and other.machine_key = job.machine_key)),
  kept.version, kept.body
from jobs_job job left join jobs_keptanswer kept on kept.path = %s
where job.id = %s and job.depot_id = %s
"""


class Found(NamedTuple):
    """The version of what a part of a job hangs on, and the answer that is kept for it, where there is one."""

    version: str
    body: bytes | None


def look_up(job: UUID, depot: int | None, part: str, path: str) -> Found | None:
    """What is kept at an address of a part of a job; None where the depot has no such job."""
    kind = "boards" if part in OF_THE_BOARDS else "plan" if part in (*OF_THE_PLAN, OF_THE_CATALOGUE) else part
    with connection.cursor() as cursor:
        cursor.execute(VERSION, [kind, HANDING_OVER, part == OF_THE_CATALOGUE, kind, path, job, depot])
        row = cursor.fetchone()
    if row is None:
        return None
    version = sha256(f"{SOURCE} {row[0]}".encode()).hexdigest()[:40]
    return Found(version, bytes(row[2]) if row[1] == version else None)


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
        path = f"{request.path}?{query}"
        there = look_up(UUID(found["job"]), person.depot_id, found["part"] or "", path)
        if there is None:
            return None
        if there.version in _versions_had(request):
            return _tagged(HttpResponse(status=304), there.version)
        if there.body is not None:
            return _tagged(_packed(request, there.body), there.version)
        request.keep_as = (path, there.version)  # type: ignore[attr-defined]
        return None

    def process_response(self, request: HttpRequest, response: HttpResponse) -> HttpResponse:
        """Keep what was worked out."""
        path, version = getattr(request, "keep_as", ("", None))
        if version is not None and response.status_code == 200 and not response.streaming:
            body = gzip.compress(response.content, LEVEL)
            keep(path, version, body, timezone.now())
            return _tagged(_packed(request, body), version)
        return response


def _packed(request: HttpRequest, body: bytes) -> HttpResponse:
    """An answer that is kept packed, as whoever asks takes it."""
    takes = "gzip" in request.headers.get("Accept-Encoding", "")
    response = HttpResponse(body if takes else gzip.decompress(body), content_type="application/json; charset=utf-8")
    patch_vary_headers(response, ("Accept-Encoding",))
    if takes:
        response["Content-Encoding"] = "gzip"
    return response


def not_whole(request: HttpRequest) -> None:
    """Say that what is answered is not all there is to say: it is worked out anew when it is asked for again."""
    request.keep_as = ("", None)  # type: ignore[attr-defined]


def keep(path: str, version: str, body: bytes, now: datetime) -> None:
    """Keep an answer, packed, in the place of the one that was kept for this address."""
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
    path = f"{request.path.removesuffix('/entries')}?"
    there = look_up(job, depot, "", path)
    if there is not None:
        request.keep_as = (path, there.version)  # type: ignore[attr-defined]


def _versions_had(request: HttpRequest) -> list[str]:
    """The versions that whoever asks says to have."""
    tags = parse_etags(request.headers.get("If-None-Match", ""))
    return [tag.removeprefix("W/").strip('"') for tag in tags]


def _tagged(response: HttpResponse, version: str) -> HttpResponse:
    response["ETag"] = f'W/"{version}"'
    return response
