"""Pins: what each place of a board carries, in shared terms, and what fits on it."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from typing import Any

from twincore.profile import Board, Family

UNKNOWN = "not known"
"""What a pin carries of a plug of which nobody said what any pin carries."""
CONTACTS = ("common", "no", "nc")
"""The three contacts of a changeover relay: common, open at rest, closed at rest."""


@dataclass(frozen=True, slots=True)
class Pin:
    """One pin or terminal of a board.

    `carries` names what belongs on it: a signal of the family, or `relay signal/contact` where only the relay says
    so. `contact` is its part in a relay. `group` is "supply", "earth", "output", or "" for everything else.
    """

    connector: str
    pin: str
    mark: str
    carries: str | None
    title: str
    volts_class: str | None
    contact: str | None
    polarity: bool
    optional: bool
    group: str
    without_device: str
    holds: int
    by_label: bool = False
    """Whether what it carries is told by the print beside it alone."""

    @property
    def place(self) -> str:
        """As people write it: `C1.4`."""
        return f"{self.connector}.{self.pin}"


@dataclass(frozen=True, slots=True)
class Plug:
    """A plug or terminal strip: `style` None is unknown; `keyed` where it goes in one way, as one of a single pin does;
    `takes` are ends that fit besides its own.
    """

    id: str
    style: str | None
    keyed: bool
    takes: frozenset[str]
    pins: dict[str, Pin]


def plugs_of(board: Board, family: Family) -> dict[str, Plug]:
    """The plugs of a board by name, in the order of its file; empty where the board's profile names none."""
    signals: dict[str, Mapping[str, Any]] = {each["id"]: each for each in family.document.get("signals", ())}
    contacts = _contacts(board)
    found: dict[str, Plug] = {}
    for node in board.document.get("connectors", ()):
        pins: dict[str, Pin] = {}
        told = any("signal" in each or f"{node['id']}.{each['pin']}" in contacts for each in node["pins"])
        for each in node["pins"]:
            name = str(each["pin"])
            relay = contacts.get(f"{node['id']}.{name}")
            signal = each.get("signal")
            carries = signal if signal is not None else "/".join(relay) if relay else None
            meaning = signals.get(signal if signal is not None else relay[0] if relay else "", {})
            kind = meaning.get("kind", "other")
            pins[name] = Pin(
                node["id"], name, each.get("mark", ""), carries, meaning.get("title") or carries or ("nothing" if told else UNKNOWN),
                each.get("volts_class", meaning.get("volts_class")), relay[1] if relay else None,
                bool(meaning.get("polarity")), bool(meaning.get("optional")),
                kind if kind in ("supply", "earth", "output") else "", each.get("without_device", ""), each.get("holds", 1),
            )  # fmt: skip
        takes = frozenset(node.get("takes", ()))
        found[node["id"]] = Plug(node["id"], node.get("style"), bool(node.get("keyed")) or len(pins) == 1, takes, pins)
    return found


def known_by_place(plugs: dict[str, Plug]) -> dict[str, Plug]:
    """The plugs of a board that is exchanged for the same: what nobody knows the signal of is known by its place."""
    return {
        name: replace(
            plug,
            style=plug.style or f"its own {name}",
            pins={
                each: pin
                if pin.carries is not None
                else replace(pin, carries=f"at {pin.place}", title=f"at {pin.place}")
                for each, pin in plug.pins.items()
            },
        )
        for name, plug in plugs.items()
    }


def known_by_label(plugs: dict[str, Plug], others: dict[str, Plug]) -> dict[str, Plug]:
    """The plugs of a board that goes against another: what nobody knows the signal of is known by the print at its pin.

    Such a pin carries what the other board's pins of the same print carry, where these agree on it; where no pin of
    either board says, it carries what is printed there.
    """
    told: dict[str, set[str | None]] = {}
    for pin in _pins(others):
        told.setdefault(_print(pin), set()).add(pin.carries)
    return {
        name: replace(
            plug, pins={each: _labelled(pin, told.get(_print(pin), set())) for each, pin in plug.pins.items()}
        )
        for name, plug in plugs.items()
    }


def _labelled(pin: Pin, told: set[str | None]) -> Pin:
    if pin.carries is not None or not pin.mark or len(told) != 1:
        return pin
    (carries,) = told
    return replace(pin, carries=carries or f"marked {_print(pin)}", title=f"marked {pin.mark}", by_label=True)


def _pins(plugs: dict[str, Plug]) -> list[Pin]:
    return [pin for plug in plugs.values() for pin in plug.pins.values()]


def _print(pin: Pin) -> str:
    return " ".join(pin.mark.split()).casefold()


def _contacts(board: Board) -> dict[str, tuple[str, str]]:
    """The signal and contact of each place that a relay names."""
    relays: Sequence[Mapping[str, Any]] = board.document.get("relays", ())
    return {
        relay[contact]: (relay["signal"], contact) for relay in relays for contact in CONTACTS if relay.get(contact)
    }
