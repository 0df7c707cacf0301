"""The people of a depot over HTTP."""

from typing import Any, Literal

from django.contrib.auth import update_session_auth_hash
from django.http import HttpRequest
from django.utils import timezone
from ninja import Field, Query, Router

from config.paging import Page, Paging, paged
from config.shapes import Schema
from people import staffing
from people.access import person_of
from people.models import Person

router = Router(tags=["people"])
Role = Literal["technician", "parts_lead"]
Username = Field(min_length=1, max_length=40)
Password = Field(min_length=1, max_length=200)


class PersonShown(Schema):
    """Somebody of the depot."""

    username: str
    name: str
    role: Role
    active: bool
    you: bool


class PersonChanged(Schema):
    """What somebody is called, may do, and whether they sign in."""

    name: str = Field("", max_length=120)
    role: Role
    active: bool


class NewPerson(Schema):
    """Somebody to be added, with a password to begin with."""

    username: str = Username
    name: str = Field("", max_length=120)
    role: Role
    password: str = Password


class PasswordGiven(Schema):
    """A new password."""

    password: str = Password


class OwnPassword(PasswordGiven):
    """A new password of one's own, and the present one."""

    present: str = Password


@router.get("/people", response=Page[PersonShown])
def list_people(request: HttpRequest, paging: Query[Paging]) -> dict[str, Any]:
    """Everybody of the depot."""
    me = person_of(request)
    return paged(staffing.people_of(me), paging, lambda each: _shown(each, me))


@router.post("/people", response=PersonShown)
def add_person(request: HttpRequest, given: NewPerson) -> dict[str, Any]:
    """Add somebody to the depot."""
    me = person_of(request)
    added = staffing.add_person(me, given.username, given.name, Person.Role(given.role), given.password)
    return _shown(added, me)


@router.put("/people/{username}", response=PersonShown)
def change_person(request: HttpRequest, username: str, given: PersonChanged) -> dict[str, Any]:
    """Say what somebody is called, may do, and whether they sign in."""
    me = person_of(request)
    return _shown(staffing.change_person(me, username, given.name, Person.Role(given.role), given.active), me)


@router.put("/people/{username}/password", response=PersonShown)
def give_password(request: HttpRequest, username: str, given: PasswordGiven) -> dict[str, Any]:
    """Give somebody another password."""
    me = person_of(request)
    person = staffing.give_password(me, username, given.password, timezone.now())
    if person.pk == me.pk:
        update_session_auth_hash(request, person)
    return _shown(person, me)


@router.put("/session/password", response={204: None})
def change_own_password(request: HttpRequest, given: OwnPassword) -> tuple[int, None]:
    """Take another password; other devices are signed out."""
    person = staffing.change_own_password(person_of(request), given.present, given.password)
    update_session_auth_hash(request, person)
    return 204, None


def _shown(person: Person, me: Person) -> dict[str, Any]:
    return {
        "username": person.username, "name": person.get_full_name(), "role": person.role, "active": person.is_active,
        "you": person.pk == me.pk,
    }  # fmt: skip
