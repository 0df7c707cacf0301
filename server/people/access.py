"""Who is asking, and what they may do."""

from django.http import HttpRequest

from people.models import Depot, Person
from twinshown.refusals import NotAllowed


def person_of(request: HttpRequest) -> Person:
    """The person signed in; the API lets nobody else through."""
    person = request.user
    assert isinstance(person, Person)
    return person


def still_signed_in(request: HttpRequest) -> bool:
    """Whether the person whose request this is is signed in yet, and may be: asked anew, for answers that go on for long."""
    session = request.session
    if session.session_key is None or not session.exists(session.session_key):
        return False
    return Person.objects.filter(pk=person_of(request).pk, is_active=True, depot=person_of(request).depot_id).exists()


def depot_of(person: Person) -> Depot:
    """The depot that a person works for."""
    if person.depot is None:
        raise NotAllowed("You belong to no depot yet. Ask the parts lead.")
    return person.depot


def require_parts_lead(person: Person) -> None:
    """Refuse anybody who may not change the catalogue."""
    if not person.keeps_catalogue:
        raise NotAllowed("Only a parts lead may change the catalogue. Send the file to the depot.")
