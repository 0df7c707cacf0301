"""The people of a depot over HTTP."""

from datetime import datetime
from typing import Any, Literal

from django.contrib.auth import update_session_auth_hash
from django.http import HttpRequest
from django.utils import timezone
from ninja import Field, Query, Router

from config.paging import paged
from people import second_factor, sessions, staffing, watching
from people.access import person_of
from people.models import Person
from twinshown.paging import Page, Paging
from twinshown.shapes import Schema

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
    second_factor: bool


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


class HappenedShown(Schema):
    """Something that happened: a sign-in, one that failed, or a file that was taken away."""

    moment: datetime
    who: str
    what: str
    came_from: str | None
    file: str


@router.get("/people", response=Page[PersonShown])
def list_people(request: HttpRequest, paging: Query[Paging]) -> dict[str, Any]:
    """Everybody of the depot."""
    me = person_of(request)
    return paged(staffing.people_of(me), paging, lambda each: _line(each, me, each.asked))  # type: ignore[attr-defined]


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
    before = request.session.session_key
    person = staffing.give_password(me, username, given.password, timezone.now())
    sessions.end_others(person, before if person.pk == me.pk else None)
    if person.pk == me.pk:
        update_session_auth_hash(request, person)
        sessions.followed(request, person, before)
    return _shown(person, me)


@router.delete("/people/{username}/second-factor", response=PersonShown)
def take_second_factor_of(request: HttpRequest, username: str) -> dict[str, Any]:
    """Let somebody sign in with the password alone again, because the device is lost."""
    me = person_of(request)
    return _shown(staffing.take_second_factor(me, username), me)


@router.delete("/people/{username}/devices", response=PersonShown)
def lose_devices_of(request: HttpRequest, username: str) -> dict[str, Any]:
    """Somebody's devices are lost: they are signed out, and forget everything at their next contact."""
    me = person_of(request)
    return _shown(staffing.lose_devices(me, username, timezone.now()), me)


@router.put("/session/password", response={204: None})
def change_own_password(request: HttpRequest, given: OwnPassword) -> tuple[int, None]:
    """Take another password; other devices are signed out."""
    before = request.session.session_key
    person = staffing.change_own_password(person_of(request), given.present, given.password)
    sessions.end_others(person, before)
    update_session_auth_hash(request, person)
    sessions.followed(request, person, before)
    return 204, None


@router.get("/depot/happened", response=Page[HappenedShown])
def list_what_happened(request: HttpRequest, paging: Query[Paging]) -> dict[str, Any]:
    """Who signed in, whose sign-in failed, and which files were taken away, the newest first. For the parts lead."""
    return paged(watching.happened(person_of(request)), paging, lambda each: each)


def _shown(person: Person, me: Person) -> dict[str, Any]:
    return _line(person, me, second_factor.is_asked_of(person))


def _line(person: Person, me: Person, asked: bool) -> dict[str, Any]:
    return {
        "username": person.username, "name": person.get_full_name(), "role": person.role, "active": person.is_active,
        "you": person.pk == me.pk, "second_factor": asked,
    }  # fmt: skip
