"""The customer's page: what was wrong, what was done and what was compared, in words that the owner of a bakery understands."""

from datetime import datetime
from typing import Any

from config.printing import as_pdf
from jobs.cases import case_of
from jobs.ledger.chaining import record_head
from jobs.models import Job
from jobs.papers.label import paper_of, repairs_told
from jobs.papers.second import BEING, CHECKED, NOT, second_of_left
from jobs.papers.sheet import comparison_shown, runs_told
from jobs.sheets import sheet, sheets_of
from jobs.steps.hand_over.handing import handing_of
from twincore.job import FIRST, State, cleared, several, title_of, why_of
from twincore.job.shared.comparison import comparison_of
from twincore.job.shared.left import left_record
from twincore.job.steps.prove import proving_of
from twincore.profile.values import plain
from twinshown.comparison.schemas import ComparisonShown, RowShown
from twinshown.refusals import Refused
from twinshown.steps.hand_over.view import codes_of, spent_shown
from twinshown.steps.prove.schemas import MeasuredShown
from twinshown.steps.prove.view import checks_shown, readings_shown
from twinshown.words.unproved import unproved_shown

COMPARED = "We compared the two boards in software:"
SECOND = {
    CHECKED: "A second program checked this.",
    BEING: "A second program is still checking this.",
    NOT: "This was not checked a second time.",
}


def customer_pdf(job: Job, paper: str, now: datetime) -> bytes:
    """What was done, in plain words, for the owner of the machine."""
    if job.closed_at is None and "prove" not in job.state["confirmed"]:
        raise Refused("There is nothing to tell the customer before the work is proved.")
    boards = [_told_plainly(each) for each in sheets_of(sheet(job, FIRST)) if "prove" in each.state["confirmed"]]
    spent = spent_shown(case_of(job), handing_of(job, now))
    context = {
        "job": job,
        "paper": paper_of(paper),
        "printed_at": now,
        "number": record_head(job)["number"],
        "boards": boards,
        "readings": [reading for each in boards for reading in each["readings"]],
        "codes": [code for each in boards for code in each["codes"]],
        "defects": [each for each in job.state["defects"].values() if not each["done"]],
        "spent": spent,
        "more": -spent.saved,
        "minutes": job.state["spent"].get("minutes"),
        "retail": job.state["spent"].get("parts_retail"),
    }
    return as_pdf("jobs/customer.html", context)


def _told_plainly(job: Job) -> dict[str, Any]:
    """What was found and done on one board, in plain words."""
    case, state = case_of(job), job.state
    exchanged = not cleared(state)
    shown = comparison_shown(job) if exchanged else None
    wishes = {row.id: row for row in (shown.rows if shown else ()) if row.id in state["wishes"]}
    return {
        "title": title_of(state, job.board) if several(state) else "",
        "state": state,
        "cause": _cause(state, why_of(state, job.board)),
        "set_alike": shown is not None and _set_alike(shown, state),
        "compared": _compared(job, shown) if shown else [],
        "second": SECOND[second.words] if (second := second_of_left(job)) else "",
        "notes": [c["note"] for step, c in state["confirmed"].items() if step == "prove" and c["note"]],
        "differing": [_differing(row, state) for row in (shown.rows if shown else ()) if _differs(row, state)],
        "tests": [_test(each) for each in runs_told(job)],
        "exchanged": exchanged,
        "repairs": repairs_told(state),
        "checks": [each for each in checks_shown(case) if each.ok],
        "not_good": [each for each in checks_shown(case) if each.ok is False],
        "unproved": [each.what for each in unproved_shown(proving_of(case))] if exchanged else [],
        "readings": [each for each in readings_shown(case) if each.read],
        "codes": codes_of(case) if exchanged else [],
        "wishes": [_wish(name, value, wishes.get(name), case.family.titles if case.family else {}) for name, value in state["wishes"].items()],
    }  # fmt: skip


def _cause(state: State, why: str) -> str:
    """What was found of the old board."""
    said = state["confirmed"].get("rule_out")
    note = f": {said['note'].rstrip('.')}" if said and said["note"] else ""
    if said is None:
        return "was replaced; nobody wrote down what was the cause"
    if said.get("end") == "undecided":
        return f"was replaced, though it could not be decided whether it was the cause{note}"
    return f"was replaced along with the others: {why}" if why else f"was found to be the cause{note}"


def _set_alike(shown: ComparisonShown, state: State) -> bool:
    """Whether it can be said that the new board is set to work as the old one did."""
    alike = state["verdict"] in ("identical", "within tolerance") and not state["assumed"]
    told_apart = ("off", "open", "not known", "not on this board")
    rows = [row for row in shown.rows if row.id not in state["wishes"]]
    return alike and all(row.met and row.verdict not in told_apart for row in rows)


def _compared(job: Job, shown: ComparisonShown) -> list[str]:
    """What the comparison of both boards in software says, and what it rests on."""
    case, state = case_of(job), job.state
    comparison = comparison_of(case)
    told = {
        "identical": f"{COMPARED} in every situation we modelled, the new board behaves like the old one.",
        "within tolerance": f"{COMPARED} in every situation we modelled, the new board behaves like the old one, but for times "
        "that differ a little, within what is allowed.",
        "different": f"{COMPARED} there is at least one situation in which the new board behaves differently. This was looked at "
        "and accepted.",
        "open": f"{COMPARED} not every setting of the old board could be read, so that not everything could be compared.",
    }.get(state["verdict"] or "")
    if state["verdict"] == "not proved":
        missing = comparison.proof(left_record(case)).missing
        told = "The two boards could not be compared in software" + (
            f": how {_which(missing, comparison.original.part_number)} behaves is not written down anywhere."
            if missing
            else ": the comparison came to no end."
        )
    lines = [told] if told else []
    if comparison.left_out(left_record(case)):
        lines.append("What you wanted to be different was left out of this comparison.")
    if comparison.assumed:
        lines.append(
            f"This holds only if the old board was set as we assumed: {', '.join(comparison.assumed)} could not be read."
        )
    if proof := shown.proof:
        lines += [f"{each.title}: {each.original} before, {each.replacement} now." for each in proof.offsets]
        named = any(_differs(row, state) for row in shown.rows)
        # where it is a setting that differs, the page names it; the series of changes that shows it is for who tests
        lines += proof.told if state["verdict"] == "different" and not named else []
    return lines


def _which(missing: tuple[str, ...], original: str) -> str:
    """Of which board it is that nobody wrote down how it behaves."""
    if len(missing) > 1:
        return "either of them"
    return "the old board" if original in missing else "the new board"


def _differs(row: RowShown, state: State) -> bool:
    return row.id not in state["wishes"] and (row.verdict == "off" or not row.met)


def _differing(row: RowShown, state: State) -> str:
    """A function that is not as it was, with the reason that somebody gave."""
    reason = state["reasons"].get(row.id, "")
    why = reason or (f"as {row.wanted_by} has it" if row.wanted_by else "")
    return f"{row.title}: {row.found} before, {row.got} now" + (f" ({why})" if why else "")


def _wish(name: str, value: Any, row: RowShown | None, titles: dict[str, str]) -> str:
    """What the owner wanted otherwise, and whether it is so now."""
    title = titles.get(name, name)
    if row is None:
        return f"{title} {plain(value)}"
    return (
        f"{title} {row.wanted}" if row.met else f"{title} {row.wanted}, which this board cannot do: it is at {row.got}"
    )


def _test(run: MeasuredShown) -> str:
    """A timed test on the machine, and how it went."""
    good = sum(event.verdict == "in time" for event in run.events)
    if not run.events:
        return f"{run.title}: timed, with nothing to compare it with"
    if good == len(run.events):
        return f"{run.title}: everything came when it should ({good} of {good})"
    return f"{run.title}: {good} of {len(run.events)} came when it should"
