"""Use cases of van stock: vans, what comes onto a shelf and off it, plans, and what closed jobs teach."""

from collections import Counter
from collections.abc import Mapping, Sequence
from datetime import datetime
from typing import Any, NamedTuple
from uuid import UUID, uuid5

from django.db import IntegrityError, transaction

from people.access import depot_of, require_parts_lead
from people.models import Depot, Person
from stock.models import Apart, Fed, Held, Moved, Plan, Served, Van
from stock.tasks import work_out_plan
from twinshown.refusals import Faulty, NotThere, Refused

MOST_PLANS_AT_ONCE = 3


class VanGiven(NamedTuple):
    """A van as somebody describes it."""

    name: str
    driver: str | None
    budget: float | None
    shelf: float | None
    minutes: Mapping[str, int]
    """To other vans, by their ids."""


class Exchanged(NamedTuple):
    """A board that came out of a machine, the one that went in, and what is known of the machine."""

    original: str
    replacement: str
    facts: Mapping[str, Any]


class Difference(NamedTuple):
    """What a count found otherwise than it was written down."""

    piece: str
    was: int
    now: int


def add_van(person: Person, id: UUID, given: VanGiven) -> Van:
    """Add a van to the person's depot; the id is made by the client, so that sending twice adds one."""
    require_parts_lead(person)
    depot = depot_of(person)
    if there := Van.objects.filter(pk=id).first():
        if there.depot_id != depot.pk:
            raise Refused("This id is in use. Load the page again.")
        return there
    return _kept(Van(id=id, depot=depot), given)


def change_van(person: Person, id: UUID, given: VanGiven) -> Van:
    """Change a van's name, driver, bounds, and how far it is from the others."""
    require_parts_lead(person)
    return _kept(van_of(person, id), given)


@transaction.atomic
def remove_van(person: Person, id: UUID) -> None:
    """Take a van off the list; one that has something on its shelf, or machines to look after, stays."""
    require_parts_lead(person)
    van = van_of(person, id)
    if Held.objects.filter(van=van, count__gt=0).exists():
        raise Refused(f"{van.name} has boards on its shelf. Count them out, or give them to another van.")
    if Served.objects.filter(van=van).exists():
        raise Refused(f"{van.name} looks after machines. Give them to another van in the list first.")
    van.delete()


def _kept(van: Van, given: VanGiven) -> Van:
    name = " ".join(given.name.split())
    if not name or not name.isprintable():
        raise Faulty("Give the van a name, in letters that can be read.")
    driver = None
    if given.driver:
        driver = Person.objects.filter(username=given.driver, depot=van.depot_id).first()
        if driver is None:
            raise Faulty(f"{given.driver} is nobody of this depot.")
    van.name, van.driver, van.budget, van.shelf = name, driver, given.budget, given.shelf
    others = {str(each.pk): each for each in Van.objects.filter(depot=van.depot_id).exclude(pk=van.pk)}
    if strange := sorted(set(given.minutes) - set(others)):
        raise Faulty(f"There is no other van {strange[0]} in this depot.")
    try:
        with transaction.atomic():
            van.save()
            for id, minutes in given.minutes.items():
                one, other = sorted((van, others[id]), key=lambda each: each.pk)
                Apart.objects.update_or_create(van=one, other=other, defaults={"minutes": minutes})
    except IntegrityError as error:
        said = "has a van already" if "van_of_a_driver_once" in str(error) else "is the name of another van"
        raise Refused(f"{driver.shown_name if driver and 'driver' in str(error) else name} {said}.") from error
    return van


def van_of(person: Person, id: UUID) -> Van:
    """A van of the person's depot. Raises NotThere."""
    van = Van.objects.filter(pk=id, depot=person.depot_id).select_related("driver").first()
    if van is None:
        raise NotThere("Your depot has no such van.")
    return van


@transaction.atomic
def move(person: Person, van_id: UUID, id: UUID, piece: str, change: int, now: datetime) -> Held:
    """Put so many of a piece into a van, or take them out. What was sent already changes nothing."""
    van = _held_still(person, van_id)
    piece = _piece(piece)
    if there := Moved.objects.filter(pk=id).first():
        if there.van_id != van.pk or there.piece != piece:
            raise Refused("This id is in use. Load the page again.")
        return Held.objects.get(van=van, piece=piece)
    return _moved(van, id, piece, change, Moved.Why.PUT_IN if change > 0 else Moved.Why.TAKEN_OUT, person, now)


@transaction.atomic
def count_shelf(
    person: Person, van_id: UUID, id: UUID, counts: Mapping[str, int], whole: bool, now: datetime
) -> list[Difference]:
    """Say what is on a shelf; where the whole shelf was counted, what nobody counted is not there. The differences.

    What was sent already changes nothing, and the same differences are told.
    """
    van = _held_still(person, van_id)
    said = {_piece(piece): count for piece, count in counts.items()}
    marks = {uuid5(id, piece): piece for piece in {*said, *van.held.values_list("piece", flat=True)}}
    if there := list(Moved.objects.filter(pk__in=marks)):
        if any(each.van_id != van.pk for each in there):
            raise Refused("This id is in use. Load the page again.")
        return [Difference(each.piece, each.left - each.change, each.left) for each in there]
    held = {each.piece: each.count for each in van.held.all()}
    if whole:
        said = {**dict.fromkeys((piece for piece, count in held.items() if count), 0), **said}
    found = []
    for piece, count in sorted(said.items()):
        was = held.get(piece, 0)
        if count != was:
            _moved(van, uuid5(id, piece), piece, count - was, Moved.Why.COUNTED, person, now)
            found.append(Difference(piece, was, count))
    return found


def _held_still(person: Person, van_id: UUID) -> Van:
    """A van of the person's depot, whose shelf nobody else changes until the transaction ends."""
    van = Van.objects.select_for_update(of=("self",)).filter(pk=van_id, depot=person.depot_id).first()
    if van is None:
        raise NotThere("Your depot has no such van.")
    return van


def _piece(text: str) -> str:
    name = " ".join(text.split())
    if not name or not name.isprintable():
        raise Faulty("Say which piece it is: its part number, in letters that can be read.")
    return name


def _moved(
    van: Van, id: UUID, piece: str, change: int, why: Moved.Why, person: Person, now: datetime, **job: Any
) -> Held:
    held, _ = Held.objects.select_for_update().get_or_create(van=van, piece=piece)
    if held.count + change < 0:
        raise Refused(f"{van.name} has {held.count} of {piece} by the list. Count the shelf, then take it out.")
    held.count += change
    held.save()
    Moved.objects.create(
        id=id, van=van, piece=piece, change=change, left=held.count, why=why, at=now, by_name=person.shown_name, **job
    )
    return held


@transaction.atomic
def hear_of_closed_job(person: Person, job: UUID, code: str, exchanged: Sequence[Exchanged], now: datetime) -> None:
    """What a closed job teaches: the boards that went in come off the van's list, and the machine has other boards now.

    It is the van of whoever closed the job. Told once, however often the job is closed again.
    """
    van = Van.objects.select_for_update(of=("self",)).filter(driver=person, depot=person.depot_id).first()
    if van is None or not exchanged or Fed.objects.filter(pk=job).exists():
        return
    Fed.objects.create(job=job, at=now)
    for piece, count in Counter(each.replacement for each in exchanged).items():
        there = van.held.filter(piece=piece).values_list("count", flat=True).first() or 0
        if used := min(count, there):
            _moved(van, uuid5(job, piece), piece, -used, Moved.Why.USED, person, now, job=job, job_code=code)
    for each in exchanged:
        _other_board(van, each)


def _other_board(van: Van, exchanged: Exchanged) -> None:
    """One machine of those with this board failed, and has another board now; one that nobody listed is listed."""
    original, replacement, facts = exchanged
    rows = Served.objects.select_for_update().filter(van=van, board=original, machines__gt=0)
    listed = next((row for row in rows if all(facts.get(name, said) == said for name, said in row.facts.items())), None)
    if listed is None:
        listed = Served(van=van, board=original, machines=1, facts=dict(facts))
    listed.machines -= 1
    listed.failed += 1
    # a failure without the year that it happened in would be more than one a machine and year
    listed.years = max(listed.years, listed.failed)
    listed.save()
    now_has = Served.objects.select_for_update().filter(van=van, board=replacement, facts=listed.facts).first()
    now_has = now_has or Served(van=van, board=replacement, machines=0, facts=listed.facts)
    now_has.machines += 1
    now_has.save()


@transaction.atomic
def ask_for_plan(person: Person, id: UUID, asked: Mapping[str, Any], now: datetime) -> Plan:
    """Have a plan worked out in the background; the id is made by the client, so that asking twice makes one."""
    require_parts_lead(person)
    depot = Depot.objects.select_for_update().get(pk=depot_of(person).pk)
    if there := Plan.objects.filter(pk=id).first():
        if there.depot_id != depot.pk:
            raise Refused("This id is in use. Load the page again.")
        return there
    running = Plan.objects.filter(depot=depot, ended_at=None).count()
    if running >= MOST_PLANS_AT_ONCE:
        raise Refused(f"{running} plans are being worked out. Wait until one is done, or stop it.")
    plan = Plan.objects.create(id=id, depot=depot, asked=dict(asked), asked_at=now, asked_by=person)
    transaction.on_commit(lambda: work_out_plan.defer(plan_id=str(id)))
    return plan


@transaction.atomic
def stop_plan(person: Person, id: UUID, now: datetime) -> Plan:
    """Stop a plan that is being worked out."""
    require_parts_lead(person)
    plan = _plan(person, id)
    if plan.ended:
        raise Refused(f"This plan is {plan.state}; there is nothing left to stop.")
    plan.stop_wanted = True
    if plan.state == Plan.State.WAITING:
        plan.state, plan.ended_at = Plan.State.STOPPED, now
    plan.save()
    return plan


@transaction.atomic
def take_plan(person: Person, id: UUID, now: datetime) -> Plan:
    """Let the vans carry what a plan says: each van's list tells from now on what it lacks and what it has too many of."""
    require_parts_lead(person)
    plan = _plan(person, id)
    if plan.state != Plan.State.DONE or plan.found is None:
        raise Refused("This plan is not done.")
    vans = {str(van.pk): van for van in Van.objects.select_for_update(of=("self",)).filter(depot=person.depot_id)}
    Held.objects.filter(van__in=vans.values()).update(wanted=0)
    for each in plan.found["vans"]:
        if each["van"] in vans:
            for piece in each["pieces"]:
                Held.objects.update_or_create(
                    van=vans[each["van"]], piece=piece["piece"], defaults={"wanted": piece["count"]}
                )
    plan.taken_at = now
    plan.save()
    return plan


def _plan(person: Person, id: UUID) -> Plan:
    plan = Plan.objects.select_for_update(of=("self",)).filter(pk=id, depot=person.depot_id).first()
    if plan is None:
        raise NotThere("There is no such plan.")
    return plan


@transaction.atomic
def take_up_again() -> int:
    """Have plans that a stopped worker left in the middle begin anew; how many there were."""
    left = Plan.objects.filter(state__in=[Plan.State.JUDGING, Plan.State.PLANNING])
    ids = list(left.values_list("pk", flat=True))
    left.update(state=Plan.State.WAITING)
    for id in ids:
        work_out_plan.defer(plan_id=str(id))
    return len(ids)
