"""Who is asking, and what they may do."""

from django.http import HttpRequest

from config.errors import NotAllowed
from people.models import Depot, Person


def person_of(request: HttpRequest) -> Person:
    """The person signed in; the API lets nobody else through."""
    person = request.user
    assert isinstance(person, Person)
    return person


def depot_of(person: Person) -> Depot:
    """The depot that a person works for."""
    if person.depot is None:
        raise NotAllowed("You belong to no depot yet. Ask the parts lead.")
    return person.depot


def require_parts_lead(person: Person) -> None:
    """Refuse anybody who may not change the catalogue."""
    if not person.keeps_catalogue:
        raise NotAllowed("Only a parts lead may change the catalogue. Send the file to the depot.")
