"""The pins that a machine uses."""

from twincore.choose.fitting import Fitting, Pin
from twincore.choose.judged import Facts


def used_pins(original: Fitting, facts: Facts) -> list[Pin]:
    """The original's pins that this machine uses: all, but those that are known to be without a device."""
    return [each for each in original.pins or () if facts.get(f"uses.{each.signal}") is not False]
