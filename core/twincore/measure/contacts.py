"""Control circuit contacts: what a rating designation such as B300 lets a contact make, carry and break."""

from dataclasses import dataclass

from twincore.measure.constants import CONSTANTS

RATINGS = CONSTANTS["contact_ratings"]


@dataclass(frozen=True, slots=True)
class ContactRating:
    """Currents in ampere that a contact may carry, make and break at a voltage."""

    thermal_a: float
    make_a: float
    break_a: float


def is_designation(text: str) -> bool:
    """Whether a text is a contact's designation: a letter of the tables and the highest voltage it holds for."""
    return text[:1].upper() in {**RATINGS["ac"], **RATINGS["dc"]} and text[1:].isascii() and text[1:].isdigit()


def designated_rating(designation: str, volts: float) -> ContactRating:
    """The rating of a designation (letter and highest voltage, "B300") at a voltage (IEC 60947-5-1 table A.1, UL 508).

    Make and break volt-amperes hold down to 120 V; below that the currents at 120 V hold. Raises ValueError for an
    unknown designation or a voltage above its own.
    """
    letter, highest = designation[:1].upper(), designation[1:]
    if not is_designation(designation):
        raise ValueError(f'expected a designation such as "B300", found "{designation}"')
    if volts > int(highest):
        raise ValueError(f"expected at most {highest} V for {designation}, found {volts:g}")
    if letter in RATINGS["ac"]:
        thermal, make_va, break_va = RATINGS["ac"][letter]
        at = max(volts, 120.0)
        return ContactRating(thermal, min(make_va / at, make_va / 120), min(break_va / at, break_va / 120))
    thermal, volt_amperes = RATINGS["dc"][letter]
    current = min(thermal, volt_amperes / max(volts, 1.0))
    return ContactRating(thermal, current, current)
