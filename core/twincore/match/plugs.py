"""The same plug with other pinning: it fits, and carries something else."""

from dataclasses import dataclass

from twincore.profile import Board


@dataclass(frozen=True, slots=True)
class PinDifference:
    """A pin of a plug that both boards have, with the signal that each has on it; None is nothing."""

    connector: str
    style: str
    pin: str
    original: str | None
    replacement: str | None


def pin_differences(original: Board, replacement: Board) -> list[PinDifference]:
    """Pins that carry different signals though the plugs have the same name and style, so that one fits the other."""
    theirs = {(each["id"], each.get("style")): each for each in replacement.document.get("connectors", ())}
    found = []
    for connector in original.document.get("connectors", ()):
        other = theirs.get((connector["id"], connector.get("style")))
        if other is None or connector.get("style") is None:
            continue
        mine = {str(pin["pin"]): pin.get("signal") for pin in connector["pins"]}
        its = {str(pin["pin"]): pin.get("signal") for pin in other["pins"]}
        found += [
            PinDifference(connector["id"], connector["style"], pin, mine.get(pin), its.get(pin))
            for pin in dict.fromkeys([*mine, *its])
            if mine.get(pin) != its.get(pin)
        ]
    return found
