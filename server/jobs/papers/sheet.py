"""The job sheet as a document in the product's own format."""

from typing import Any

from jobs.cases import case_of
from jobs.ledger.chaining import entry_node, picture_name, record_head
from jobs.models import Job
from jobs.papers.second import second_told
from jobs.sheets import sheet, sheets_of
from twincore.chain import DOCUMENTS
from twincore.job import FIRST, cleared, current, done, record_of, title_of
from twincore.job.record.reading import shape_faults
from twincore.job.shared.comparison import comparison_of
from twincore.job.shared.facts import facts_of
from twincore.job.shared.holds import skipped
from twincore.job.shared.left import left_record
from twincore.job.steps.prove import runs_in_order
from twincore.profile import dump
from twincore.profile.document import jsonable
from twinshown.boards.view import between_told
from twinshown.comparison.schemas import ComparisonShown, RowShown
from twinshown.comparison.view import compare
from twinshown.sheet.step_lines import steps_of
from twinshown.steps.hand_over.work_view import work_shown
from twinshown.steps.prove.schemas import MeasuredShown, ReadingTaken
from twinshown.steps.prove.view import measured_shown, readings_shown
from twinshown.steps.rule_out.view import rule_out_shown


def sheet_document(job: Job) -> str:
    """The whole job as a `worthy-twin/job` document: its record, and what follows from it, for each of its boards."""
    first, *others = sheets_of(sheet(job, FIRST))
    derived = _derived(first)
    if others:
        derived["boards"] = [
            {"board": each.board, "title": title_of(first.state, each.board), **_derived(each)} for each in others
        ]
        derived["between"] = between_told(case_of(first))
    return dump({**record_document(first), **jsonable(derived)})


def _derived(job: Job) -> dict[str, Any]:
    """What follows from what was recorded of one board."""
    comparison = comparison_shown(job)
    proof = comparison.proof if comparison else None
    state = current(job.state)
    return {
        "facts": [
            {"id": name, "value": fact.value, "source": fact.source} for name, fact in facts_of(case_of(job)).items()
        ],
        "rule_out": _rule_out(job),
        "choice": state["choice"],
        "functions": [
            {
                "id": row.id,
                "title": row.title,
                **function_told(row),
                "reason": state["reasons"].get(row.id, ""),
            }
            for row in (comparison.rows if comparison else [])
        ],
        "work": work_shown(case_of(job)).model_dump() if state["left"] is not None else None,
        "twin_check": {
            "verdict": proof.verdict if proof else None,
            "words": proof.words if proof else "",
            "told": proof.told if proof else [],
            "offsets": [offset.dict() for offset in proof.offsets] if proof else [],
            "second_check": second_told(job, planned=state["left"] is None) if proof else None,
        },
        "steps": [
            {"id": step.id, "state": step.state, "result": step.result, "note": step.note or ""}
            for step in steps_of(job.state, job.closed_at is not None)
        ],
        "skipped": skipped(case_of(job)),
        "proving": {
            "runs": [each.model_dump(mode="json") for each in runs_told(job)],
            "readings": [r.model_dump(mode="json") for r in readings_told(job)],
        }
        if state["runs"] or state["readings"]
        else None,
    }


def record_document(job: Job) -> dict[str, Any]:
    """A job's record by itself: what people entered, chained, and what it adds up to; nothing that is worked out from it."""
    job = sheet(job, FIRST)
    stored = Job.objects.values_list("state", flat=True).get(pk=job.pk)
    # as it is stored, since that is what the seal is of; where that is damaged, as the entries tell it
    raw: Any = job.state if shape_faults(stored) else stored
    entries = [
        {**entry_node(entry), "digest": entry.digest}
        for entry in job.entries.order_by("number").iterator(chunk_size=2000)
    ]
    boards = (job.original_revision, job.replacement_revision)
    of = (
        job.family_revision.family_id if job.family_revision else "",
        *(b.board.part_number if b else "" for b in boards),
    )
    named = {name: each for name, each in zip(DOCUMENTS, of, strict=True) if each}
    pictures = {
        str(each.name): {"file": picture_name(each), "width": each.width, "height": each.height}
        for each in job.pictures.all()
    }
    head = record_head(job)
    return record_of(head["id"], head, entries, raw, named, pictures, job.opened_as is not None)


def _rule_out(job: Job) -> dict[str, Any] | None:
    shown = rule_out_shown(case_of(job))
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


def function_told(row: RowShown) -> dict[str, Any]:
    """A function as it was found, as it is wanted and by whose word, and as the new board gives it.

    `verdict` holds what is given against what was found, `met` against what is wanted.
    """
    told = row.model_dump(include={"found", "wanted", "wanted_by", "got", "verdict", "met"})
    return told | ({"assumed": True} if row.assumed else {})


def comparison_shown(job: Job) -> ComparisonShown | None:
    """Both boards side by side, the new one as it was left, else as planned; None while one of them is not known."""
    if job.original_revision_id is None or job.replacement_revision_id is None:
        return None
    case = case_of(job)
    return compare(comparison_of(case), left_record(case) if job.state["left"] is not None else None)


def runs_told(job: Job) -> list[MeasuredShown]:
    """The measured runs, in order of time, judged as far as that can be."""
    if not job.state.get("runs") or job.replacement_revision_id is None or not done(job.state, "carry_over"):
        return []
    return measured_shown(case_of(job), runs_in_order(case_of(job)))


def readings_told(job: Job) -> list[ReadingTaken]:
    """What was read on the running machine."""
    return (
        readings_shown(case_of(job)) if job.replacement_revision_id is not None or cleared(current(job.state)) else []
    )
