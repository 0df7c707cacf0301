"""The job sheet: as a document in the product's own format, and as a PDF for the office."""

from datetime import datetime
from typing import Any

from bench.comparison_view import compare
from bench.schemas import ComparisonShown
from catalogue.profiles import family_profile
from config.printing import as_pdf
from jobs.comparison import comparison_of
from jobs.front.facts import facts_of
from jobs.front.fit_words import FitWords
from jobs.front.rule_out_view import rule_out_shown
from jobs.models import Job
from jobs.state import empty_state
from jobs.steps import steps_of
from jobs.work.holding import holds_told, skipped
from jobs.work.record_view import findings_shown
from jobs.work.recording import findings_of, original_of, remembered
from twincore.profile import dump
from twincore.profile.values import plain

MOST_ENTRIES = 5000


def sheet_document(job: Job) -> str:
    """The whole job as a `worthy-twin/job` document."""
    comparison = _comparison(job)
    state = job.state
    proof = comparison.proof if comparison else None
    return dump(
        {
            "format": "worthy-twin/job",
            "version": 1,
            "id": str(job.pk),
            "number": job.code,
            "depot": job.depot.name,
            "machine": job.machine,
            "complaint": job.complaint,
            "opened": {"at": _time(job.opened_at), "by": job.opened_by.shown_name},
            "closed_at": _time(job.closed_at),
            "family": job.family_revision.family_id if job.family_revision else None,
            "original": _board(job.original_revision, state["found"]),
            "replacement": _board(job.replacement_revision, state["left"]),
            "serial": state.get("serial"),
            "facts": [{"id": name, "value": fact.value, "source": fact.source} for name, fact in facts_of(job).items()],
            "rule_out": _rule_out(job),
            "choice": state.get("choice"),
            "functions": [
                {
                    "id": row.id,
                    "title": row.title,
                    "wanted": row.wanted,
                    "got": row.got,
                    "verdict": row.verdict,
                    "reason": state["reasons"].get(row.id, ""),
                }
                for row in (comparison.rows if comparison else [])
            ],
            "twin_check": {
                "verdict": proof.verdict if proof else None,
                "words": proof.words if proof else "",
                "told": proof.told if proof else [],
                "offsets": [offset.dict() for offset in proof.offsets] if proof else [],
            },
            "steps": [
                {"id": step.id, "state": step.state, "result": step.result, "note": step.note or ""}
                for step in steps_of(job)
            ],
            "skipped": skipped(job),
            "pictures": [
                {
                    "id": str(picture.pk),
                    "digest": picture.digest,
                    "width": picture.width,
                    "height": picture.height,
                    "caption": state.get("pictures", {}).get(str(picture.pk), {}).get("caption", ""),
                }
                for picture in job.pictures.all()
            ],
            "entries": _entries(job),
        }
    )


def _rule_out(job: Job) -> dict[str, Any] | None:
    shown = rule_out_shown(job)
    if shown is None:
        return None
    return {
        "conclusion": shown.conclusion,
        "school": shown.school,
        "suspects": [{"id": each.id, "title": each.title, "weight": round(each.weight, 4)} for each in shown.suspects],
        "chain": [
            {
                "id": link.id,
                "title": link.title,
                "result": link.result,
                "reading": link.value,
                "unit": link.unit,
                "verdict": link.verdict,
                "words": link.words,
            }
            for link in shown.chain
        ],
        "causes": [
            {"id": name, "note": cause["note"], "cleared": cause["cleared"]}
            for name, cause in job.state.get("causes", {}).items()
        ],
    }


def _board(revision: Any, positions: dict[str, Any] | None) -> dict[str, Any] | None:
    if revision is None:
        return None
    return {"part_number": revision.board.part_number, "revision": revision.number, "positions": positions}


def _entries(job: Job) -> list[dict[str, Any]]:
    return [
        {
            "id": str(entry.pk),
            "at": _time(entry.at),
            "by": entry.by.shown_name,
            "target": entry.target,
            "before": entry.before,
            "after": entry.after,
            "reason": entry.reason,
            "read_how": entry.read_how,
        }
        for entry in job.entries.select_related("by").order_by("number")[:MOST_ENTRIES]
    ]


def _time(at: datetime | None) -> str | None:
    return at.isoformat(timespec="seconds") if at else None


def _comparison(job: Job) -> ComparisonShown | None:
    if job.original_revision_id is None or job.replacement_revision_id is None:
        return None
    return compare(comparison_of(job))


def sheet_pdf(job: Job, now: datetime) -> bytes:
    """The job sheet as a PDF, A4."""
    comparison = _comparison(job)
    job.state = empty_state() | job.state
    context = {
        "job": job,
        "state": job.state,
        "printed_at": now,
        "comparison": comparison,
        "steps": steps_of(job),
        "facts": _facts(job),
        "rule_out": rule_out_shown(job),
        "causes": list(job.state.get("causes", {}).values()),
        "holds": holds_told(job),
        "skipped": skipped(job),
        "findings": findings_shown(job, findings_of(job), original_of(job)[0]) if job.original_revision_id else [],
        "kept": _kept(job) if job.original_revision_id else [],
        "positions": _positions(comparison, job.state["left"]) if comparison else [],
        "rows": [{"row": row, "reason": job.state["reasons"].get(row.id, "")} for row in comparison.rows]
        if comparison
        else [],
    }
    return as_pdf("jobs/sheet.html", context)


def _kept(job: Job) -> list[tuple[str, str]]:
    """What the old board knew, as it was written down."""
    kept = job.state.get("kept", {})
    return [(each["what"], kept[each["id"]]) for each in remembered(original_of(job)[1]) if each["id"] in kept]


def _facts(job: Job) -> list[tuple[str, Any, str]]:
    """Facts by title, with their source."""
    if job.family_revision_id is None:
        return []
    words = FitWords(family_profile(job.family_revision_id), {})
    return [(words.fact(name), plain(fact.value), fact.source) for name, fact in facts_of(job).items()]


def _positions(comparison: ComparisonShown, left: dict[str, Any] | None) -> list[dict[str, Any]]:
    """As found and as left side by side; the two boards' elements need not pair up."""
    found = list(comparison.found.items())
    plan = comparison.plan or {}
    after = [(name, (left or plan).get(name, "")) for name in plan]
    blank = ("", "")
    length = max(len(found), len(after))
    return [
        {"found": a, "left": b}
        for a, b in zip(found + [blank] * (length - len(found)), after + [blank] * (length - len(after)), strict=True)
    ]
