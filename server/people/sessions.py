"""Where somebody is signed in: each session with since when and from what, to be ended from anywhere."""

from datetime import datetime
from hashlib import sha256

from django.contrib.auth import login
from django.contrib.sessions.models import Session
from django.db import transaction
from django.db.models import QuerySet
from django.http import HttpRequest

from people.models import LostDevice, Person, SignedIn
from people.tries import address_of
from twinshown.refusals import NotThere

BACKEND = "django.contrib.auth.backends.ModelBackend"


@transaction.atomic
def begin(request: HttpRequest, person: Person, now: datetime) -> None:
    """Sign somebody in on this device; the session is a new one."""
    login(request, person, backend=BACKEND)
    person.signed_in.exclude(session_key__in=sessions_of(person, now).values("session_key")).delete()
    on_a_phone = "mobi" in request.headers.get("User-Agent", "").lower()
    SignedIn.objects.update_or_create(
        session_key=_key(request),
        defaults={"person": person, "at": now, "address": address_of(request) or None, "on_a_phone": on_a_phone},
    )


def sessions_of(person: Person, now: datetime) -> QuerySet[SignedIn]:
    """The sessions of somebody that are not over, the newest first."""
    going_on = Session.objects.filter(expire_date__gt=now).values("session_key")
    return person.signed_in.filter(session_key__in=going_on)


def id_of(signed_in: SignedIn) -> str:
    """What a session is called before others; its key is never shown."""
    return sha256(signed_in.session_key.encode()).hexdigest()[:16]


@transaction.atomic
def end(person: Person, id: str, now: datetime) -> None:
    """End one of one's own sessions. Raises NotThere."""
    found = next((each for each in sessions_of(person, now) if id_of(each) == id), None)
    if found is None:
        raise NotThere("You are not signed in there any more.")
    _end([found.session_key])


@transaction.atomic
def end_others(person: Person, here: str | None) -> None:
    """End every session of somebody but the one that is kept."""
    _end([each.session_key for each in person.signed_in.all() if each.session_key != here])


def lose_devices(person: Person, now: datetime) -> int:
    """End every session of somebody whose devices are lost, and have each device forget everything when it is heard of again;
    how many they are.
    """
    keys = list(person.signed_in.values_list("session_key", flat=True))
    LostDevice.objects.bulk_create([LostDevice(session_key=key, at=now) for key in keys], ignore_conflicts=True)
    _end(keys)
    return len(keys)


def _end(keys: list[str]) -> None:
    Session.objects.filter(session_key__in=keys).delete()
    SignedIn.objects.filter(session_key__in=keys).delete()


def followed(request: HttpRequest, person: Person, before: str | None) -> None:
    """A session that goes on under another key, as after a new password, stays where it was in the list."""
    now = _key(request)
    row = person.signed_in.filter(session_key=before).first()
    if row is not None and now != before:
        SignedIn.objects.filter(session_key=before).delete()
        row.session_key = now
        row.save(force_insert=True)


def _key(request: HttpRequest) -> str:
    """The key of a request's session, which is kept by then."""
    request.session.save()
    key = request.session.session_key
    assert key is not None  # it was saved
    return key
