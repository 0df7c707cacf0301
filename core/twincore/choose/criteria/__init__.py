"""The criteria that a candidate is judged on, in their order."""

from twincore.choose.criteria.availability import Availability
from twincore.choose.criteria.base import Context, Criterion
from twincore.choose.criteria.connectors import Connectors
from twincore.choose.criteria.contacts import Contacts
from twincore.choose.criteria.listing import Listed, Listing, listed_as
from twincore.choose.criteria.machine import AcceptedMachine
from twincore.choose.criteria.mounting import Mount
from twincore.choose.criteria.parts import Parts
from twincore.choose.criteria.signals import Signals
from twincore.choose.criteria.supply import Supply
from twincore.choose.criteria.surroundings import Surroundings
from twincore.choose.criteria.twin import BehavesAlike, SettingsMet

CRITERIA: tuple[Criterion, ...] = (
    Listing(), Supply(), AcceptedMachine(), Contacts(), Signals(), Connectors(), Mount(), SettingsMet(), BehavesAlike(), Parts(),
    Surroundings(), Availability(),
)  # fmt: skip
BY_ID = {each.id: each for each in CRITERIA}

__all__ = ["BY_ID", "CRITERIA", "Context", "Criterion", "Listed", "listed_as"]
