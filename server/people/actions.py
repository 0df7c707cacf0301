"""Use cases of a depot: its policies."""

from django.db import transaction

from config.errors import Faulty
from people.access import depot_of, require_parts_lead
from people.models import Depot, Person
from twincore.match import ASSUMPTIONS
from twincore.rule_out import SCHOOLS


@transaction.atomic
def set_policies(person: Person, rule_out_school: str, change_companions: bool, assumptions: dict[str, float]) -> Depot:
    """Set how the depot works; of the assumptions only what differs from the usual is kept."""
    require_parts_lead(person)
    depot = Depot.objects.select_for_update().get(pk=depot_of(person).pk)
    if rule_out_school not in SCHOOLS:
        raise Faulty(f"Expected one of {', '.join(SCHOOLS)}.")
    for name, value in assumptions.items():
        if name not in ASSUMPTIONS:
            raise Faulty(f"There is no assumption {name}.")
        if not 0 <= value <= 1_000_000:
            raise Faulty(f"Expected a number from 0 to 1,000,000 for {name}.")
    depot.rule_out_school, depot.change_companions = rule_out_school, change_companions
    depot.assumptions = {name: value for name, value in assumptions.items() if value != ASSUMPTIONS[name]}
    depot.save()
    return depot
