"""The job sheet: as a document in the product's own format, and as a PDF for the office."""

from datetime import datetime
from itertools import zip_longest
from typing import Any

from bench.comparison_view import compare
from bench.schemas import ComparisonShown
from catalogue.profiles import board_profile, family_profile
from catalogue.wording import standing_words
from config.printing import as_pdf
from jobs.cases import case_of
from jobs.ledger.chaining import entry_node, moment, record_head
from jobs.models import Job, Picture
from jobs.papers.drawn import as_set, tracks_svg
from jobs.papers.label import old_board_words, paper_of, repairs_told
from jobs.papers.pictures import on_paper
from jobs.shown.findings import findings_shown
from jobs.shown.unproved import unproved_shown
from jobs.shown.words import FitWords
from jobs.step_lines import steps_of
from jobs.steps.hand_over.view import codes_of, decisions_told, seal_words, spent_shown
from jobs.steps.prove.schemas import MeasuredShown, ReadingTaken
from jobs.steps.prove.view import checks_shown, measured_shown, readings_shown
from jobs.steps.rule_out.view import rule_out_shown
from twincore.job import cleared, current, done
from twincore.job.assuming import assumed_words
from twincore.job.case import original_of, remembered
from twincore.job.comparison import comparison_of
from twincore.job.facts import facts_of
from twincore.job.holds import holds_told, skipped
from twincore.job.meanings import meaning_words, told_of
from twincore.job.steps.choose import same_words
from twincore.job.steps.prove import proving_of, runs_in_order
from twincore.job.wires import findings_of
from twincore.profile import dump
from twincore.profile.document import jsonable
from twincore.profile.values import plain

MOST_DRAWN = 12


MOST_PRINTED = 60


def sheet_document(job: Job) -> str:
    """The whole job as a `worthy-twin/job` document: its record, and what follows from it."""
    comparison = _comparison(job)
    proof = comparison.proof if comparison else None
    document = record_document(job)
    state = current(job.state)
    derived: dict[str, Any] = {
        "facts": [
            {"id": name, "value": fact.value, "source": fact.source} for name, fact in facts_of(case_of(job)).items()
        ],
        "rule_out": _rule_out(job),
        "choice": state["choice"],
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
        "skipped": skipped(case_of(job)),
        "proving": {
            "runs": [each.model_dump(mode="json") for each in _runs(job)],
            "readings": [r.model_dump(mode="json") for r in _readings(job)],
        }
        if state["runs"] or state["readings"]
        else None,
    }
    return dump({**document, **jsonable(derived)})


def record_document(job: Job) -> dict[str, Any]:
    """A job's record by itself: what people entered, chained, and what it adds up to; nothing that is worked out from it."""
    raw = Job.objects.values_list("state", flat=True).get(pk=job.pk)
    entries = [
        {**entry_node(entry), "digest": entry.digest}
        for entry in job.entries.order_by("number").iterator(chunk_size=2000)
    ]
    return {
        "format": "worthy-twin/job",
        "version": 1,
        **record_head(job),
        "closed_at": moment(job.closed_at) if job.closed_at else None,
        "family": job.family_revision.family_id if job.family_revision else None,
        "original": _board(job.original_revision, raw.get("found")),
        "replacement": _board(job.replacement_revision, raw.get("left")),
        "serial": raw.get("serial"),
        "pictures": [
            {
                "id": str(picture.name),
                "digest": picture.digest,
                "width": picture.width,
                "height": picture.height,
                "caption": raw.get("pictures", {}).get(str(picture.name), {}).get("caption", ""),
                "file": picture_name(picture),
            }
            for picture in job.pictures.all()
        ],
        "entry_count": len(entries),
        "entries": entries,
        "state": raw,
    }


def picture_name(picture: Picture) -> str:
    """A picture's name in the package of its job."""
    return f"pictures/{picture.name}.{str(picture.file.name).rsplit('.', 1)[-1]}"


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


def _comparison(job: Job) -> ComparisonShown | None:
    if job.original_revision_id is None or job.replacement_revision_id is None:
        return None
    return compare(comparison_of(case_of(job)))


def sheet_pdf(job: Job, now: datetime, paper: str = "A4") -> bytes:
    """The job sheet as a PDF for the office, A4 or letter."""
    comparison = _comparison(job)
    job.state = current(job.state)
    state = job.state
    fitted = state["left"] is not None
    runs = _runs(job)
    context = {
        "job": job,
        "paper": paper_of(paper),
        "number": record_head(job)["number"],
        "state": state,
        "printed_at": now,
        "comparison": comparison,
        "steps": steps_of(job),
        "facts": _facts(job),
        "rule_out": rule_out_shown(job),
        "causes": list(state.get("causes", {}).values()),
        "holds": holds_told(case_of(job)),
        "skipped": skipped(case_of(job)),
        "findings": findings_shown(job, findings_of(case_of(job)), original_of(case_of(job))[0])
        if job.original_revision_id
        else [],
        "kept": _kept(job) if job.original_revision_id else [],
        "positions": _positions(job, comparison) if comparison else [],
        "assumed": [assumed_words(name, each) for name, each in state["assumed"].items()],
        "standings": _standings(job),
        "meanings": _meanings(job),
        "same_words": same_words(state["same_board"]),
        **_functions(comparison, state["reasons"]),
        "decisions": decisions_told(job) if comparison else [],
        "readbacks": _readbacks(job),
        "runs": [
            {
                "run": run,
                "svg": _drawn(job, run),
                "apart": [e for e in run.events if e.verdict != "in time"],
                "in_time": sum(e.verdict == "in time" for e in run.events),
            }
            for run in runs[:MOST_DRAWN]
        ],
        "more_runs": max(0, len(runs) - MOST_DRAWN),
        "readings": [each for each in _readings(job) if each.read],
        "repairs": repairs_told(state),
        "checks": [each for each in checks_shown(job) if each.ok is not None] if fitted or cleared(state) else [],
        "unproved": unproved_shown(proving_of(case_of(job))) if fitted else [],
        "codes": codes_of(job) if job.replacement_revision_id else [],
        "numbered": list(state["numbered"].values()),
        "defects": list(state["defects"].values()),
        "old_board": old_board_words(state),
        "spent": spent_shown(job, now) if fitted or cleared(state) else None,
        "pictures": [_picture(each, state) for each in job.pictures.all()[:MOST_PRINTED]],
        "more_pictures": max(0, job.pictures.count() - MOST_PRINTED),
        "signed": state["signed"],
        "refused": state["refused"],
        "corrections": list(state["corrections"].values()),
        "feedback": list(state["feedback"].items()),
        "seal": seal_words(job),
    }
    return as_pdf("jobs/sheet.html", context)


def _functions(comparison: ComparisonShown | None, reasons: dict[str, str]) -> dict[str, Any]:
    """The functions that are alike, to be told in a sentence, and those that somebody should look at, in rows."""
    rows = comparison.rows if comparison else []
    alike = [row for row in rows if row.verdict == "same" and row.wanted == row.got and not reasons.get(row.id)]
    looked = [{"row": row, "reason": reasons.get(row.id, "")} for row in rows if row not in alike]
    return {"same": alike, "rows": looked}


def _runs(job: Job) -> list[MeasuredShown]:
    """The measured runs, in order of time, judged as far as that can be."""
    if not job.state.get("runs") or job.replacement_revision_id is None or not done(job.state, "carry_over"):
        return []
    return measured_shown(job, runs_in_order(case_of(job)))


def _readings(job: Job) -> list[ReadingTaken]:
    return readings_shown(job) if job.replacement_revision_id is not None or cleared(current(job.state)) else []


def _drawn(job: Job, run: MeasuredShown) -> str:
    assert job.family_revision_id is not None  # a run belongs to a family's scenarios
    family = family_profile(job.family_revision_id)
    return tracks_svg(run, family.titles, family.rest, [name for name in family.outputs if name in family.compared])


def _picture(picture: Picture, state: dict[str, Any]) -> dict[str, str]:
    """A picture with what was said of it."""
    said = state["pictures"].get(str(picture.name), {})
    marks = ", ".join(each["text"] for each in said.get("marks", ()) if each["text"])
    caption = " · ".join(each for each in (said.get("of", ""), said.get("caption", ""), marks) if each)
    return {"src": on_paper(picture.file), "caption": caption}


def _kept(job: Job) -> list[tuple[str, str]]:
    """What the old board knew, as it was written down."""
    kept = job.state.get("kept", {})
    return [(each["what"], kept[each["id"]]) for each in remembered(original_of(case_of(job))[1]) if each["id"] in kept]


def _facts(job: Job) -> list[tuple[str, Any, str]]:
    """Facts by title, with their source."""
    if job.family_revision_id is None:
        return []
    words = FitWords(family_profile(job.family_revision_id), {})
    return [(words.fact(name), plain(fact.value), fact.source) for name, fact in facts_of(case_of(job)).items()]


def _meanings(job: Job) -> list[tuple[str, str]]:
    """What was said that positions mean, each with who said it."""
    case = case_of(job)
    return [
        (f"{said['of']}, {said['title']}: {meaning_words(said, board)}", said["by"])
        for board in (case.original, case.replacement)
        if board is not None
        for _, said in told_of(case.state, board)
    ]


def _positions(job: Job, comparison: ComparisonShown) -> list[dict[str, Any]]:
    """As found and as left side by side, as the eye meets them; the two boards' elements need not pair up."""
    assert job.original_revision_id is not None and job.replacement_revision_id is not None  # they are compared
    found = as_set(board_profile(job.original_revision_id), comparison.found)
    after = as_set(board_profile(job.replacement_revision_id), job.state["left"] or comparison.plan or {})
    return [{"found": one, "left": other} for one, other in zip_longest(found, after)]


def _standings(job: Job) -> list[tuple[str, str]]:
    """What the profiles of the job's boards are worth, where they say it; the same board is told once."""
    revisions = (each for each in (job.original_revision, job.replacement_revision) if each is not None)
    said = {each.board.part_number: standing_words(board_profile(each.pk).document) for each in revisions}
    return [(name, words) for name, words in said.items() if words]


def _readbacks(job: Job) -> list[tuple[str, str, dict[str, Any]]]:
    """What was read back from the new board, as the eye met it, with how, by whom and when."""
    said = job.state["readbacks"]
    if not said or job.replacement_revision_id is None:
        return []
    read = {name: each["value"] for name, each in said.items()}
    return [(e["id"], e["words"], said[e["id"]]) for e in as_set(board_profile(job.replacement_revision_id), read)]
