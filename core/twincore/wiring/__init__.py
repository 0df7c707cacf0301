"""Wiring: wires carried over by signal, plugs and adapters chosen, and what differs from the diagram."""

from twincore.wiring.by_hand import UNSOUND, ByHand, Placed, Unsound
from twincore.wiring.choosing import agrees
from twincore.wiring.document import plan_document
from twincore.wiring.documents import (
    Adapter,
    Lead,
    Wire,
    WiringRecord,
    assumed_wiring,
    build_wiring,
    parse_adapters,
    parse_wiring,
)
from twincore.wiring.findings import NO_WIRE, SETTLEMENTS, WiringFinding, wiring_findings
from twincore.wiring.last_look import IRREVERSIBLE, SECOND_LOOKS, NoPlug, SecondLook, no_plug_for, second_looks
from twincore.wiring.pins import Pin, Plug, plugs_of
from twincore.wiring.plan import carry_wires
from twincore.wiring.planned import ORDERS, TREATMENTS, FreePin, Step, Trap, WirePlan, WiringPlan

__all__ = [
    "IRREVERSIBLE",
    "NO_WIRE",
    "ORDERS",
    "SECOND_LOOKS",
    "SETTLEMENTS",
    "TREATMENTS",
    "UNSOUND",
    "Adapter",
    "ByHand",
    "FreePin",
    "Lead",
    "NoPlug",
    "Pin",
    "Placed",
    "Plug",
    "SecondLook",
    "Step",
    "Trap",
    "Unsound",
    "Wire",
    "WirePlan",
    "WiringFinding",
    "WiringPlan",
    "WiringRecord",
    "agrees",
    "assumed_wiring",
    "build_wiring",
    "carry_wires",
    "no_plug_for",
    "parse_adapters",
    "parse_wiring",
    "plan_document",
    "plugs_of",
    "second_looks",
    "wiring_findings",
]
