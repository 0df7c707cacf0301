"""Many people at once on the server as it is run, on the processors that also make the load."""

import asyncio
import os
import signal
import socket
import subprocess
import sys
import time
from collections.abc import Callable, Iterator
from contextlib import contextmanager
from datetime import UTC, datetime
from pathlib import Path
from random import Random
from urllib.error import URLError
from urllib.request import urlopen

from django.conf import settings
from django.contrib.auth import BACKEND_SESSION_KEY, HASH_SESSION_KEY, SESSION_KEY
from django.contrib.sessions.backends.db import SessionStore
from django.core.management import call_command
from load import Connection, Measured, Someone, everybody

from jobs.demo import load_demo_world
from jobs.models import Job
from people.models import Person, SignedIn

JOBS = 200
PEOPLE = (400, 1000)
BACKEND = "django.contrib.auth.backends.ModelBackend"


HOUR_S, EVERY_S, TENTH = 3600, 60, 100
"""How long memory is watched, how often, and how many people who think make a tenth of the rate."""


def measure(row: Callable[..., None], multiply: Callable[[int], None]) -> None:
    """Hundreds of people who think, forty who do not, a restart, every worker killed, and two groups of processes."""
    jobs = _jobs(multiply)
    port = int(os.environ["TWIN_PAGE_PORT"])
    with served(port) as server:
        # everything is worked out once before it is measured
        asyncio.run(everybody(people(port, jobs, 40), 0.0, 30.0, 0.0))
        for count in PEOPLE:
            thinking = asyncio.run(everybody(people(port, jobs, count), 5.0, 40.0))
            _tell(row, f"{count:,} people with 5 s of thought, one entry in ten", thinking, "at most 300 ms")
            row("  answers that were no success, or none", f"{_failed(thinking) + thinking.closed}", "none")
        hurried = asyncio.run(everybody(people(port, jobs, 40), 0.0, 20.0))
        rate = (len(hurried.seconds) + len(hurried.entries)) / 20
        row("40 people without thought, one entry in ten: requests a second", f"{rate:.0f}", "at least 200")
        row("  answers that were no success, or none", f"{_failed(hurried) + hurried.closed}", "none")
        _restart(row, server, people(port, jobs, 20))
        _kill(row, server, port)
        _two_groups(row, jobs, port)


def measure_hour(row: Callable[..., None], multiply: Callable[[int], None]) -> None:
    """The memory of the workers over an hour of a tenth of the rate."""
    jobs = _jobs(multiply)
    port = int(os.environ["TWIN_PAGE_PORT"])
    seconds = int(os.environ.get("TWIN_HOUR_S", HOUR_S))
    with served(port) as server:
        load = people(port, jobs, TENTH)
        asyncio.run(everybody(load[:40], 0.0, 30.0, 0.0))
        found = asyncio.run(_watched(people(port, jobs, TENTH), server, seconds))
    measured, seen = found
    first, last = max(seen[: max(1, len(seen) // 6)]), max(seen[-max(1, len(seen) // 6) :])
    row(
        f"memory of the largest worker in the last sixth of {seconds // 60} minutes at {TENTH} people, against the first",
        f"{last:.0f} ({first:.0f}) MB",
        "flat",
    )
    row("  answers that were no success, or none", f"{_failed(measured) + measured.closed}", "none")


async def _watched(load: list[Someone], server: subprocess.Popen[bytes], seconds: int) -> tuple[Measured, list[float]]:
    """Load for so long, and the megabytes of the largest worker, looked at every minute."""
    seen: list[float] = []

    async def watch() -> None:
        while True:
            await asyncio.sleep(EVERY_S)
            seen.append(max(_megabytes(pid) for pid in _workers(server)))

    watching = asyncio.create_task(watch())
    measured = await everybody(load, 5.0, float(seconds))
    watching.cancel()
    return measured, seen


def _workers(server: subprocess.Popen[bytes]) -> list[int]:
    return [int(pid) for pid in Path(f"/proc/{server.pid}/task/{server.pid}/children").read_text().split()]


def _megabytes(pid: int) -> float:
    """What a process holds of its own, shared pages by their share (smaps: Pss)."""
    lines = Path(f"/proc/{pid}/smaps_rollup").read_text().splitlines()
    return next(int(line.split()[1]) for line in lines if line.startswith("Pss:")) / 1000


def _jobs(multiply: Callable[[int], None]) -> list[tuple[str, str]]:
    """The demo world with so many jobs more, and the open ones of it with the step that each is at."""
    call_command("migrate", verbosity=0)
    call_command("createcachetable")
    load_demo_world(settings.ROOT / "demo", datetime.now(UTC), lambda _: None)
    multiply(1 + JOBS // 8)
    rows = Job.objects.filter(depot__code="SQ", closed_at=None, family_revision__isnull=False).order_by("number")[:JOBS]
    return [(str(job), step) for job, step in rows.values_list("pk", "step")]


def _two_groups(row: Callable[..., None], jobs: list[tuple[str, str]], port: int) -> None:
    """A second group of processes on the same database, as on a second machine: people of both work on the same jobs."""
    other = _free_port()
    with served(other):
        both = [*people(port, jobs, 20), *people(other, jobs, 20)]
        measured = asyncio.run(everybody(both, 0.0, 20.0))
    rate = (len(measured.seconds) + len(measured.entries)) / 20
    row("two groups of processes on one database, 20 people each: requests a second", f"{rate:.0f}", "as one group")
    row("  answers that were no success, or none", f"{_failed(measured) + measured.closed}", "none")


def _free_port() -> int:
    with socket.socket() as found:
        found.bind(("127.0.0.1", 0))
        return int(found.getsockname()[1])


def _restart(row: Callable[..., None], server: subprocess.Popen[bytes], at_work: list[Someone]) -> None:
    """What a restart costs those who are at work meanwhile."""

    async def work() -> Measured:
        asyncio.get_running_loop().call_later(5, server.send_signal, signal.SIGHUP)
        return await everybody(at_work, 0.5, 15.0, 0.0)

    measured = asyncio.run(work())
    row(
        "restarted under 20 people: answers that were no success, or none",
        f"{_failed(measured) + measured.closed}",
        "none",
    )


def _kill(row: Callable[..., None], server: subprocess.Popen[bytes], port: int) -> None:
    """How long nobody is answered after every worker was killed."""
    begun = time.monotonic()
    for child in _workers(server):
        os.kill(child, signal.SIGKILL)
    time.sleep(0.05)
    wait_for(port)
    row("every worker killed: answers again after", f"{time.monotonic() - begun:.1f} s", "at most 2 s")


def people(port: int, jobs: list[tuple[str, str]], count: int) -> list[Someone]:
    """So many people, each signed in on a device of their own, several on each job."""
    person = Person.objects.get(username="wennick")
    found = []
    for number in range(count):
        session = SessionStore()
        session[SESSION_KEY], session[BACKEND_SESSION_KEY] = str(person.pk), BACKEND
        session[HASH_SESSION_KEY] = person.get_session_auth_hash()
        session.save()
        SignedIn.objects.create(session_key=session.session_key, person=person, at=datetime.now(UTC))
        token = "a" * 32
        connection = Connection(port, f"sessionid={session.session_key}; csrftoken={token}")
        found.append(Someone(connection, token, *jobs[number % len(jobs)], Random(number), turn=number))
    return found


@contextmanager
def served(port: int) -> Iterator[subprocess.Popen[bytes]]:
    """The server as it is run, until the block ends."""
    command = [sys.executable, "-m", "gunicorn", "config.wsgi", "--bind", f"127.0.0.1:{port}"]
    server = subprocess.Popen(command, cwd=settings.ROOT / "server", stderr=subprocess.DEVNULL)
    try:
        wait_for(port)
        yield server
    finally:
        server.send_signal(signal.SIGTERM)
        server.wait()


def wait_for(port: int) -> None:
    """Wait until the server answers."""
    for _ in range(300):
        try:
            urlopen(f"http://127.0.0.1:{port}/api/opening", timeout=2).close()
        except (URLError, OSError):
            time.sleep(0.05)
        else:
            return
    raise AssertionError("the server did not answer")


def _tell(row: Callable[..., None], what: str, measured: Measured, wanted: str) -> None:
    row(f"{what}, 95th percentile", f"{measured.percentile(0.95):.0f} ms", wanted)
    row("  median", f"{measured.percentile(0.5):.0f} ms")


def _failed(measured: Measured) -> int:
    return sum(count for status, count in measured.statuses.items() if status not in (200, 304))
