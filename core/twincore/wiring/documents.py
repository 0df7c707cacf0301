"""The wiring record (which wire was on which pin) and the adapter leads that exist."""

from dataclasses import dataclass
from typing import Any

from twincore.profile import Board, Family, open_document
from twincore.profile.faults import FaultList, known
from twincore.wiring.pins import Plug, plugs_of


@dataclass(frozen=True, slots=True)
class Wire:
    """One wire as found. `signal` is what it goes to as far as somebody followed it; None where nobody did.

    `recorded` is False for a wire of a keyed plug that was taken over whole, without looking at its wires.
    """

    id: str
    connector: str
    pin: str
    tag: str = ""
    colour: str = ""
    mm2: float | None = None
    end: str | None = None
    goes_to: str = ""
    signal: str | None = None
    carry_by: str = "pin"
    recorded: bool = True


@dataclass(frozen=True, slots=True)
class WiringRecord:
    """The wires of one board; `without_record` are plugs whose wires nobody looked at: keyed ones that move whole, and
    those whose wires go one by one from the old board to the new and are recorded as they move.
    """

    part_number: str
    wires: tuple[Wire, ...]
    without_record: tuple[str, ...]
    one_by_one: tuple[str, ...] = ()
    """Those of which somebody said that their wires go over one by one: they are not moved whole, whatever fits."""


@dataclass(frozen=True, slots=True)
class Lead:
    """One place of an adapter: from a pin of the old plug to a pin of the new."""

    from_end: str
    from_pin: str
    to_end: str
    to_pin: str


@dataclass(frozen=True, slots=True)
class Adapter:
    """An adapter lead: ends for old plugs (`sockets`), ends for the board (`plugs`), each with its style."""

    id: str
    title: str
    count: int
    price: float
    sockets: dict[str, str]
    plugs: dict[str, str]
    leads: tuple[Lead, ...]


def parse_wiring(data: bytes, board: Board, family: Family) -> WiringRecord:
    """Read a `worthy-twin/wiring` document and check it against its board. Raises DocumentError."""
    root = open_document(data, "wiring").root
    faults = FaultList()
    if root["part_number"] not in (board.part_number, *board.also_marked):
        faults.add("part_number", f'expected "{board.part_number}", found "{root["part_number"]}"')
    record = build_wiring(root, board, family, faults)
    faults.done()
    return record


def build_wiring(node: dict[str, Any], board: Board, family: Family, faults: FaultList) -> WiringRecord:
    """A wiring record from a part of a document whose structure was checked."""
    plugs = plugs_of(board, family)
    wires = node.get("wires", ())
    faults.unique([each["id"] for each in wires], "wires[{}].id", "name")
    signals = [each["id"] for each in family.document.get("signals", ())]
    for index, each in enumerate(wires):
        plug = plugs.get(each["connector"])
        if plug is None:
            faults.add(f"wires[{index}].connector", f"expected a plug of {board.part_number} ({known(plugs)})")
        elif str(each["pin"]) not in plug.pins:
            faults.add(f"wires[{index}].pin", f"expected a pin of {plug.id} ({known(plug.pins)})")
        if each.get("signal") is not None and each["signal"] not in signals:
            faults.add(f"wires[{index}].signal", f"expected a signal of the family ({known(signals)})")
    without: tuple[str, ...] = ()
    for key, wanted in (("without_record", "a keyed plug"), ("as_moved", "a plug")):
        for index, name in enumerate(node.get(key, ())):
            plug = plugs.get(name)
            if plug is None or (key == "without_record" and not plug.keyed):
                faults.add(f"{key}[{index}]", f"expected {wanted} of {board.part_number}")
            elif name in without or any(each["connector"] == name for each in wires):
                faults.add(f"{key}[{index}]", f"expected no plug whose wires are recorded, found {name}")
            without += (name,)
    faults.done()
    read = tuple(
        Wire(
            each["id"], each["connector"], str(each["pin"]), each.get("tag", ""), each.get("colour", ""),
            None if each.get("mm2") is None else float(each["mm2"]), each.get("end"), each.get("goes_to", ""),
            each.get("signal"), each.get("carry_by", "pin"),
        )
        for each in wires
    )  # fmt: skip
    return WiringRecord(board.part_number, read + _unrecorded(plugs, without), without, tuple(node.get("as_moved", ())))


def _unrecorded(plugs: dict[str, Plug], without: tuple[str, ...]) -> tuple[Wire, ...]:
    """The wires of plugs that were not looked at: one on every pin that carries something, or on all where nobody knows."""
    unknown = {name for name in without if not any(pin.carries for pin in plugs[name].pins.values())}
    return tuple(
        Wire(f"{name}.{pin.pin}", name, pin.pin, recorded=False)
        for name in without
        for pin in plugs[name].pins.values()
        if pin.carries is not None or name in unknown
    )


def assumed_wiring(board: Board, family: Family) -> WiringRecord:
    """The wires of a board at which nobody looked yet: one on every pin that carries something."""
    plugs = plugs_of(board, family)
    return WiringRecord(board.part_number, _unrecorded(plugs, tuple(plugs)), tuple(plugs))


def parse_adapters(data: bytes) -> tuple[Adapter, ...]:
    """Read a `worthy-twin/adapters` document. Raises DocumentError with every fault and its place."""
    root = open_document(data, "adapters").root
    faults = FaultList()
    faults.unique([each["id"] for each in root["adapters"]], "adapters[{}].id", "name")
    found = tuple(_adapter(each, f"adapters[{index}]", faults) for index, each in enumerate(root["adapters"]))
    faults.done()
    return found


def _adapter(node: dict[str, Any], place: str, faults: FaultList) -> Adapter:
    sockets = {each["id"]: each["style"] for each in node["sockets"]}
    plugs = {each["id"]: each["style"] for each in node["plugs"]}
    leads = tuple(Lead(e["from"][0], str(e["from"][1]), e["to"][0], str(e["to"][1])) for e in node["leads"])
    taken: set[tuple[str, str]] = set()
    for index, lead in enumerate(leads):
        if lead.from_end not in sockets:
            faults.add(f"{place}.leads[{index}].from", f"expected an end for an old plug ({known(sockets)})")
        if lead.to_end not in plugs:
            faults.add(f"{place}.leads[{index}].to", f"expected an end for the board ({known(plugs)})")
        if (lead.from_end, lead.from_pin) in taken:
            faults.add(f"{place}.leads[{index}].from", f"expected every place once, found {lead.from_pin} twice")
        taken.add((lead.from_end, lead.from_pin))
    return Adapter(node["id"], node["title"], node.get("count", 1), float(node.get("price", 0)), sockets, plugs, leads)
