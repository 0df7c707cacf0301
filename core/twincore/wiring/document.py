"""The wiring plan as plain data, for files and for other programs."""

from collections.abc import Sequence
from typing import Any

from twincore.wiring.findings import WiringFinding
from twincore.wiring.planned import WiringPlan


def plan_document(plan: WiringPlan, findings: Sequence[WiringFinding] = ()) -> dict[str, Any]:
    """Every wire and every pin once, with the sums that show it."""
    return {
        "wires": [
            {
                "id": each.wire.id, "from": each.from_pin.place, "to": each.to_pin.place if each.to_pin else None,
                "carries": each.carries, "treatment": each.treatment, "adapter": each.adapter, "marks": list(each.marks),
                **({"also": [pin.place for pin in each.also]} if each.also else {}),
                **({"joined": each.joined} if each.joined else {}),
            }
            for each in plan.wires
        ],
        "free": [{"pin": each.pin.place, "treatment": each.treatment, "detail": each.detail} for each in plan.free],
        "plugs": [
            {"plugs": list(seat.plugs), "onto": list(seat.sockets), "adapter": seat.adapter.id if seat.adapter else None}
            for seat in plan.seats
        ],
        "traps": [
            {
                "plug": trap.plug, "onto": trap.socket, "style": trap.style,
                "pins": [{"pin": pin, "original": one, "replacement": two} for pin, one, two in trap.pins],
            }
            for trap in plan.traps
        ],
        "steps": [
            {"number": s.number, "kind": s.kind, "wires": list(s.wires), "plug": s.plug, "place": s.place}
            for s in plan.steps
        ],
        "findings": [
            {"pin": each.place, "kind": each.kind, "diagram": each.diagram, "found": each.found} for each in findings
        ],
        "sums": {"wires": plan.counts(), "pins": plan.pin_counts()},
    }  # fmt: skip
