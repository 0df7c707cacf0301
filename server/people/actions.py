"""Use cases of a depot: the first one with its lead, and its policies."""

import re
from dataclasses import dataclass

from django.conf import settings
from django.db import connection, transaction

from people.access import depot_of, require_parts_lead
from people.models import Depot, Person
from people.staffing import new_person
from twincore.choose import ASSUMPTIONS
from twincore.errors import Fault
from twincore.rule_out import SCHOOLS
from twincore.settings import SCHOOLS as CARRY_SCHOOLS
from twinshown.refusals import Faulty, Refused

MOST_DEAD_V = 10
"""More than that is not what an instrument shows of a machine that is dead, whatever the depot (common practice, no source)."""
CURRENCY = re.compile(r"([A-Z]{3})?")
CODE = re.compile(r"[A-Z0-9]{2,8}$")


@dataclass(frozen=True, slots=True)
class Policies:
    """How a depot works: how suspects are weighed, companions, which school of carrying over is proposed, who signs."""

    rule_out_school: str
    change_companions: bool
    school_when_agreed: str
    school_when_not: str
    second_person: bool
    dead_v: float
    assumptions: dict[str, float]
    own_figures: bool
    """Whether all of the assumptions are the depot's own, those that are as usual too."""
    currency: str
    locale: str


@dataclass(frozen=True, slots=True)
class FirstDepot:
    """The first depot of an installation, and its parts lead."""

    depot: str
    code: str
    username: str
    name: str
    password: str


FIRST_LOCK = 720_411
"""Names the lock under which the first depot is made, so that two browsers cannot both make one."""


@transaction.atomic
def open_first_depot(given: FirstDepot) -> Person:
    """Make the first depot and its parts lead. Raises Refused once there is a depot, Faulty with what is wrong of the rest."""
    with connection.cursor() as cursor:
        cursor.execute("select pg_advisory_xact_lock(%s)", [FIRST_LOCK])
    if Depot.objects.exists():
        raise Refused("There is a depot already. Its people sign in.")
    code = given.code.strip().upper()
    person, wrong = new_person(given.username, given.name, Person.Role.PARTS_LEAD, given.password)
    faults = [] if CODE.match(code) else [Fault("code", "expected 2 to 8 letters and digits, such as SQ")]
    if not given.depot.strip():
        faults.append(Fault("depot", "expected a name"))
    faults += wrong
    if faults:
        raise Faulty("The first depot cannot be opened so.", faults)
    person.depot = Depot.objects.create(name=given.depot.strip(), code=code)
    person.save()
    return person


@transaction.atomic
def set_policies(person: Person, new: Policies) -> Depot:
    """Set how the depot works; of the assumptions only what the depot entered itself is kept."""
    require_parts_lead(person)
    depot = Depot.objects.select_for_update().get(pk=depot_of(person).pk)
    if new.rule_out_school not in SCHOOLS:
        raise Faulty(f"Expected one of {', '.join(SCHOOLS)}.")
    if not {new.school_when_agreed, new.school_when_not} <= set(CARRY_SCHOOLS):
        raise Faulty(f"Expected one of {', '.join(CARRY_SCHOOLS)}.")
    if not 0 < new.dead_v <= MOST_DEAD_V:
        raise Faulty(f"A machine counts as dead below more than 0 and at most {MOST_DEAD_V} V, not {new.dead_v:g} V.")
    for name, value in new.assumptions.items():
        if name not in ASSUMPTIONS:
            raise Faulty(f"There is no assumption {name}.")
        if not 0 <= value <= 1_000_000:
            raise Faulty(f"Expected a number from 0 to 1,000,000 for {name}.")
    depot.rule_out_school, depot.change_companions = new.rule_out_school, new.change_companions
    depot.school_when_agreed, depot.school_when_not = new.school_when_agreed, new.school_when_not
    depot.second_person, depot.dead_v = new.second_person, new.dead_v
    if not CURRENCY.fullmatch(new.currency):
        raise Faulty("Expected a currency in three capital letters, such as EUR, or nothing.")
    if new.locale not in dict(settings.LANGUAGES):
        raise Faulty(f"There is no way of writing numbers called {new.locale}.")
    depot.currency, depot.locale = new.currency, new.locale
    depot.assumptions = {
        name: value for name, value in new.assumptions.items() if new.own_figures or value != ASSUMPTIONS[name]
    }
    depot.save()
    return depot
