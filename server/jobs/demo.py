"""The demo world: loaded from files in the product's own formats, through the same actions that people use."""

from collections.abc import Callable
from datetime import datetime, timedelta
from itertools import combinations
from pathlib import Path
from typing import Any
from uuid import NAMESPACE_OID, UUID, uuid5

from django.contrib.auth.hashers import make_password
from django.db import transaction

from catalogue.actions import load_document
from jobs.actions import add_entry, open_job
from jobs.models import Job
from people.access import depot_of
from people.models import Depot, Person
from practice.actions import keep_attempt, keep_group, load_tasks
from practice.tasks import task_of
from references.actions import load_statements
from stock import lists
from stock.models import Apart, Van
from twincore.job import FIRST, turned, value_at
from twincore.practice import solved
from twincore.profile import open_document
from twincore.profile.values import plain
from twinshown.entering.accepting import NewEntry
from twinshown.practice.schemas import TaskNamed

DEPOTS = (("SQ", "Saltmarsh Quay Bakery Plant Service"), ("NH", "North Hythe Oven Repairs"))
PEOPLE = (
    ("wennick", "torchlight-42", "Wennick", "Tarl", "SQ", Person.Role.TECHNICIAN),
    ("corm", "spare-parts-77", "Corm", "Haddle", "SQ", Person.Role.PARTS_LEAD),
    ("ildro", "harbour-lamp-19", "Ildro", "Sant", "NH", Person.Role.TECHNICIAN),
)
LEARNERS = (
    ("hesk", "Hesk", "Lommar"), ("brannik", "Brannik", "Orrel"), ("sulwe", "Sulwe", "Tarrowin"), ("odrin", "Odrin", "Pellane"),
    ("merro", "Merro", "Vaskel"), ("ysold", "Ysold", "Cranow"),
)  # fmt: skip
"""Those who learn at the depot: each a little further than the one before."""
VANS = (
    ("Blue van", "wennick", 1500.0, 8.0),
    ("Grey van", "", 1500.0, 8.0),
    ("Harbour van", "", 1200.0, 6.0),
    ("Hill van", "", 1800.0, 10.0),
)
"""Each with whose it is, the value and the places that it holds at most."""
MINUTES_APART = (40, 25, 55, 35, 60, 30)
"""Between every two of them, in their order."""


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
        load_stock(folder / "stock", people["corm"], people, now)
        say(f"{len(VANS)} vans")
        load_learners(folder / "practice", people["corm"], now)
        say(f"{len(LEARNERS)} learners")


def load_learners(folder: Path, trainer: Person, now: datetime) -> None:
    """A group with the tasks of its first week: each of its members has done one more of them rightly, and then one wrongly."""
    learners = [
        Person.objects.create(
            username=username, password=make_password(None), first_name=first, last_name=last, depot=depot_of(trainer)
        )
        for username, first, last in LEARNERS
    ]
    group = keep_group(trainer, uuid5(NAMESPACE_OID, "first week"), "First week", [each.username for each in learners])
    group = load_tasks(trainer, group.pk, (folder / "first-week.tasks.json").read_bytes())
    for number, learner in enumerate(learners):
        for place, task in enumerate(group.tasks[: number + 1]):
            named = TaskNamed(**task)
            actions = solved(task_of(learner, named)) if place < number else [{"do": "done"}]
            at = now - timedelta(days=len(learners) - place, hours=number)
            keep_attempt(
                learner, uuid5(group.pk, f"{learner.username} {place}"), named, actions, 70.0 + 40 * place, at, now
            )


def load_stock(folder: Path, lead: Person, people: dict[str, Person], now: datetime) -> None:
    """The vans with what they look after, what is in them, and what pieces cost."""
    vans = [
        Van.objects.create(depot=depot_of(lead), name=name, driver=people.get(driver), budget=budget, shelf=shelf)
        for name, driver, budget, shelf in VANS
    ]
    for (one, other), minutes in zip(combinations(vans, 2), MINUTES_APART, strict=True):
        van, beside = sorted((one, other), key=lambda each: each.pk)
        Apart.objects.create(van=van, other=beside, minutes=minutes)
    lists.load_served(lead, (folder / "served.csv").read_bytes())
    lists.load_pieces(lead, (folder / "pieces.csv").read_bytes())
    lists.load_held(lead, (folder / "held.csv").read_bytes(), now)


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
