"""Wiring: wires carried over by signal, plugs and adapters chosen, and what differs from the diagram."""

from twincore.wiring.choosing import agrees
from twincore.wiring.document import plan_document
from twincore.wiring.documents import (
    Adapter,
    Lead,
    Wire,
    WiringRecord,
    build_wiring,
    parse_adapters,
    parse_wiring,
)
from twincore.wiring.findings import NO_WIRE, SETTLEMENTS, WiringFinding, wiring_findings
from twincore.wiring.pins import Pin, Plug, plugs_of
from twincore.wiring.plan import ORDERS, TREATMENTS, FreePin, Step, Trap, WirePlan, WiringPlan, carry_wires

__all__ = [
    "NO_WIRE",
    "ORDERS",
    "SETTLEMENTS",
    "TREATMENTS",
    "Adapter",
    "FreePin",
    "Lead",
    "Pin",
    "Plug",
    "Step",
    "Trap",
    "Wire",
    "WirePlan",
    "WiringFinding",
    "WiringPlan",
    "WiringRecord",
    "agrees",
    "build_wiring",
    "carry_wires",
    "parse_adapters",
    "parse_wiring",
    "plan_document",
    "plugs_of",
    "wiring_findings",
]
