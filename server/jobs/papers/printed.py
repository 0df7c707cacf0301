"""The job sheet as a PDF for the office: what was done on each board, and what holds for the machine."""

from datetime import datetime
from itertools import zip_longest
from typing import Any

from django.template.loader import render_to_string
from django.utils.safestring import mark_safe

from catalogue.profiles import board_profile, family_profile
from catalogue.wording import standing_words
from config.printing import as_pdf
from jobs.cases import case_of
from jobs.ledger.chaining import record_head
from jobs.models import Job, Picture
from jobs.papers.drawn import as_set, tracks_svg
from jobs.papers.label import old_board_words, paper_of, repairs_told
from jobs.papers.pictures import on_paper
from jobs.papers.second import second_told
from jobs.papers.sheet import comparison_shown, readings_told, runs_told
from jobs.sheets import sheet, sheets_of
from jobs.steps.hand_over.handing import handing_of
from twincore.job import FIRST, State, cleared, current, several, title_of, why_of
from twincore.job.case import original_of, remembered
from twincore.job.shared.assuming import assumed_words
from twincore.job.shared.facts import facts_of
from twincore.job.shared.holds import holds_told, skipped
from twincore.job.shared.kit_steps import kit_steps
from twincore.job.shared.meanings import meaning_words, told_of
from twincore.job.shared.telling import wanted_of
from twincore.job.shared.wires import findings_of
from twincore.job.steps.choose import same_words
from twincore.job.steps.prove import proving_of
from twincore.profile.values import plain
from twinshown.boards.view import between_told
from twinshown.comparison.schemas import ComparisonShown
from twinshown.refusals import Refused
from twinshown.sheet.step_lines import steps_of
from twinshown.steps.hand_over.view import Handing, codes_of, decisions_told, seal_words, spent_shown
from twinshown.steps.hand_over.work_view import work_shown
from twinshown.steps.prove.schemas import MeasuredShown
from twinshown.steps.prove.view import checks_shown
from twinshown.steps.rule_out.schemas import LinkShown
from twinshown.steps.rule_out.view import rule_out_shown
from twinshown.words.findings import findings_shown
from twinshown.words.fit import FitWords
from twinshown.words.listed import listed_words
from twinshown.words.unproved import unproved_shown

MOST_DRAWN = 12


MOST_PRINTED = 60


def sheet_pdf(job: Job, now: datetime, paper: str = "A4") -> bytes:
    """The job sheet as a PDF for the office, A4 or letter."""
    job.state = current(job.state)
    job = sheet(job, FIRST)
    state = job.state
    handing = handing_of(job, now)
    ended = any(each.state["left"] is not None or cleared(each.state) for each in sheets_of(job))
    context = {
        "job": job,
        "paper": paper_of(paper),
        "number": record_head(job)["number"],
        "state": state,
        "printed_at": now,
        "facts": _facts(job),
        "holds": holds_told(case_of(job)),
        "skipped": skipped(case_of(job)),
        "boards": [_board_told(each, handing) for each in sheets_of(job)],
        "between": between_told(case_of(job)),
        "numbered": list(state["numbered"].values()),
        "defects": list(state["defects"].values()),
        "spent": spent_shown(case_of(job), handing) if ended else None,
        "signed": state["signed"],
        "refused": state["refused"],
        "corrections": list(state["corrections"].values()),
        "feedback": list(state["feedback"].items()),
        "seal": seal_words(handing.digest),
    }
    return as_pdf("jobs/sheet.html", context)


def _board_told(job: Job, handing: Handing) -> dict[str, Any]:
    """What was done on one board; its title where the machine has several."""
    told = _on_one_board(job, handing)
    title = f"{title_of(job.state, job.board)}: {job.state['original'] or 'not known'}" if several(job.state) else ""
    return {
        "title": title,
        "why": why_of(job.state, job.board),
        "body": mark_safe(render_to_string("jobs/sheet_board.html", told)),
        "appendix": mark_safe(render_to_string("jobs/sheet_board_appendix.html", told)),
    }


def _on_one_board(job: Job, handing: Handing) -> dict[str, Any]:
    comparison = comparison_shown(job)
    state = job.state
    fitted = state["left"] is not None
    runs = runs_told(job)
    return {
        "job": job,
        "state": state,
        "comparison": comparison,
        "second": second_told(job, planned=not fitted) if comparison else None,
        "steps": steps_of(state, job.closed_at is not None),
        "tested": _tested(ruled.chain, state) if (ruled := rule_out_shown(case_of(job))) else [],
        "causes": list(state.get("causes", {}).values()),
        "findings": findings_shown(case_of(job), findings_of(case_of(job)), original_of(case_of(job))[0])
        if job.original_revision_id
        else [],
        "kept": _kept(job) if job.original_revision_id else [],
        "positions": _positions(job, comparison) if comparison else [],
        "assumed": [assumed_words(name, each) for name, each in state["assumed"].items()],
        "standings": _standings(job),
        "meanings": _meanings(job),
        "listed": listed_words(case_of(job)),
        "same_words": same_words(state["same_board"]),
        **_functions(comparison, state["reasons"]),
        "decisions": decisions_told(case_of(job), handing.reasons) if comparison else [],
        "concluded": _concluded(state),
        **_work(job, fitted),
        "used": [(item, count) for item, count in state["kit"].items() if count] if fitted else [],
        "kit_steps": _kit_steps(job),
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
        "readings": [each for each in readings_told(job) if each.read],
        "repairs": repairs_told(state),
        "checks": [each for each in checks_shown(case_of(job)) if each.ok is not None or each.absent]
        if fitted or cleared(state)
        else [],
        "unproved": unproved_shown(proving_of(case_of(job))) if fitted else [],
        "codes": codes_of(case_of(job)) if job.replacement_revision_id else [],
        "old_board": old_board_words(state),
        **_pictures(job),
    }


def _concluded(state: State) -> str:
    """What was concluded of the old board; empty where nobody said yet, or what was put right is told instead."""
    said = state["confirmed"].get("rule_out")
    if said is None or cleared(state):
        return ""
    undecided = said.get("end") == "undecided"
    told = (
        "Not decided whether the board was the cause; it was changed all the same"
        if undecided
        else "The board was found faulty"
    )
    return f"{told}{': ' if said['note'] else ''}{said['note']} ({said['by']})."


def _work(job: Job, fitted: bool) -> dict[str, Any]:
    """What was done to the machine: wires that went one by one, and those of whole plugs that want minding, each in its place."""
    if not fitted:
        return {"work": None, "singles": [], "minded_whole": []}
    work = work_shown(case_of(job))
    return {
        "work": work,
        "singles": [each for each in work.wires if not each.whole],
        "minded_whole": [each for each in work.wires if each.whole and each.minded],
    }


def _pictures(job: Job) -> dict[str, Any]:
    """The board's pictures; where the machine has one board, all that were sent."""
    rows = job.pictures.filter(name__in=list(job.state["pictures"])) if several(job.state) else job.pictures.all()
    return {
        "pictures": [_picture(each, job.state) for each in rows[:MOST_PRINTED]],
        "more_pictures": max(0, rows.count() - MOST_PRINTED),
    }


def _functions(comparison: ComparisonShown | None, reasons: dict[str, str]) -> dict[str, Any]:
    """The functions that are alike, to be told in a sentence, and those that somebody should look at, in rows."""
    rows = comparison.rows if comparison else []
    alike = [row for row in rows if row.verdict == "same" and not row.wanted_by and not reasons.get(row.id)]
    looked = [{"row": row, "reason": reasons.get(row.id, "")} for row in rows if row not in alike]
    return {
        "same": [row for row in alike if not row.assumed],
        "as_assumed": [row for row in alike if row.assumed],
        "rows": looked,
    }


def _drawn(job: Job, run: MeasuredShown) -> str:
    if job.family_revision_id is None:
        raise Refused("Nobody has said yet which board comes out. Do that first, in Recognise.")
    family = family_profile(job.family_revision_id)
    return tracks_svg(run, family.titles, family.rest, [name for name in family.outputs if name in family.compared])


def _picture(picture: Picture, state: dict[str, Any]) -> dict[str, str]:
    """A picture with what was said of it."""
    said = state["pictures"].get(str(picture.name), {})
    marks = ", ".join(each["text"] for each in said.get("marks", ()) if each["text"])
    caption = " · ".join(each for each in (said.get("of", ""), said.get("caption", ""), marks) if each)
    return {"src": on_paper(picture.file), "caption": caption}


def _kept(job: Job) -> list[dict[str, Any]]:
    """What the old board knew: as it was written down, and as it was entered into the new one; empty where nobody knows it."""
    case = case_of(job)
    entered = job.state["reentered"]
    return [
        {
            "what": each["what"],
            "value": wanted_of(case, each) or "",
            "entered": entered.get(each["id"], ""),
            "history": bool(each.get("history")),
        }
        for each in remembered(original_of(case)[1])
    ]


def _tested(chain: list[LinkShown], state: State) -> list[dict[str, Any]]:
    """What was ruled out, with how things stood before a test moved them, and what was noted."""
    said = state["tests"]
    return [{"link": each, "said": said.get(each.id, {}) if each.kind == "test" else {}} for each in chain]


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
    if job.original_revision_id is None or job.replacement_revision_id is None:
        raise Refused("Nobody has chosen yet which board goes in. Do that first, in Choose.")
    found = as_set(board_profile(job.original_revision_id), comparison.found)
    after = as_set(board_profile(job.replacement_revision_id), job.state["left"] or comparison.plan or {})
    return [{"found": one, "left": other} for one, other in zip_longest(found, after)]


def _standings(job: Job) -> list[tuple[str, str]]:
    """What the profiles of the job's boards are worth, where they say it; the same board is told once."""
    revisions = (each for each in (job.original_revision, job.replacement_revision) if each is not None)
    said = {each.board.part_number: standing_words(board_profile(each.pk).document) for each in revisions}
    return [(name, words) for name, words in said.items() if words]


def _kit_steps(job: Job) -> list[tuple[str, Any]]:
    """How the kit was fitted, each step with what was said of it."""
    said = job.state["kit_steps"]
    return [(each.what, said[each.id]) for each in (kit_steps(case_of(job)) if said else ()) if each.id in said]


def _readbacks(job: Job) -> list[tuple[str, str, dict[str, Any]]]:
    """What was read back from the new board, as the eye met it, with how, by whom and when."""
    said = job.state["readbacks"]
    if not said or job.replacement_revision_id is None:
        return []
    read = {name: each["value"] for name, each in said.items()}
    return [(e["id"], e["words"], said[e["id"]]) for e in as_set(board_profile(job.replacement_revision_id), read)]
