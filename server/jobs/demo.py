"""The demo world: loaded from files in the product's own formats, through the same actions that people use."""

from collections.abc import Callable
from datetime import datetime, timedelta
from pathlib import Path
from typing import Any
from uuid import UUID

from django.db import transaction

from catalogue.actions import load_document
from jobs.actions import add_entry, open_job
from jobs.models import Job
from people.models import Depot, Person
from references.actions import load_statements
from twincore.job import FIRST, turned, value_at
from twincore.profile import open_document
from twincore.profile.values import plain
from twinshown.sheet.accepting import NewEntry

DEPOTS = (("SQ", "Saltmarsh Quay Bakery Plant Service"), ("NH", "North Hythe Oven Repairs"))
PEOPLE = (
    ("wennick", "torchlight-42", "Wennick", "Tarl", "SQ", Person.Role.TECHNICIAN),
    ("corm", "spare-parts-77", "Corm", "Haddle", "SQ", Person.Role.PARTS_LEAD),
    ("ildro", "harbour-lamp-19", "Ildro", "Sant", "NH", Person.Role.TECHNICIAN),
)


def load_demo_world(folder: Path, now: datetime, say: Callable[[str], None]) -> None:
    """Load people, families, boards and jobs; does nothing where there are people already."""
    if Person.objects.exists():
        return
    with transaction.atomic():
        depots = {code: Depot.objects.create(code=code, name=name) for code, name in DEPOTS}
        people = {
            username: Person.objects.create_user(
                username, password=password, first_name=first, last_name=last, depot=depots[depot], role=role
            )
            for username, password, first, last, depot, role in PEOPLE
        }
        for kind in ("families", "boards", "nameplates", "rule-out", "adapters"):
            files = sorted((folder / kind).glob("*.json"))
            for file in files:
                load_document(None, file.read_bytes(), now)
            say(f"{len(files)} {kind}")
        count = sum(load_statements(None, file.read_bytes()) for file in sorted((folder / "statements").glob("*.json")))
        say(f"{count} statements")
        files = sorted((folder / "jobs").glob("*.json"), key=lambda file: int(file.name.partition(".")[0]))
        for file in files:
            load_job(open_document(file.read_bytes(), "job").root, people, now)
        say(f"{len(files)} jobs")


def load_job(document: dict[str, Any], people: dict[str, Person], now: datetime) -> Job:
    """One job, its entries added one after another as if they were made then."""
    opened = document["opened"]
    at = now - timedelta(days=opened.get("days_ago", 0), hours=2)
    person = people[opened["by"]]
    job = open_job(person, UUID(document["id"]), document["machine"], document.get("complaint", ""), at)
    for number, entry in enumerate(document["entries"], 1):
        board = entry.get("board", FIRST)
        state = turned(Job.objects.values_list("state", flat=True).get(pk=job.pk), board)
        new = NewEntry(
            UUID(entry["id"]), entry["target"], value_at(state, entry["target"]), plain(entry["after"]),
            entry.get("reason", ""), entry.get("read_how", ""), board=board,
        )  # fmt: skip
        job = add_entry(people[entry["by"]], job.pk, new, at + timedelta(minutes=4 * number))
    return job
