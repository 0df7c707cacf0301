"""Recognise: plates, serial number and facts of the machine."""

from twincore.carry_over import exactly
from twincore.errors import WrongValue
from twincore.job.case import Case
from twincore.job.given import Check, Given
from twincore.job.targets.recognise import FactSaid, PlateSaid
from twincore.recognise import read_serial


def plate_value(case: Case, name: str, after: PlateSaid, given: Given) -> PlateSaid:
    """A number as it stands on the plate or the display."""
    if not after["text"]:
        raise WrongValue("Type the number as it stands on the plate.")
    if all(each.id != after["scheme"] for each in case.shelf.schemes):
        raise WrongValue(f"There is no nameplate scheme {after['scheme']}.")
    return after


def serial_value(case: Case, name: str, after: str, given: Given) -> str:
    """The serial number; one that breaks its rule takes a reason."""
    plate = case.state["plates"].get("plate")
    scheme = next((each for each in case.shelf.schemes if plate and each.id == plate["scheme"]), None)
    found = read_serial(after, scheme)
    if not found.ok and not given.reason.strip():
        raise WrongValue(
            f"Expected {found.expected or 'a serial number'}. If it stands so on the plate, say so as the reason."
        )
    return " ".join(found.groups)


def fact_value(case: Case, name: str, after: FactSaid, given: Given) -> FactSaid:
    """A fact of the machine."""
    value = after["value"].strip() if isinstance(after["value"], str) else after["value"]
    if value == "":
        raise WrongValue("Give a value, or take the fact back.")
    exactly(value)
    return {"value": value, "source": after["source"]}


CHECKS: dict[str, Check] = {"plate": plate_value, "serial": serial_value, "fact": fact_value}
