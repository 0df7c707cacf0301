"""The people of a depot: who is added, what they may do, and whether they still sign in. Its parts leads say so."""

import re
from datetime import datetime

from django.contrib.auth.password_validation import validate_password
from django.core.exceptions import ValidationError
from django.db import transaction
from django.db.models import QuerySet

from people import second_factor, sessions
from people.access import depot_of, require_parts_lead
from people.models import Depot, Person
from people.tries import open_again
from twincore.errors import Fault
from twinshown.refusals import Faulty, NotThere, Refused

USERNAME = re.compile(r"[a-z0-9.-]{2,40}$")


def people_of(person: Person) -> QuerySet[Person]:
    """Everybody of the person's depot, whoever still signs in first; `asked` is whether a second factor is asked of them."""
    people = Person.objects.filter(depot=depot_of(person)).order_by("-is_active", "username")
    return people.annotate(asked=second_factor.IS_ASKED)


def new_person(username: str, name: str, role: str, password: str) -> tuple[Person, list[Fault]]:
    """Somebody new, not kept yet, and all that is wrong with what was given."""
    first, _, last = name.strip().partition(" ")
    person = Person(username=username.strip(), first_name=first, last_name=last, role=role)
    faults = []
    if not USERNAME.match(person.username):
        faults.append(Fault("username", "expected 2 to 40 small letters, digits, dots or dashes"))
    elif Person.objects.filter(username=person.username).exists():
        faults.append(Fault("username", "expected a name that nobody has yet"))
    person.set_password(password)
    return person, faults + password_faults(password, person)


def password_faults(password: str, person: Person) -> list[Fault]:
    """What is wrong with a password."""
    try:
        validate_password(password, person)
    except ValidationError as error:
        return [Fault("password", words) for words in error.messages]
    return []


@transaction.atomic
def add_person(lead: Person, username: str, name: str, role: Person.Role, password: str) -> Person:
    """Add somebody to the lead's depot, with a password to begin with. Raises Faulty with all that is wrong."""
    require_parts_lead(lead)
    person, faults = new_person(username, name, role, password)
    if faults:
        raise Faulty("Nobody can be added so.", faults)
    person.depot = depot_of(lead)
    person.save()
    return person


@transaction.atomic
def change_person(lead: Person, username: str, name: str, role: Person.Role, active: bool) -> Person:
    """Say what somebody is called, what they may do and whether they sign in; what they recorded stays.

    Raises Refused where the depot would have no parts lead any more.
    """
    person = _of_the_depot(lead, username)
    first, _, last = name.strip().partition(" ")
    person.first_name, person.last_name, person.role, person.is_active = first, last, role, active
    person.save(update_fields=["first_name", "last_name", "role", "is_active"])
    if not Person.objects.filter(depot=lead.depot_id, role=Person.Role.PARTS_LEAD, is_active=True).exists():
        raise Refused("A depot needs a parts lead who signs in. Make somebody else one first.")
    return person


@transaction.atomic
def give_password(lead: Person, username: str, password: str, now: datetime) -> Person:
    """Give somebody another password, because the old one is forgotten; where they are signed in, they are out."""
    person = _set_password(_of_the_depot(lead, username), password)
    open_again(person, now)
    return person


@transaction.atomic
def take_second_factor(lead: Person, username: str) -> Person:
    """Let somebody of the lead's depot sign in with the password alone again."""
    person = _of_the_depot(lead, username)
    second_factor.take_away(person)
    return person


@transaction.atomic
def lose_devices(lead: Person, username: str, now: datetime) -> Person:
    """End every session of somebody of the lead's depot; their devices forget everything at their next contact."""
    person = _of_the_depot(lead, username)
    sessions.lose_devices(person, now)
    return person


def change_own_password(person: Person, now: str, then: str) -> Person:
    """Take another password; the present one is asked for."""
    if not person.check_password(now):
        raise Refused("The present password is wrong.")
    return _set_password(person, then)


def _set_password(person: Person, password: str) -> Person:
    if faults := password_faults(password, person):
        raise Faulty("This cannot be a password.", faults)
    person.set_password(password)
    person.save(update_fields=["password"])
    return person


def _of_the_depot(lead: Person, username: str) -> Person:
    """Somebody of the lead's depot, which is held meanwhile: two leads do not end each other's right at once."""
    require_parts_lead(lead)
    Depot.objects.select_for_update().get(pk=depot_of(lead).pk)
    person = Person.objects.filter(depot=lead.depot_id, username=username).first()
    if person is None:
        raise NotThere("Nobody of your depot is called so.")
    return person
