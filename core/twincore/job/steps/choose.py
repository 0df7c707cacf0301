"""Choose: the choice as it was made, wishes and costs."""

from collections.abc import Mapping, Sequence
from typing import Any

from twincore.carry_over import exactly
from twincore.choose import ASSUMPTIONS
from twincore.errors import Refusal, WrongValue
from twincore.job.case import Case
from twincore.job.given import Check, Given
from twincore.job.targets.choose import SameBoard

WHICH = {
    "new": "a new one", "exchange": "an exchange unit", "repaired": "the old one, repaired",
    "donor": "out of another machine",
}  # fmt: skip
TOLD = {"repaired": "what was repaired", "donor": "which machine it came out of, and why that was taken out of use"}
OWN_COSTS = ("price", "minutes", "days")
MOST_ALTERNATIVES = 12
"""Candidates kept with a choice, best first."""


def choice_made(alternatives: Sequence[Mapping[str, Any]], part_number: str, given: Given) -> dict[str, Any]:
    """A choice with the alternatives as they stand. Refuses a board that does not fit without a reason."""
    reason = given.why
    chosen = next((each for each in alternatives if each["part_number"] == part_number), None)
    if chosen is not None and chosen["verdict"] == "no" and not reason:
        raise WrongValue(f"{part_number} does not fit as it is judged. Say why it is taken all the same.")
    return {
        "reason": reason,
        "by": given.by,
        "at": given.now.isoformat(timespec="seconds"),
        "verdict": chosen["verdict"] if chosen else "to check",
        "alternatives": list(alternatives[:MOST_ALTERNATIVES]),
    }


def wish_value(case: Case, name: str, after: Any, given: Given) -> Any:
    """What the owner wants a function to be."""
    if case.family is None:
        raise Refusal("Nobody has said yet which board comes out. Do that first, in Recognise.")
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


def same_board_value(case: Case, name: str, after: Any, given: Given) -> Any:
    """Which board of the original's own number goes in; of a donor or a repair somebody must say what it was."""
    if case.original is None or case.replacement is None or case.original.part_number != case.replacement.part_number:
        raise Refusal("This is asked only where the replacement bears the original's own number.")
    if after["which"] in TOLD and not after.get("of"):
        raise WrongValue(f"Say {TOLD[after['which']]}.")
    return after


def same_words(said: SameBoard | None) -> str:
    """Which board of the original's number went in, as papers say it; empty where nobody said."""
    if said is None:
        return ""
    parts = [WHICH[said["which"]], said.get("of", "")]
    parts += [f"{name} {said[name]}" for name in ("revision", "firmware") if said.get(name)]
    if "worked" in said:
        parts.append("seen to work since" if said["worked"] == "yes" else "nobody saw it work since")
    return ", ".join(each for each in parts if each)


CHECKS: dict[str, Check] = {"wish": wish_value, "cost": cost_value, "same_board": same_board_value}
