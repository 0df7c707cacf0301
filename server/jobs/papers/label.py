"""The label inside the cabinet: what the next person at the machine needs, without a network."""

from datetime import date
from typing import Any, get_args

import segno
from django.utils.timezone import localtime

from catalogue.profiles import board_profile
from config.printing import as_pdf
from jobs.cases import case_of
from jobs.ledger.chaining import record_head
from jobs.models import Job
from jobs.papers.drawn import as_set
from jobs.papers.second import second_of_left
from jobs.steps.hand_over.handing import last_digest
from twincore.job import State
from twincore.job.shared.comparison import comparison_of
from twincore.job.shared.left import changed_positions, left_in_order
from twincore.job.targets.hand_over import OldBoardWay
from twinshown.refusals import Refused
from twinshown.steps.hand_over.view import codes_of, seal_words
from twinshown.steps.hand_over.work_view import work_shown

PAPERS = ("A4", "letter")


MOST_CODES = 8


FEW = 4
"""Elements that a label shows so large that they are read at an arm's length."""


SET_PT = ((FEW, 15), (12, 12), (1_000_000, 9))
"""How large positions are printed, in points, by how many there are at most."""


MOST_QR = 300
"""Letters in the label's code: more make it too fine for 20 mm on a plain printer."""


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
        "tied_back": work_shown(case_of(job)).tied_back,
        "assumed": comparison_of(case_of(job)).assumed,
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
