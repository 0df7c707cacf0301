"""Sign in, sign out, who am I."""

from django.contrib.auth import authenticate, login, logout
from django.http import HttpRequest
from django.middleware.csrf import get_token
from ninja import Field, Router, Schema

from config.errors import Refused
from people.access import person_of
from people.models import Person

router = Router(tags=["people"])


class TooManyTries(Refused):
    """Wrong passwords too often."""

    status, title = 429, "Too many tries"


class WrongSignIn(Refused):
    """Name or password are wrong."""

    status, title = 401, "Not signed in"


class SignIn(Schema):
    """Name and password."""

    username: str = Field(min_length=1, max_length=150)
    password: str = Field(min_length=1, max_length=200)


class Me(Schema):
    """The person who is signed in."""

    name: str
    role: str
    depot: str
    keeps_catalogue: bool


class Token(Schema):
    """The form token to send with every change."""

    token: str


def _shown(person: Person) -> Me:
    depot = person.depot.name if person.depot else ""
    return Me(name=person.shown_name, role=person.role, depot=depot, keeps_catalogue=person.keeps_catalogue)


@router.get("/token", auth=None, response=Token)
def token(request: HttpRequest) -> Token:
    """A form token for this browser."""
    return Token(token=get_token(request))


@router.get("/session", response=Me)
def session(request: HttpRequest) -> Me:
    """Who is signed in."""
    return _shown(person_of(request))


@router.post("/session", auth=None, response=Me)
def sign_in(request: HttpRequest, given: SignIn) -> Me:
    """Sign in; five wrong passwords in a row mean fifteen minutes of rest."""
    person = authenticate(request, username=given.username, password=given.password)
    if getattr(request, "axes_locked_out", False):
        raise TooManyTries("Five wrong passwords in a row. Wait fifteen minutes, or ask the depot.")
    if not isinstance(person, Person) or person.depot_id is None:
        raise WrongSignIn("The name or the password is wrong. Check both and try again.")
    login(request, person)
    return _shown(person)


@router.delete("/session", response={204: None})
def sign_out(request: HttpRequest) -> tuple[int, None]:
    """Sign out."""
    logout(request)
    return 204, None
