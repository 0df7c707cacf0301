"""Sign in, sign out, who am I."""

from axes.signals import user_login_failed
from django.conf import settings
from django.contrib.auth import authenticate, logout
from django.http import HttpRequest
from django.middleware.csrf import get_token
from django.utils import timezone
from ninja import Field, Router

from people import actions, second_factor, sessions
from people.access import depot_of, person_of
from people.models import Depot, Person
from people.tries import too_many
from twincore.choose import ASSUMPTIONS
from twincore.make_safe import USUAL_V
from twincore.rule_out import SCHOOLS
from twincore.settings import SCHOOLS as CARRY_SCHOOLS
from twinshown.refusals import Refused
from twinshown.shapes import Schema

router = Router(tags=["people"])


class TooManyTries(Refused):
    """Wrong passwords too often."""

    status, title = 429, "Too many tries"


class WrongSignIn(Refused):
    """Name or password are wrong."""

    status, title = 401, "Not signed in"


class CodeNeeded(Refused):
    """The password is right; a second factor is asked for as well."""

    status, title = 401, "A code is needed"


class SignIn(Schema):
    """Name and password, and of who has a second factor its code."""

    username: str = Field(min_length=1, max_length=150)
    password: str = Field(min_length=1, max_length=200)
    code: str = Field("", max_length=40)


class Me(Schema):
    """The person who is signed in; `username` names this person and nobody else."""

    username: str
    name: str
    role: str
    depot: str
    keeps_catalogue: bool


class FirstDepot(Schema):
    """The first depot and its parts lead, where nobody is there yet."""

    depot: str = Field(min_length=1, max_length=120)
    code: str = Field(min_length=1, max_length=8)
    username: str = Field(min_length=1, max_length=40)
    name: str = Field("", max_length=120)
    password: str = Field(min_length=1, max_length=200)


class Opening(Schema):
    """Whether this installation has no depot yet."""

    first: bool


class Token(Schema):
    """The form token to send with every change."""

    token: str


def _shown(person: Person) -> Me:
    depot = person.depot.name if person.depot else ""
    return Me(
        username=person.username, name=person.shown_name, role=person.role, depot=depot,
        keeps_catalogue=person.keeps_catalogue,
    )  # fmt: skip


class Policies(Schema):
    """How a depot works: its school of ruling out, companions, and what sums of costs assume."""

    rule_out_school: str = Field(max_length=24)
    change_companions: bool
    school_when_agreed: str = Field("functions", max_length=16)
    school_when_not: str = Field("functions", max_length=16)
    second_person: bool = False
    dead_v: float = USUAL_V
    """Volts below which a reading counts as dead, unless a tenth of the lowest supply is less."""
    assumptions: dict[str, float]
    own_figures: bool = False
    """Whether all of the assumptions are the depot's own, those that are as usual too."""
    currency: str = Field("", max_length=3)
    """ISO 4217, such as EUR; empty for none."""
    locale: str = Field("en-gb", max_length=12)
    """How its papers write numbers."""


class DepotShown(Policies):
    """A depot with its policies."""

    name: str
    schools: list[str]
    carry_schools: list[str]
    locales: dict[str, str]


def _depot_shown(depot: Depot) -> DepotShown:
    return DepotShown(
        name=depot.name,
        schools=list(SCHOOLS),
        carry_schools=list(CARRY_SCHOOLS),
        school_when_agreed=depot.school_when_agreed,
        school_when_not=depot.school_when_not,
        second_person=depot.second_person,
        dead_v=depot.dead_v,
        rule_out_school=depot.rule_out_school,
        change_companions=depot.change_companions,
        assumptions={**ASSUMPTIONS, **depot.assumptions},
        own_figures=set(depot.assumptions) >= set(ASSUMPTIONS),
        currency=depot.currency,
        locale=depot.locale,
        locales={code: str(name) for code, name in settings.LANGUAGES},
    )


@router.get("/depot", response=DepotShown)
def show_depot(request: HttpRequest) -> DepotShown:
    """The depot of the person signed in."""
    return _depot_shown(depot_of(person_of(request)))


@router.put("/depot", response=DepotShown)
def set_policies(request: HttpRequest, given: Policies) -> DepotShown:
    """Set how the depot works."""
    depot = actions.set_policies(person_of(request), actions.Policies(**given.dict()))
    return _depot_shown(depot)


@router.get("/token", auth=None, response=Token)
def token(request: HttpRequest) -> Token:
    """A form token for this browser."""
    return Token(token=get_token(request))


@router.get("/opening", auth=None, response=Opening)
def opening(request: HttpRequest) -> Opening:
    """Whether the first depot is still to be made."""
    return Opening(first=not Depot.objects.exists())


@router.post("/opening", auth=None, response=Me)
def open_first_depot(request: HttpRequest, given: FirstDepot) -> Me:
    """Make the first depot and its lead, who is signed in with it; refused once there is one."""
    person = actions.open_first_depot(actions.FirstDepot(**given.dict()))
    sessions.begin(request, person, timezone.now())
    return _shown(person)


@router.get("/session", response=Me)
def session(request: HttpRequest) -> Me:
    """Who is signed in."""
    return _shown(person_of(request))


@router.post("/session", auth=None, response=Me)
def sign_in(request: HttpRequest, given: SignIn) -> Me:
    """Sign in; five wrong passwords in a row mean fifteen minutes of rest."""
    if too_many(request, given.username, timezone.now()):
        raise TooManyTries(
            "Too many wrong passwords. Wait fifteen minutes, or ask the depot's parts lead for another password."
        )
    person = authenticate(request, username=given.username, password=given.password)
    if getattr(request, "axes_locked_out", False):
        raise TooManyTries("Five wrong passwords in a row. Wait fifteen minutes, or ask the depot.")
    if not isinstance(person, Person) or person.depot_id is None:
        raise WrongSignIn("The name or the password is wrong. Check both and try again.")
    if second_factor.is_asked_of(person):
        _check_code(request, person, given.code)
    sessions.begin(request, person, timezone.now())
    return _shown(person)


def _check_code(request: HttpRequest, person: Person, code: str) -> None:
    if not code.strip():
        raise CodeNeeded("Enter the code that your device shows now, or one of those that you wrote down.")
    if not second_factor.is_right(person, code):
        # a wrong code counts as a wrong password does
        user_login_failed.send(__name__, credentials={"username": person.username}, request=request)
        raise CodeNeeded("This code does not count, or it was used. Wait for the next one, and enter it.")


@router.delete("/session", response={204: None})
def sign_out(request: HttpRequest) -> tuple[int, None]:
    """Sign out."""
    logout(request)
    return 204, None
