"""What comes with a replacement, and what of it this machine needs."""

from collections.abc import Iterable, Mapping
from dataclasses import dataclass
from typing import Any

from twincore.profile.facts import missing_facts

NEEDED = ("needed", "perhaps", "not needed")


@dataclass(frozen=True, slots=True)
class KitLine:
    """One part of a kit: how many there must be, whether this machine needs it, and the facts that would decide."""

    item: str
    count: int
    needed: str
    facts: tuple[str, ...] = ()


def devices_changed(kit: Iterable[Mapping[str, Any]], facts: Mapping[str, Any]) -> frozenset[str]:
    """The signals whose device is changed along with the board, because this machine needs the part of the kit that replaces it."""
    return frozenset(
        signal
        for part in kit
        if "replaces" in part and kit_lines([part], facts)[0].needed == "needed"
        for signal in part["replaces"]
    )


def kit_lines(kit: Iterable[Mapping[str, Any]], facts: Mapping[str, Any]) -> list[KitLine]:
    """Each part of a kit against the facts of a machine."""
    found = []
    for each in kit:
        missing = missing_facts(each.get("needed_if", {}), facts)
        needed = "not needed" if missing is None else "perhaps" if missing else "needed"
        found.append(KitLine(each["item"], each.get("count", 1), needed, missing or ()))
    return found
