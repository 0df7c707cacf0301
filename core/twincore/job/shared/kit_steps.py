"""How a kit is fitted, step by step as its maker writes it: what, where, how far, by which way, what to mind, how to check it."""

from collections.abc import Mapping
from dataclasses import dataclass
from fractions import Fraction
from typing import Any

from twincore.carry_over import exactly
from twincore.errors import Refusal, WrongValue
from twincore.job.case import Case, new_board
from twincore.job.given import Given
from twincore.job.shared.facts import fact_values
from twincore.job.targets.fit import KitStepSaid
from twincore.profile.facts import missing_facts


@dataclass(frozen=True, slots=True)
class KitMeasure:
    """How far something sits from something: millimetres, and how much less or more still is right."""

    mm: Fraction
    below_mm: Fraction
    above_mm: Fraction
    start: str

    def holds(self, measured_mm: float) -> bool:
        """Whether a measure lies inside, its edges too."""
        measured = Fraction(exactly(measured_mm))
        return self.mm - self.below_mm <= measured <= self.mm + self.above_mm

    @property
    def words(self) -> str:
        """As it is told: "42 mm (41 to 44) from the lower hole"."""
        low, mm, high = (float(each) for each in (self.mm - self.below_mm, self.mm, self.mm + self.above_mm))
        band = f" ({low:g} to {high:g})" if low < high else ""
        return f"{mm:g} mm{band}" + (f" from {self.start}" if self.start else "")


@dataclass(frozen=True, slots=True)
class KitStep:
    """One step; `facts` are those that would decide whether it is needed on this machine, where nobody told them."""

    id: str
    what: str
    measure: KitMeasure | None
    route: str
    caution: str
    check: str
    picture: str
    facts: tuple[str, ...]


def kit_steps(case: Case) -> list[KitStep]:
    """The steps that this machine needs, or may need, in the order of the board's file."""
    facts = fact_values(case)
    found = []
    for node in new_board(case).document.get("fitting_steps", ()):
        missing = missing_facts(node.get("if", {}), facts)
        if missing is not None:
            step = KitStep(
                node["id"], node["what"], _measure(node.get("measure")), node.get("route", ""), node.get("caution", ""),
                node.get("check", ""), node.get("picture", ""), tuple(missing),
            )  # fmt: skip
            found.append(step)
    return found


def _measure(node: Mapping[str, Any] | None) -> KitMeasure | None:
    if node is None:
        return None
    below, above = (Fraction(node.get(side, 0)) for side in ("below", "above"))
    return KitMeasure(Fraction(node["mm"]), below, above, node.get("from", ""))


def kit_step_value(case: Case, name: str, after: KitStepSaid, given: Given) -> dict[str, Any]:
    """A step of the kit that was done, measured where it asks for that; or not needed here, or done otherwise, with the reason."""
    step = next((each for each in kit_steps(case) if each.id == name), None)
    if step is None:
        raise WrongValue(f"There is no step {name} in this kit. Load the page again.")
    if not after["done"]:
        if not step.facts and not given.why:
            raise Refusal(f"{step.what}: say why it is left out.")
        return {"done": False}
    if step.measure is None:
        return {"done": True}
    measured = after.get("measured_mm")
    if measured is None:
        raise WrongValue(f"{step.what}: measure it, in millimetres. Wanted: {step.measure.words}.")
    if not step.measure.holds(measured) and not given.why:
        raise WrongValue(
            f"{step.what}: {measured:g} mm is outside {step.measure.words}. Set it anew, or say why it stays so."
        )
    return {"done": True, "measured_mm": measured}


def steps_left(case: Case) -> list[str]:
    """The steps that nobody did, or said to be left out, in words."""
    return [each.what for each in kit_steps(case) if each.id not in case.state["kit_steps"]]
