"""Measurements of the twin check and the server; medians of many runs, references beside them in the same run."""

import gc
import gzip
import json
import statistics
import sys
import time
import tracemalloc
from collections.abc import Callable
from datetime import UTC, datetime
from importlib import import_module
from pathlib import Path
from random import Random
from typing import Any
from uuid import uuid4

import django

django.setup()

import figures  # noqa: E402
import measure_carry  # noqa: E402
import measure_end  # noqa: E402
import measure_front  # noqa: E402
import measure_load  # noqa: E402
import measure_page  # noqa: E402
import measure_pictures  # noqa: E402
from django.conf import settings  # noqa: E402  # Django is set up first
from django.core.management import call_command  # noqa: E402
from django.test import Client  # noqa: E402

from jobs.demo import load_demo_world  # noqa: E402
from jobs.models import Entry, Job  # noqa: E402
from people.models import Person  # noqa: E402
from tests import large_boards  # noqa: E402
from tests.builders import CASES, case_twin, encoded, twin_of  # noqa: E402
from tests.test_automata import as_automaton  # noqa: E402
from twincore import behaviour, profile  # noqa: E402
from twincore.errors import EndlessLoopError  # noqa: E402

FACTOR = 1000


MEASURED: list[figures.Line] = []


def row(what: str, figure: str, wanted: str = "") -> None:
    """One line of the report, and of the data that is kept."""
    MEASURED.append({"what": what, "figure": figure, "wanted": wanted})
    print(f"{what:<68} {figure:>18}   {wanted}", flush=True)


def median_ms(work: Callable[[], Any], runs: int = 30) -> float:
    """Median milliseconds of a piece of work, warmed up once."""
    work()
    times = []
    for _ in range(runs):
        start = time.perf_counter()
        work()
        times.append((time.perf_counter() - start) * 1000)
    return statistics.median(times)


def scaled_oven(factor: int, longer: int) -> behaviour.Twin:
    """The oven pair in register with every time of its documents multiplied, and the post-purge a little longer."""
    documents = {}
    for name in ("family", "original.board", "replacement.board"):
        documents[name] = json.loads((CASES / f"oven-in-register/{name}.json").read_text())
    for side in ("original", "replacement"):
        board = documents[f"{side}.board"]
        for state in board["behaviour"]["states"].values():
            for go in state["go"]:
                if isinstance(go.get("after"), int):
                    go["after"] *= factor
        for name in ("purge.pre", "trial", "purge.post"):
            for each in board["functions"][name]["table"]:
                each["value"] = each["value"] * factor + (longer if name == "purge.post" else 0)
    family = profile.parse_family(encoded(documents["family"]))
    built = [profile.parse_board(encoded(documents[f"{side}.board"])) for side in ("original", "replacement")]
    found = [
        profile.parse_record((CASES / f"oven-in-register/{side}.settings.json").read_bytes(), board)
        for side, board in zip(("original", "replacement"), built, strict=True)
    ]
    twin = behaviour.make_twin(built[0], found[0], built[1], found[1], family)
    assert behaviour.prove(twin).verdict == "identical"
    return twin


def measure_prove() -> None:
    """The figures of the twin check."""
    oven, forgotten = case_twin("oven-in-register"), case_twin("oven-lockout-forgotten")
    same = median_ms(lambda: behaviour.prove(oven), 200)
    row("oven pair in register", f"{same:.2f} ms", "at most 5 ms")
    plain, long = scaled_oven(1, 0), scaled_oven(FACTOR, 1)
    ratio = median_ms(lambda: behaviour.prove(long), 200) / median_ms(lambda: behaviour.prove(plain), 200)
    row("oven pair, every time × 1,000 and post-purge 1 s longer on both", f"× {ratio:.2f}", "at most × 1.1")
    row("oven pair, lockout forgotten", f"{median_ms(lambda: behaviour.prove(forgotten)):.2f} ms", "at most 20 ms")
    for states, limit in ((40, "0.5 s"), (100, "2 s")):
        one = large_boards.board_document(Random(1), states, "A")
        twin = twin_of(large_boards.family_document(), [one, {**one, "part_number": "B"}])
        row(
            f"{states} states, 10 inputs, 4 clocks, in register",
            f"{median_ms(lambda t=twin: behaviour.prove(t), 5):.0f} ms",
            f"at most {limit}",
        )
    reference = automata_ms()
    row("general automata library, expanded oven machine (one output)", f"{reference:.0f} ms")
    row(
        "a general automata library on the oven machine, against the twin check",
        f"{reference / same:,.0f} times slower",
        "at least 1,000 times",
    )
    measure_hard()


def automata_ms() -> float:
    """Expand both ovens to one-second ticks and let the library compare their languages for one output."""
    folder = CASES / "oven-in-register"
    family = json.loads((folder / "family.json").read_text())
    boards = [json.loads((folder / f"{side}.board.json").read_text()) for side in ("original", "replacement")]
    twin = case_twin("oven-in-register")
    start = time.perf_counter()
    machines = [
        as_automaton(family, board, dict(values), "valve", ticks=1, most=200_000)
        for board, values in zip(boards, twin.values, strict=True)
    ]
    assert machines[0] == machines[1]
    return (time.perf_counter() - start) * 1000


def measure_hard() -> None:
    """Large pairs with one constant changed deep inside: how many are answered, how long, how much memory."""
    for clocks in (False, True):
        solved, fewest, slowest = 0, 0, 0.0
        for seed in range(20):
            rng = Random(seed)
            one = large_boards.board_document(rng, 40, "A", clocks)
            twin = twin_of(large_boards.family_document(), [one, large_boards.changed_deep(rng, one, "B")])
            start = time.perf_counter()
            try:
                proof = behaviour.prove(twin)
            except EndlessLoopError:
                continue
            slowest = max(slowest, time.perf_counter() - start)
            solved += proof.verdict != "not proved"
            fewest += bool(proof.counter_case and proof.counter_case.fewest) or proof.verdict == "identical"
        name = "with 4 clocks and a counter" if clocks else "without clocks and counters"
        row(f"40 states changed deep inside, {name}: answered", f"{solved} of 20", "honest otherwise")
        row(f"  of these with the fewest changes shown, {name}", f"{fewest} of 20", "as many")
        row(f"  slowest of these answers, {name}", f"{slowest:.1f} s", "at most 10 s")
    rng = Random(3)
    one = large_boards.board_document(rng, 40, "A")
    twin = twin_of(large_boards.family_document(), [one, large_boards.changed_deep(rng, one, "B")])
    tracemalloc.start()
    behaviour.prove(twin)
    row(
        "memory of the largest of these at its peak",
        f"{tracemalloc.get_traced_memory()[1] / 1e6:.0f} MB",
        "under 200 MB",
    )
    tracemalloc.stop()


def measure_server() -> None:
    """Job list and job sheet at a thousand times the demo data, and the size of the first load."""
    import_module("config.wsgi")  # the server collects garbage by settings of its own
    call_command("migrate", verbosity=0)
    call_command("createcachetable")
    load_demo_world(settings.ROOT / "demo", datetime.now(UTC), lambda _: None)
    multiply_jobs(FACTOR)
    gc.collect()
    gc.freeze()  # what making the jobs left behind is nothing that a server drags along
    client = Client(SERVER_NAME="localhost")
    client.force_login(Person.objects.get(username="wennick"), "django.contrib.auth.backends.ModelBackend")
    jobs = list(Job.objects.order_by("?").values_list("pk", flat=True)[:200])
    row(f"jobs in the database ({Entry.objects.count():,} entries)", f"{Job.objects.count():,}")
    paths = {
        f"job list of {Job.objects.count():,} jobs and {Entry.objects.count():,} entries": [
            f"/api/jobs?page={1 + n % 40}" for n in range(200)
        ],
        "job sheet": [f"/api/jobs/{job}" for job in jobs],
        "history of a job": [f"/api/jobs/{job}/entries" for job in jobs],
        "search in the job list": [f"/api/jobs?show=all&search=oven {n}" for n in range(100)],
    }
    for name, each in paths.items():
        row(f"{name}, 95th percentile", f"{percentile_ms(client, each):.0f} ms", "at most 100 ms")
    assets = Path(settings.STATIC_ROOT) / "assets"
    script = sum(len(gzip.compress(file.read_bytes(), 6)) for file in assets.glob("*.js"))
    row("script of the first load, compressed", f"{script / 1000:.0f} kB", "at most 250 kB")


def percentile_ms(client: Client, paths: list[str]) -> float:
    """95th percentile over the paths, in the server."""
    times = []
    client.get(paths[0])
    for path in paths:
        start = time.perf_counter()
        response = client.get(path)
        times.append((time.perf_counter() - start) * 1000)
        assert response.status_code == 200, response.content[:200]
    return statistics.quantiles(times, n=20)[-1]


def multiply_jobs(factor: int) -> None:
    """So many of every seeded job, entries included."""
    seeds = list(Job.objects.all())
    number = max(job.number for job in seeds)
    entries = {job.pk: list(job.entries.all()) for job in seeds}
    for _ in range(factor - 1):
        copies: list[Job] = []
        more: list[Entry] = []
        for job in seeds:
            number += 1
            values = {f.attname: getattr(job, f.attname) for f in Job._meta.concrete_fields}
            copies.append(
                Job(
                    **{
                        **values,
                        "id": uuid4(),
                        "number": number,
                        "machine": f"{job.machine} {number}",
                        "machine_key": f"{job.machine_key} {number}",
                    }
                )
            )
            for entry in entries[job.pk]:
                kept = {f.attname: getattr(entry, f.attname) for f in Entry._meta.concrete_fields}
                more.append(Entry(**{**kept, "id": uuid4(), "job_id": copies[-1].pk}))
        Job.objects.bulk_create(copies)
        Entry.objects.bulk_create(more)


if __name__ == "__main__":
    parts = {"prove": measure_prove, "server": measure_server, "front": lambda: measure_front.measure(row)}
    parts["pictures"] = lambda: measure_pictures.measure(row)
    parts["end"] = lambda: measure_end.measure(row, median_ms)
    parts["page"] = lambda: measure_page.measure(row)
    parts["load"] = lambda: measure_load.measure(row, multiply_jobs)
    parts["carry"] = lambda: measure_carry.measure(row, median_ms)
    usual = list(parts)
    # takes an hour, and is asked for by name
    parts["hour"] = lambda: measure_load.measure_hour(row, multiply_jobs)
    for part in sys.argv[1:] or usual:
        MEASURED.clear()
        parts[part]()
        figures.keep(part, MEASURED)
