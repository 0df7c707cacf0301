"""Use cases of a depot: its policies."""

from dataclasses import dataclass

from django.db import transaction

from config.errors import Faulty
from people.access import depot_of, require_parts_lead
from people.models import Depot, Person
from twincore.choose import ASSUMPTIONS
from twincore.rule_out import SCHOOLS
from twincore.settings import SCHOOLS as CARRY_SCHOOLS


@dataclass(frozen=True, slots=True)
class Policies:
    """How a depot works: how suspects are weighed, companions, which school of carrying over is proposed, who signs."""

    rule_out_school: str
    change_companions: bool
    school_when_agreed: str
    school_when_not: str
    second_person: bool
    assumptions: dict[str, float]


@transaction.atomic
def set_policies(person: Person, new: Policies) -> Depot:
    """Set how the depot works; of the assumptions only what differs from the usual is kept."""
    require_parts_lead(person)
    depot = Depot.objects.select_for_update().get(pk=depot_of(person).pk)
    if new.rule_out_school not in SCHOOLS:
        raise Faulty(f"Expected one of {', '.join(SCHOOLS)}.")
    if not {new.school_when_agreed, new.school_when_not} <= set(CARRY_SCHOOLS):
        raise Faulty(f"Expected one of {', '.join(CARRY_SCHOOLS)}.")
    for name, value in new.assumptions.items():
        if name not in ASSUMPTIONS:
            raise Faulty(f"There is no assumption {name}.")
        if not 0 <= value <= 1_000_000:
            raise Faulty(f"Expected a number from 0 to 1,000,000 for {name}.")
    depot.rule_out_school, depot.change_companions = new.rule_out_school, new.change_companions
    depot.school_when_agreed, depot.school_when_not = new.school_when_agreed, new.school_when_not
    depot.second_person = new.second_person
    depot.assumptions = {name: value for name, value in new.assumptions.items() if value != ASSUMPTIONS[name]}
    depot.save()
    return depot
