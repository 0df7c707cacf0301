"""One's own sign-in over HTTP: the second factor, and where one is signed in."""

from datetime import datetime

from django.http import HttpRequest
from django.utils import timezone
from ninja import Field, Router

from people import second_factor, sessions
from people.access import person_of
from twinshown.refusals import Refused
from twinshown.shapes import Schema

router = Router(tags=["people"])
MOST_SHOWN = 50


class SessionShown(Schema):
    """One place where somebody is signed in; `here` is the one that asks."""

    id: str
    at: datetime
    address: str | None
    on_a_phone: bool
    here: bool


class AccountShown(Schema):
    """How somebody signs in, and where they are signed in."""

    second_factor: bool
    sessions: list[SessionShown]


class SecretShown(Schema):
    """A secret for a device that counts along, as text and as a picture."""

    secret: str
    picture: str


class CodeGiven(Schema):
    """A code of the second factor."""

    code: str = Field(min_length=1, max_length=40)


class CodesShown(Schema):
    """Codes to write down, each good once."""

    codes: list[str]


class PasswordAsked(Schema):
    """The present password."""

    password: str = Field(min_length=1, max_length=200)


@router.get("/account", response=AccountShown)
def show_account(request: HttpRequest) -> AccountShown:
    """How one signs in, and where one is signed in."""
    person = person_of(request)
    return AccountShown(
        second_factor=second_factor.is_asked_of(person),
        sessions=[
            SessionShown(
                id=sessions.id_of(each), at=each.at, address=each.address, on_a_phone=each.on_a_phone,
                here=each.session_key == request.session.session_key,
            )
            for each in sessions.sessions_of(person, timezone.now())[:MOST_SHOWN]
        ],
    )  # fmt: skip


@router.delete("/account/sessions/{id}", response=AccountShown)
def end_session(request: HttpRequest, id: str) -> AccountShown:
    """Sign out elsewhere."""
    sessions.end(person_of(request), id, timezone.now())
    return show_account(request)


@router.post("/account/second-factor", response=SecretShown)
def offer_second_factor(request: HttpRequest) -> SecretShown:
    """A new secret; it counts once a code of it was given."""
    offer = second_factor.begin(person_of(request))
    return SecretShown(secret=offer.secret, picture=offer.picture)


@router.put("/account/second-factor", response=CodesShown)
def take_into_use(request: HttpRequest, given: CodeGiven) -> CodesShown:
    """Take the second factor into use."""
    return CodesShown(codes=second_factor.confirm(person_of(request), given.code))


@router.delete("/account/second-factor", response=AccountShown)
def take_away_second_factor(request: HttpRequest, given: PasswordAsked) -> AccountShown:
    """Sign in with the password alone again; the password is asked for."""
    person = person_of(request)
    if not person.check_password(given.password):
        raise Refused("The present password is wrong.")
    second_factor.take_away(person)
    return show_account(request)
