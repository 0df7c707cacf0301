"""The plan of presses as plain data, for files and for other programs."""

from typing import Any

from twincore.programming.presses import PressPlan


def press_document(plan: PressPlan) -> dict[str, Any]:
    """Panel by panel: keys, how often, and what must then be seen."""
    return {
        "panels": [
            {
                "kind": each.panel.kind,
                "title": each.panel.title,
                "sets": list(each.sets),
                "presses": [
                    {
                        "key": p.key,
                        "times": p.times,
                        "hold_s": p.hold_s,
                        "shows": p.shows,
                        **({"asks": p.asks} if p.asks else {}),
                        **({"do": p.do} if p.do else {}),
                    }
                    for p in each.presses
                ],
                "count": each.count,
            }
            for each in plan.panels
        ],
        "by_hand": list(plan.by_hand),
        **({"unasked": list(plan.unasked)} if plan.unasked else {}),
        "count": plan.count,
    }
