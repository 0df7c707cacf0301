"""Measurements of the front of a job at a hundred thousand boards and a million statements, on PostgreSQL."""

import json
import resource
import statistics
import time
from collections.abc import Callable
from datetime import UTC, datetime
from importlib import import_module
from pathlib import Path
from random import Random
from uuid import uuid4

import scale
from django.conf import settings
from django.core.cache import cache
from django.core.management import call_command
from django.db import connection
from django.test import Client
from django.test.utils import CaptureQueriesContext

from catalogue.models import Board
from jobs.models import Job
from people.models import Depot, Person, SignedIn
from references import contradicting, files
from references.importing import run_import
from references.models import Import
from twincore.job import empty_state

Row = Callable[[str, str, str], None]
ASKED = 1000
MATCHED = 100
PLANS = settings.ROOT / "docs" / "query-plans.md"


def measure(row: Row) -> None:
    """Fill, import, then ask as people do; the plans of the queries go to docs/."""
    import_module("config.wsgi")  # the server collects garbage by settings of its own
    call_command("migrate", verbosity=0)
    call_command("createcachetable")
    depot = Depot.objects.create(code="BQ", name="Bench")
    person = Person.objects.create_user("bench", password="bench-password", depot=depot, role=Person.Role.PARTS_LEAD)
    start = time.perf_counter()
    scale.fill_catalogue()
    row(f"{Board.objects.count():,} boards loaded in bulk", f"{time.perf_counter() - start:.0f} s", "")
    _import(row)
    with connection.cursor() as cursor:
        # as a database is that had some minutes since: its own housekeeping does not run beside what is measured
        cursor.execute("vacuum (analyze)")
    client = Client(SERVER_NAME="localhost")
    client.force_login(person, "django.contrib.auth.backends.ModelBackend")
    SignedIn.objects.create(session_key=client.session.session_key, person=person, at=datetime.now(UTC))
    _recognise(row, client)
    _match(row, client, person)


def _import(row: Row) -> None:
    id = uuid4()
    path = files.upload_path(id)
    path.parent.mkdir(parents=True, exist_ok=True)
    scale.write_statements(path)
    size = path.stat().st_size
    Import.objects.create(id=id, name="million.csv", bytes=size, sent_at=datetime.now(UTC))
    before = resource.getrusage(resource.RUSAGE_SELF).ru_maxrss
    start = time.perf_counter()
    done = run_import(id, datetime.now(UTC))
    took = time.perf_counter() - start
    peak = resource.getrusage(resource.RUSAGE_SELF).ru_maxrss
    assert done.state == "done" and done.new == scale.STATEMENTS - done.refused, done.fault
    row(
        f"import of {done.rows:,} statements ({size / 1e6:.0f} MB), {done.refused} refused, contradictions found",
        f"{took:.0f} s",
        "under 120 s",
    )
    row(
        "memory of the import's worker at its peak (before it began)",
        f"{peak / 1e3:.0f} ({before / 1e3:.0f}) MB",
        "under 500 MB",
    )
    start = time.perf_counter()
    found = contradicting.find_again()
    row(f"  of this, looking for contradictions ({found:,} listed)", f"{time.perf_counter() - start:.0f} s", "")


def _recognise(row: Row, client: Client) -> None:
    rng = Random(3)
    numbers = rng.sample(range(scale.FAMILIES * scale.BOARDS_EACH), ASKED)
    spoilt = [_spoilt(scale.part_number(n), rng) for n in numbers]
    times = []
    hit = 0
    for n, text in zip(numbers, spoilt, strict=True):
        start = time.perf_counter()
        answer = client.get("/api/boards/marked", {"text": text})
        times.append((time.perf_counter() - start) * 1000)
        hit += scale.part_number(n) in [each["part_number"] for each in answer.json()]
    row("search by a misread marking, 95th percentile", f"{_p95(times):.0f} ms", "at most 15 ms")
    row("  the right board among the eight shown", f"{hit:,} of {ASKED:,}", "all")
    times = []
    for n in range(50):
        start = time.perf_counter()
        client.get("/api/boards/marked", {"text": f"QX{n}-{n * 7919}-WK"})
        times.append((time.perf_counter() - start) * 1000)
    row("search for what is nowhere, 95th percentile", f"{_p95(times):.0f} ms", "")
    _explain("A misread marking", lambda: client.get("/api/boards/marked", {"text": spoilt[0]}), "catalogue_marking")


def _spoilt(text: str, rng: Random) -> str:
    """A number as a burnt label gives it: separators lost, and up to two misreadings, of which one may be no look-alike."""
    alike = {"0": "O", "1": "I", "5": "S", "8": "B", "2": "Z", "6": "G", "B": "8", "S": "5"}
    letters = list(text.replace("-", rng.choice(["-", " ", ""])))
    for at in rng.sample(range(len(letters)), 2):
        letters[at] = alike.get(letters[at], letters[at])
    at = rng.randrange(1, len(letters) - 1)
    match rng.randrange(4):
        case 0:
            letters[at : at + 1] = []
        case 1:
            letters[at : at + 1] = [letters[at]] * 2
        case 2:
            letters[at : at + 2] = [letters[at + 1], letters[at]]
    return "".join(letters)


def _match(row: Row, client: Client, person: Person) -> None:
    rng = Random(4)
    jobs = []
    boards = Board.objects.select_related("family")
    for n in rng.sample(range(scale.FAMILIES * scale.BOARDS_EACH), MATCHED):
        board = boards.get(part_number=scale.part_number(n))
        state = {**empty_state(), "original": board.part_number, "family": board.family_id}
        jobs.append(
            Job.objects.create(
                depot=person.depot, number=len(jobs) + 1, machine="bench", opened_at=datetime.now(UTC), opened_by=person,
                changed_at=datetime.now(UTC), state=state, original_revision_id=board.current_id,
                family_revision=board.family.current,
            )
        )  # fmt: skip
    cold = [_timed(client, job) for job in jobs]
    row(
        "ranked candidates, nothing kept yet (16 twin checks), 95th percentile",
        f"{_p95(cold):.0f} ms",
        "at most 300 ms",
    )
    cache.clear()
    kept = [_timed(client, job) for job in jobs]
    row("ranked candidates, twin checks from the database's store, 95th percentile", f"{_p95(kept):.0f} ms", "")
    warm = [_timed(client, job) for job in jobs]
    row("ranked candidates, everything kept but the answer, 95th percentile", f"{_p95(warm):.0f} ms", "at most 150 ms")
    kept_whole = [_timed(client, job, "page=1&size=12") for job in jobs for _ in range(2)][1::2]
    row("ranked candidates asked for again, 95th percentile", f"{_p95(kept_whole):.0f} ms", "")
    path = f"/api/jobs/{jobs[0].pk}/candidates?size=12"  # of this no answer is kept
    _explain("Ranked candidates: statements", lambda: client.get(path), "references_statement")
    _explain("Ranked candidates: boards of the family", lambda: client.get(path), ' AS "maker"')


def _timed(client: Client, job: Job, query: str = "size=12") -> float:
    start = time.perf_counter()
    response = client.get(f"/api/jobs/{job.pk}/candidates?{query}")
    took = (time.perf_counter() - start) * 1000
    assert response.status_code == 200 and json.loads(response.content)["items"], response.content[:300]
    return took


def _p95(times: list[float]) -> float:
    return statistics.quantiles(times, n=20)[-1]


def _explain(title: str, ask: Callable[[], object], mark: str) -> None:
    """Keep the plan of the first query that names something, as PostgreSQL carries it out."""
    with CaptureQueriesContext(connection) as captured:
        ask()
    query = next(
        each["sql"]
        for each in captured.captured_queries
        if mark in each["sql"] and each["sql"].lstrip().lower().startswith("select")
    )
    with connection.cursor() as cursor:
        cursor.execute("explain (analyze, buffers, costs off, summary off) " + query)
        plan = "\n".join(line for (line,) in cursor.fetchall())
    text = PLANS.read_text() if _kept_plans else HEAD
    Path(PLANS).write_text(f"{text}\n## {title}\n\n```\n{plan}\n```\n")
    _kept_plans.append(title)


_kept_plans: list[str] = []
HEAD = """# Query plans

What PostgreSQL does at 100,000 boards and 1,000,000 statements; written by `script/bench front`.
The search by a marking is shown at PostgreSQL's own threshold of 0.3; the product asks at 0.5 first, which leaves far fewer rows.
"""
