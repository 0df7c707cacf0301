"""The plan on paper and as files: positions, wires, presses, tags."""

import csv
from datetime import datetime
from io import StringIO
from typing import Any

from config.downloads import cell
from config.printing import as_pdf
from jobs.cases import case_of
from jobs.models import Job
from jobs.papers.drawn import as_set
from jobs.papers.second import second_told
from jobs.papers.sheet import function_told
from twincore.job.case import new_board, original_of, remembered
from twincore.job.shared.comparison import comparison_of
from twincore.job.shared.holds import skipped
from twincore.job.shared.presses import press_plan
from twincore.job.shared.wires import wiring_of, wiring_plan
from twincore.profile import dump
from twincore.programming import press_document
from twincore.wiring import WiringPlan, plan_document, plugs_of
from twinshown.comparison.view import compare
from twinshown.refusals import Refused
from twinshown.steps.carry_over.view import presses_shown, wiring_shown


def plan_json(job: Job) -> str:
    """The whole plan as plain data."""
    comparison = compare(comparison_of(case_of(job)))
    wiring, presses = wiring_plan(case_of(job)), press_plan(case_of(job))
    return dump(
        {
            "job": job.code,
            "original": comparison.original,
            "replacement": comparison.replacement,
            "found": comparison.found,
            "set": comparison.plan,
            "school": job.state["school"] or "functions",
            "functions": [
                {
                    "id": r.id,
                    **function_told(r),
                    "reason": job.state["reasons"].get(r.id, ""),
                }
                for r in comparison.rows
            ],
            "twin_check": comparison.proof.verdict if comparison.proof else None,
            "wiring": plan_document(wiring.plan, wiring.findings) if wiring else None,
            "presses": press_document(presses) if presses else None,
        }
    )


def wires_csv(job: Job) -> str:
    """The wiring plan, one wire a line, for a spreadsheet."""
    out = StringIO()
    writer = csv.writer(out)
    writer.writerow(["id", "tag", "colour", "goes_to", "carries", "from", "to", "treatment", "adapter", "mind"])
    for each in wiring_shown(case_of(job)).wires:
        cells = [each.id, each.tag, each.colour, each.goes_to, each.carries, each.from_place,
                 " + ".join(place for place in (each.to_place, *each.also) if place),
                 each.treatment, each.adapter, "; ".join(each.marks)]  # fmt: skip
        writer.writerow([cell(each or "") for each in cells])
    return out.getvalue()


def plan_pdf(job: Job, now: datetime) -> bytes:
    """The plan as one sheet, readable at arm's length in black and white."""
    comparison = compare(comparison_of(case_of(job)))
    wiring = wiring_plan(case_of(job))
    context: dict[str, Any] = {
        "job": job,
        "printed_at": now,
        "comparison": comparison,
        "second": second_told(job),
        "set": [] if comparison.plan is None else as_set(new_board(case_of(job)), comparison.plan),
        "rows": [{"row": row, "reason": job.state["reasons"].get(row.id, "")} for row in comparison.rows],
        "wanted": any(row.wanted_by for row in comparison.rows),
        "wiring": wiring_shown(case_of(job)) if wiring else None,
        "sums": _sums(wiring.plan) if wiring else "",
        "presses": presses_shown(case_of(job)),
        "skipped": skipped(case_of(job)),
        "remembered": [
            {"what": each["what"], "enter": each.get("enter", ""), "value": job.state["kept"].get(each["id"], "")}
            for each in remembered(original_of(case_of(job))[1])
        ],
    }
    return as_pdf("jobs/plan.html", context)


def _sums(plan: WiringPlan) -> str:
    """The sums that show that every wire and every pin is accounted for."""
    told = [
        ", ".join(f"{count} {name}" for name, count in counts.items() if count)
        for counts in (plan.counts(), plan.pin_counts())
    ]
    return f"Wires: {told[0] or 'none recorded'}. Pins of the new board: {told[1] or 'none'}."


def tags_pdf(job: Job, now: datetime) -> bytes:
    """A sheet of tags to cut and fold around the wires."""
    family, board = original_of(case_of(job))
    pins = {pin.place: pin for plug in plugs_of(board, family).values() for pin in plug.pins.values()}
    tags = [
        {
            "tag": wire.tag or wire.id[:6],
            "place": f"{wire.connector}.{wire.pin}",
            "title": pins[f"{wire.connector}.{wire.pin}"].title,
        }
        for wire in wiring_of(case_of(job)).wires
        if wire.recorded
    ]
    if not tags:
        raise Refused("No wire is recorded yet; there is nothing to tag.")
    return as_pdf("jobs/tags.html", {"job": job, "tags": tags, "printed_at": now})
