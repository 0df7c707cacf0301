"""Measurements of the twin check and the server; medians of many runs, references beside them in the same run."""

import gc
import gzip
import json
import resource
import statistics
import sys
import time
from collections.abc import Callable
from datetime import UTC, datetime
from importlib import import_module
from multiprocessing import get_context
from pathlib import Path
from random import Random
from typing import Any, NamedTuple
from uuid import uuid4

import django

django.setup()

import figures  # noqa: E402
import measure_away  # noqa: E402
import measure_carry  # noqa: E402
import measure_end  # noqa: E402
import measure_front  # noqa: E402
import measure_load  # noqa: E402
import measure_page  # noqa: E402
import measure_pictures  # noqa: E402
import measure_practice  # noqa: E402
import measure_stock  # noqa: E402
from django.conf import settings  # noqa: E402  # Django is set up first
from django.core.management import call_command  # noqa: E402
from django.test import Client  # noqa: E402

from jobs.demo import load_demo_world  # noqa: E402
from jobs.models import Entry, Job  # noqa: E402
from people.models import Person  # noqa: E402
from tests import large_boards  # noqa: E402
from tests.against_ticks import agree, both_ways  # noqa: E402
from tests.builders import CASES, case_twin, encoded, twin_of  # noqa: E402
from tests.test_automata import as_automaton  # noqa: E402
from tests.test_behaviour import random_pair  # noqa: E402
from tests.test_levels import random_pair as pair_with_level  # noqa: E402
from tests.test_running_time import random_pair as pair_with_running_time  # noqa: E402
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
    for states, inputs, clocks, limit in ((40, 10, 4, "0.5 s"), (100, 10, 4, "82 ms"), (400, 12, 6, "1 s")):
        one = large_boards.board_document(Random(1), states, "A", clocks, inputs)
        twin = twin_of(large_boards.family_document(inputs), [one, {**one, "part_number": "B"}])
        row(
            f"{states} states, {inputs} inputs, {clocks} clocks, in register",
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
    measure_random()


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


RANDOM_PAIRS = 5_000


def measure_random() -> None:
    """Random pairs (levels, running time, several machines, clocks, counters, loops) by the exact search, and by one in ticks that shares no code."""
    with get_context("fork").Pool(2) as pool:
        found = [each for each in pool.imap_unordered(agreement, range(RANDOM_PAIRS), 50) if each is not None]
    row(
        f"of {RANDOM_PAIRS:,} random pairs those that a search in ticks can answer: both say the same",
        f"{sum(found):,} of {len(found):,}",
        "all",
    )


def agreement(seed: int) -> bool | None:
    """Whether both searches say the same of a random pair; None where it is none, or too large for ticks."""
    made = (random_pair, pair_with_level, pair_with_running_time)[seed % 3]
    found = both_ways(made(seed))
    return None if found is None else agree(*found)


HARD = 100
"""Seeds of large pairs that are tried with clocks, and without."""


def measure_hard() -> None:
    """Large pairs with one constant changed deep inside: how many are answered, how long, how much memory."""
    for clocks, name in ((0, "without clocks and counters"), (4, "with 4 clocks and a counter")):
        answers = [answer for seed in range(HARD) if (answer := by_itself(seed, clocks))]
        within = [each for each in answers if each.answered and each.seconds <= 10 and each.megabytes <= 200]
        row(
            f"40 states changed deep inside, {name}: answered within 10 s and 200 MB",
            f"{len(within)} of {len(answers)}",
            "at least 97 of 100",
        )
        row(
            f"  of these with the fewest changes shown, {name}", f"{sum(each.fewest for each in within)}", "all of them"
        )
        times = sorted(each.seconds for each in answers)
        row(f"  slowest (median), {name}", f"{times[-1]:.1f} ({statistics.median(times):.2f}) s", "at most 10 s")
        row(f"  most memory, {name}", f"{max(each.megabytes for each in answers):.0f} MB", "under 200 MB")


class Answer(NamedTuple):
    """How a twin check went: whether it was answered, with the fewest changes, its seconds of processor, and the memory it took."""

    answered: bool
    fewest: bool
    seconds: float
    megabytes: float


def hard_pair(seed: int, clocks: int) -> behaviour.Twin:
    """A pair of the generator, one constant changed deep inside."""
    rng = Random(seed)
    one = large_boards.board_document(rng, 40, "A", clocks)
    return twin_of(large_boards.family_document(), [one, large_boards.changed_deep(rng, one, "B")])


def by_itself(seed: int, clocks: int) -> Answer | None:
    """A twin check in a process of its own, so that its memory is its own too; None for a board that never settles at rest."""
    with get_context("fork").Pool(1) as pool:
        return pool.apply(checked, (seed, clocks))


def checked(seed: int, clocks: int) -> Answer | None:
    """A twin check, measured."""
    twin = hard_pair(seed, clocks)
    before = resource.getrusage(resource.RUSAGE_SELF).ru_maxrss
    start = time.process_time()
    try:
        proof = behaviour.prove(twin)
    except EndlessLoopError:
        return None
    seconds = time.process_time() - start
    fewest = proof.counter_case.fewest if proof.counter_case else proof.verdict == "identical"
    grown = resource.getrusage(resource.RUSAGE_SELF).ru_maxrss - before
    return Answer(proof.verdict != "not proved", fewest, seconds, grown / 1000)


def measure_server() -> None:
    """Job list and job sheet at a thousand times the demo data, and the size of the client."""
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
    row("every script of the client, compressed", f"{script / 1000:.0f} kB")


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
    parts["away"] = lambda: measure_away.measure(row)
    parts["practice"] = lambda: measure_practice.measure(row)
    parts["stock"] = lambda: measure_stock.measure(row)
    parts["load"] = lambda: measure_load.measure(row, multiply_jobs)
    parts["carry"] = lambda: measure_carry.measure(row, median_ms)
    usual = list(parts)
    # takes an hour, and is asked for by name
    parts["hour"] = lambda: measure_load.measure_hour(row, multiply_jobs)
    for part in sys.argv[1:] or usual:
        MEASURED.clear()
        parts[part]()
        figures.keep(part, MEASURED)
