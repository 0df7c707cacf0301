"""Measurements of the end of a job: a very large record opened, packed, verified and printed; a run judged."""

import io
import time
from collections.abc import Callable
from datetime import UTC, datetime, timedelta
from hashlib import sha256
from typing import Any
from uuid import uuid4

from django.conf import settings
from django.core.files.base import ContentFile
from django.core.management import call_command
from django.test import Client
from PIL import Image

from jobs.demo import load_demo_world
from jobs.ledger.chaining import chain
from jobs.models import Entry, Job, Picture
from jobs.packages.packaging import package_of
from jobs.queries import job as read_job
from people.models import Person
from twincore import profile
from twincore.behaviour import make_twin
from twincore.chain import open_package
from twincore.profile.trace import Seen
from twincore.prove import expected_events, judge_run

ENTRIES, PICTURES = 2000, 60


def measure(row: Callable[..., None], median_ms: Callable[..., float]) -> None:
    """The figures of the end of a job."""
    _judging(row, median_ms)
    call_command("migrate", verbosity=0)
    call_command("createcachetable")
    load_demo_world(settings.ROOT / "demo", datetime.now(UTC), lambda _: None)
    person = Person.objects.get(username="wennick")
    job = _large(person)
    client = Client(SERVER_NAME="localhost")
    client.force_login(person, "django.contrib.auth.backends.ModelBackend")
    parts = (
        "",
        "/earlier",
        "/hand-over",
        "/proving",
        "/runs?page=1&size=5",
        "/comparison",
        "/record",
        "/wiring",
        "/fitting",
        "/entries",
    )

    def opened() -> None:
        for part in parts:
            answer = client.get(f"/api/jobs/{job.pk}{part}")
            assert answer.status_code == 200, (part, answer.content[:300])

    row(
        f"a job of {job.entry_count:,} entries and {PICTURES} pictures opened, all its parts at once",
        f"{median_ms(opened, 10):.0f} ms",
        "at most 1 s",
    )
    row("  the sheet alone", f"{median_ms(lambda: client.get(f'/api/jobs/{job.pk}'), 20):.0f} ms")
    begun = time.perf_counter()
    data = package_of(read_job(person, job.pk)).read()
    row(f"its package written ({len(data) / 1e6:.0f} MB)", f"{time.perf_counter() - begun:.2f} s")
    begun = time.perf_counter()
    assert open_package(data).faults == ()
    row("its package verified, every entry and picture", f"{time.perf_counter() - begun:.2f} s")
    begun = time.perf_counter()
    assert client.get(f"/api/jobs/{job.pk}/sheet.pdf").content[:4] == b"%PDF"
    row("its job sheet as PDF, pictures in it", f"{time.perf_counter() - begun:.1f} s")


def _judging(row: Callable[..., None], median_ms: Callable[..., float]) -> None:
    demo = settings.ROOT / "demo"
    family = profile.parse_family((demo / "families/deck-oven.family.json").read_bytes())
    board = profile.parse_board((demo / "boards/TVH-2420-A.board.json").read_bytes())
    record = profile.factory_record(board)
    values = make_twin(board, record, board, record, family).values[0]
    scenario = max(family.scenarios, key=lambda each: len(each.steps))
    due = expected_events(board, values, family, scenario)
    seen = tuple(Seen(e.at, e.output, e.on, 0.5) for e in due if e.at <= scenario.until)  # type: ignore[arg-type]
    trace = profile.Trace(board.part_number, scenario, seen, "by hand")
    row(
        "a measured run of the two-stage oven judged, tolerances carried",
        f"{median_ms(lambda: judge_run(board, values, family, trace)):.1f} ms",
    )


def _large(person: Person) -> Job:
    """The first seeded job, open again, with far more in it than any real one has."""
    job = Job.objects.select_related("depot", "opened_by").get(depot__code="SQ", number=1)
    job.closed_at = None
    at = datetime.now(UTC)
    for number in range(PICTURES):
        out = io.BytesIO()
        Image.effect_noise((1600, 1200), 40).convert("RGB").save(out, "JPEG", quality=70)
        picture = Picture(name=uuid4(), job=job, digest="", width=1600, height=1200, added_at=at, added_by=person)
        picture.digest = sha256(out.getvalue()).hexdigest()
        picture.file.save(f"{job.pk}/{picture.name}.jpg", ContentFile(out.getvalue()), save=False)
        picture.save(force_insert=True)
        said: dict[str, Any] = {
            "caption": f"picture {number}",
            "of": "board",
            "marks": [{"x": 0.5, "y": 0.5, "text": "here"}],
        }
        job.state["pictures"][str(picture.name)] = said
        _entry(job, f"picture.{picture.name}", said, at, person, picture.digest)
    while job.entry_count < ENTRIES:
        kind = job.entry_count % 3
        name = str(uuid4())
        if kind == 0 and len(job.state["removed"]) < 300:
            value: Any = {
                "what": f"screw {job.entry_count}",
                "kind": "screw",
                "count": 1,
                "place": "cover",
                "back": True,
                "n": job.entry_count,
            }
            job.state["removed"][name] = value
            _entry(job, f"removed.{name}", {k: v for k, v in value.items() if k != "n"}, at, person)
        elif kind == 1 and len(job.state["runs"]) < 40:
            run = next(iter(job.state["runs"].values()))
            job.state["runs"][name] = {**run, "n": job.entry_count}
            _entry(
                job, f"run.{name}", {k: v for k, v in run.items() if k not in ("by", "at", "n", "board")}, at, person
            )
        else:
            _entry(job, "spent.minutes", job.entry_count, at, person)
    job.save()
    return job


def _entry(job: Job, target: str, after: Any, at: datetime, person: Person, attachment: str = "") -> Entry:
    job.entry_count += 1
    entry = Entry(
        id=uuid4(), job=job, number=job.entry_count, at=at + timedelta(seconds=job.entry_count), by=person,
        by_name=person.shown_name, target=target, after=after, attachment=attachment,
    )  # fmt: skip
    chain(job, entry)
    entry.save(force_insert=True)
    return entry
