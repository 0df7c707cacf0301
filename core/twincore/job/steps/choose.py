"""Choose: wishes and costs."""

from typing import Any

from twincore.carry_over import exactly
from twincore.choose import ASSUMPTIONS
from twincore.errors import WrongValue
from twincore.job.case import Case
from twincore.job.given import Check, Given

OWN_COSTS = ("price", "minutes", "days")


def wish_value(case: Case, name: str, after: Any, given: Given) -> Any:
    """What the owner wants a function to be."""
    assert case.family is not None  # choosing waits for recognising
    definition = case.family.function(name)
    if definition is None:
        raise WrongValue(f"There is no function {name} in this family.")
    if not definition.accepts(exactly(after)):
        raise WrongValue(f"{definition.title}: expected {definition.wanted_value()}.")
    return after


def cost_value(case: Case, name: str, after: float, given: Given) -> float:
    """What something costs here."""
    if name not in (*ASSUMPTIONS, *OWN_COSTS):
        raise WrongValue(f"Expected one of {', '.join((*ASSUMPTIONS, *OWN_COSTS))}, found {name}.")
    return after


CHECKS: dict[str, Check] = {"wish": wish_value, "cost": cost_value}
