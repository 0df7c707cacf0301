"""What a board's profile says about fitting it: supply, plugs, contacts, mounting, what it accepts and what moves."""

from collections.abc import Mapping
from dataclasses import dataclass, field
from typing import Any

from twincore.choose.mounting import Hole, Plate
from twincore.profile import worth_of
from twincore.profile.document import jsonable

TRAITS = (
    "part_number", "maker", "title", "status", "family", "supply", "connectors", "relays", "accepts", "moves", "kit",
    "companions", "size_mm", "height_mm", "holes", "layout", "look", "made", "codes", "surroundings", "standing",
)  # fmt: skip
"""The keys of a board's document that fitting and drawings take; lists keep these where whole documents are too much."""

SURROUNDINGS = {
    "temperature_c": ("surroundings.coldest_c", "surroundings.hottest_c"), "humidity_percent": ("surroundings.humidity_percent",),
    "altitude_m": ("surroundings.altitude_m",),
}  # fmt: skip
"""What a board may say that it stands, each with the facts of the place where the machine is that must lie inside."""


@dataclass(frozen=True, slots=True)
class Pin:
    """A pin of a plug: what it carries, and what belongs there without a device."""

    connector: str
    style: str | None
    keyed: bool
    pin: str
    signal: str
    without_device: str


@dataclass(frozen=True, slots=True)
class Contact:
    """A relay contact: the signal it switches, and what it may carry: amperes by kind of load, or a designation."""

    id: str
    signal: str
    amps: Mapping[str, float]
    rating: str | None


@dataclass(frozen=True, slots=True)
class AdapterLead:
    """An adapter lead with one end for an old plug: the style of that, and for each of its pins the style and pin it leads to."""

    title: str
    price: float
    style: str
    ends: int
    to: Mapping[str, tuple[str, str]]


@dataclass(frozen=True, slots=True)
class Fitting:
    """A board as something to be fitted; what its profile does not say is None."""

    part_number: str
    status: str
    volts: tuple[float, float] | None
    hertz: tuple[float, ...] | None
    phases: int | None
    pins: tuple[Pin, ...] | None
    contacts: tuple[Contact, ...] | None
    accepts: tuple[dict[str, Any], ...]
    moves: tuple[dict[str, Any], ...]
    kit: tuple[dict[str, Any], ...]
    companions: tuple[dict[str, Any], ...]
    plate: Plate | None
    surroundings: Mapping[str, tuple[float, float]]
    """What it stands: lowest and highest of `temperature_c`, `humidity_percent`, `altitude_m`, as far as its maker says."""

    _pin_of: dict[str, Pin] = field(init=False, repr=False, compare=False)
    _contact_of: dict[str, Contact] = field(init=False, repr=False, compare=False)
    sockets: dict[str, tuple[str | None, dict[str, str]]] = field(init=False, repr=False, compare=False)
    """By the name of each socket its style, and the signal of each pin."""

    def __post_init__(self) -> None:
        # hundreds of candidates are asked for each signal of the original
        object.__setattr__(self, "_pin_of", {each.signal: each for each in reversed(self.pins or ())})
        object.__setattr__(self, "_contact_of", {each.signal: each for each in reversed(self.contacts or ())})
        sockets: dict[str, tuple[str | None, dict[str, str]]] = {}
        for pin in self.pins or ():
            sockets[pin.connector] = (pin.style, sockets.get(pin.connector, (None, {}))[1] | {pin.pin: pin.signal})
        object.__setattr__(self, "sockets", sockets)

    def pin_of(self, signal: str) -> Pin | None:
        """The first pin that carries a signal, or None."""
        return self._pin_of.get(signal)

    def used_pins(self, facts: Mapping[str, Any]) -> list[Pin]:
        """The pins that a machine uses: all, but those that are known to be without a device."""
        return [each for each in self.pins or () if facts.get(f"uses.{each.signal}") is not False]

    def contact_of(self, signal: str) -> Contact | None:
        """The first contact that switches a signal, or None."""
        return self._contact_of.get(signal)


def traits_of(document: Mapping[str, Any]) -> dict[str, Any]:
    """The part of a board's document that fitting looks at, as plain JSON."""
    found: dict[str, Any] = jsonable({name: document[name] for name in TRAITS if name in document})
    return found


def fitting_of(traits: Mapping[str, Any]) -> Fitting:
    """A fitting from a board's document or its traits."""
    supply = traits.get("supply", {})
    size = traits.get("size_mm")
    plate = None
    # a board that nobody measured is drawn in a size, and has none
    if size is not None and worth_of(traits, "layout") != "drawn":
        holes = tuple(
            Hole((float(each["at"][0]), float(each["at"][1])), float(each["diameter_mm"]))
            for each in traits.get("holes", ())
        )
        height = traits.get("height_mm")
        plate = Plate((float(size[0]), float(size[1])), None if height is None else float(height), holes)
    relays = traits.get("relays")
    return Fitting(
        part_number=traits["part_number"],
        status=traits["status"],
        volts=(float(supply["volts"][0]), float(supply["volts"][1])) if "volts" in supply else None,
        hertz=tuple(float(each) for each in supply["hertz"]) if "hertz" in supply else None,
        phases=supply.get("phases"),
        pins=_pins(traits["connectors"]) if "connectors" in traits else None,
        contacts=None if relays is None else tuple(_contact(each) for each in relays),
        accepts=tuple(traits.get("accepts", ())),
        moves=tuple(traits.get("moves", ())),
        kit=tuple(traits.get("kit", ())),
        companions=tuple(traits.get("companions", ())),
        plate=plate,
        surroundings={
            name: (float(band[0]), float(band[1]))
            for name, band in traits.get("surroundings", {}).items()
            if name in SURROUNDINGS
        },
    )


def _pins(connectors: list[dict[str, Any]]) -> tuple[Pin, ...] | None:
    """Every pin that carries something; None where there are plugs and nobody knows what any of their pins carries."""
    found = tuple(
        Pin(
            connector["id"],
            connector.get("style"),
            connector.get("keyed", False),
            str(pin["pin"]),
            pin["signal"],
            pin.get("without_device", ""),
        )
        for connector in connectors
        for pin in connector["pins"]
        if pin.get("signal") is not None
    )
    return found or (None if connectors else ())


def _contact(node: dict[str, Any]) -> Contact:
    amps = {kind: float(value) for kind, value in node.get("amps", {}).items()}
    return Contact(node["id"], node["signal"], amps, node.get("rating"))


def merged(parts: list[Fitting]) -> Fitting:
    """Several boards fitted together as one: plugs, contacts, parts and kits of all; the first one's seat."""
    first = parts[0]
    if len(parts) == 1:
        return first
    pins = [each.pins for each in parts]
    contacts = [each.contacts for each in parts]
    return Fitting(
        part_number=" + ".join(each.part_number for each in parts),
        status="current" if all(each.status == "current" for each in parts) else "discontinued",
        volts=first.volts,
        hertz=first.hertz,
        phases=first.phases,
        pins=None if None in pins else tuple(pin for each in pins if each for pin in each),
        contacts=None if None in contacts else tuple(contact for each in contacts if each for contact in each),
        accepts=tuple(each for part in parts for each in part.accepts),
        moves=tuple(each for part in parts for each in part.moves),
        kit=tuple(each for part in parts for each in part.kit),
        companions=tuple(each for part in parts for each in part.companions),
        plate=first.plate,
        surroundings=_common([each.surroundings for each in parts]),
    )


def _common(bands: list[Mapping[str, tuple[float, float]]]) -> dict[str, tuple[float, float]]:
    """What several boards in one place stand together: of each band what all of them that say anything allow."""
    found: dict[str, tuple[float, float]] = {}
    for each in bands:
        for name, (low, high) in each.items():
            other = found.get(name, (low, high))
            found[name] = (max(low, other[0]), min(high, other[1]))
    return found
