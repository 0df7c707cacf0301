"""The papers of a finished job: the label inside the cabinet, and the customer's page. The job sheet is in `jobs.sheet`."""

from datetime import date, datetime
from typing import Any, get_args

import segno
from django.utils.timezone import localtime

from catalogue.profiles import board_profile
from config.printing import as_pdf
from jobs.cases import case_of
from jobs.ledger.chaining import record_head
from jobs.models import Job
from jobs.papers.drawn import as_set
from jobs.papers.second import BEING, CHECKED, NOT, second_of_left
from jobs.sheets import sheet, sheets_of
from jobs.steps.hand_over.handing import handing_of, last_digest
from twincore.job import FIRST, State, cleared, several, title_of
from twincore.job.shared.left import changed_positions, left_in_order
from twincore.job.steps.prove import proving_of
from twincore.job.targets.hand_over import OldBoardWay
from twincore.profile.values import plain
from twinshown.refusals import Refused
from twinshown.steps.hand_over.view import codes_of, seal_words, spent_shown
from twinshown.steps.prove.view import checks_shown, readings_shown
from twinshown.words.unproved import unproved_shown

PAPERS = ("A4", "letter")


MOST_CODES = 8


FEW = 4
"""Elements that a label shows so large that they are read at an arm's length."""


SET_PT = ((FEW, 15), (12, 12), (1_000_000, 9))
"""How large positions are printed, in points, by how many there are at most."""


MOST_QR = 300
"""Letters in the label's code: more make it too fine for 20 mm on a plain printer."""


VERDICTS = {
    "identical": "In every test by calculation the new board does exactly what the old one did.",
    "within tolerance": "The new board does what the old one did; some times differ a little, inside what is allowed.",
    "different": "The new board differs from the old one in one point, which was looked at and accepted:",
    "open": "Not every setting of the old board could be read, so that not everything could be compared:",
    "not proved": "How the old board behaves is not written down anywhere, so that the two could not be compared fully:",
}


SECOND = {
    CHECKED: "A second program checked this.",
    BEING: "A second program is still checking this.",
    NOT: "This was not checked a second time.",
}


def label_pdf(job: Job) -> bytes:
    """The cabinet label, 62 by 100 mm: what the next person at the machine needs, without a network."""
    if job.state["left"] is None:
        raise Refused("There is no label before the new board is fitted and set.")
    if job.replacement_revision_id is None:
        raise Refused("Nobody has chosen yet which board goes in. Do that first, in Choose.")
    board = board_profile(job.replacement_revision_id)
    shown = as_set(board, left_in_order(case_of(job)))
    context = {
        "job": job,
        "number": record_head(job)["number"],
        "date": label_day(job),
        "roomy": len(shown) <= FEW,
        "set_pt": next(size for most, size in SET_PT if len(shown) <= most),
        "banks": [each for each in shown if each["svg"]],
        "others": [each for each in shown if not each["svg"]],
        "changed": changed_positions(case_of(job)),
        "codes": codes_of(case_of(job))[:MOST_CODES],
        "verdict": job.state["verdict"],
        "second": second_of_left(job),
        "seal": seal_words(last_digest(job)),
        "qr": segno.make(label_text(job), error="m", micro=False).svg_inline(
            scale=2, border=4, dark="#000", light="#fff"
        ),
    }
    return as_pdf("jobs/label.html", context)


def label_day(job: Job) -> date:
    """The day that a label bears: of the closing, where the depot is."""
    return localtime(job.closed_at or job.changed_at).date()


def label_text(job: Job) -> str:
    """What the label's code says: plain text that any reader shows, no address, no network."""
    left = " ".join(f"{name}={value}" for name, value in left_in_order(case_of(job)).items())
    head = (
        f"{record_head(job)['number']} {label_day(job):%Y-%m-%d} {job.state['replacement']} for {job.state['original']}"
    )
    text = f"{head}; banks place 1 first; {left}"
    if len(text) > MOST_QR:
        text = f"{text[: MOST_QR - 8]} …"
    return f"{text}; seal {seal_words(last_digest(job))}"


def customer_pdf(job: Job, paper: str, now: datetime) -> bytes:
    """What was done, in plain words, for the owner of the machine."""
    if job.closed_at is None and "prove" not in job.state["confirmed"]:
        raise Refused("There is nothing to tell the customer before the work is proved.")
    boards = [_told_plainly(each) for each in sheets_of(sheet(job, FIRST)) if "prove" in each.state["confirmed"]]
    context = {
        "job": job,
        "paper": paper_of(paper),
        "printed_at": now,
        "number": record_head(job)["number"],
        "boards": boards,
        "readings": [reading for each in boards for reading in each["readings"]],
        "codes": [code for each in boards for code in each["codes"]],
        "defects": [each for each in job.state["defects"].values() if not each["done"]],
        "spent": spent_shown(case_of(job), handing_of(job, now)),
        "minutes": job.state["spent"].get("minutes"),
        "retail": job.state["spent"].get("parts_retail"),
    }
    return as_pdf("jobs/customer.html", context)


def _told_plainly(job: Job) -> dict[str, Any]:
    """What was found and done on one board, in plain words."""
    case, state = case_of(job), job.state
    exchanged = not cleared(state)
    titles = case.family.titles if case.family else {}
    return {
        "title": title_of(state, job.board) if several(state) else "",
        "state": state,
        "verdict": VERDICTS.get(state["verdict"] or "", ""),
        "second": SECOND[second.words] if (second := second_of_left(job)) else "",
        "notes": [c["note"] for step, c in state["confirmed"].items() if step == "prove" and c["note"]],
        "reasons": [(titles.get(name, name), reason) for name, reason in state["reasons"].items()],
        "runs": len(state["runs"]),
        "exchanged": exchanged,
        "repairs": repairs_told(state),
        "checks": [each for each in checks_shown(case) if each.ok],
        "unproved": unproved_shown(proving_of(case)) if exchanged else [],
        "readings": [each for each in readings_shown(case) if each.read],
        "codes": codes_of(case_of(job)) if exchanged else [],
        "wishes": [(titles.get(name, name), plain(value)) for name, value in state["wishes"].items()],
    }


def repairs_told(state: State) -> list[str]:
    """What was put right, line by line."""
    return [
        f"{each['kind']}: {each['what']}" + (f", {each['part']}" if each.get("part") else "")
        for each in state["repairs"].values()
    ]


def paper_of(name: str) -> str:
    """A paper's size as a style sheet calls it. Raises Refused for one that is not printed on."""
    found = next((each for each in PAPERS if each.lower() == name.lower()), None)
    if found is None:
        raise Refused(f"Expected a paper: {' or '.join(PAPERS)}.")
    return found


def old_board_words(state: dict[str, Any]) -> str:
    """Where the old board goes, in words."""
    said = state.get("old_board")
    if not said or said["way"] not in get_args(OldBoardWay):
        return "not said"
    return said["way"] + (f" ({said['note']})" if said["note"] else "")
