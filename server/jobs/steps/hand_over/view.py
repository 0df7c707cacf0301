"""Hand over, for the screen and for the papers: decisions, findings, codes, what changed, what it took."""

from collections.abc import Callable
from datetime import datetime

from catalogue.profiles import board_profile
from jobs.cases import case_of
from jobs.models import Job
from jobs.sheets import sheets_of
from jobs.shown.costs import cost_line, costs_shown
from jobs.shown.findings import findings_shown
from jobs.shown.unproved import unproved_shown
from jobs.steps.hand_over.schemas import CodeLine, HandOverShown, RefusedShown, SpentShown
from people.models import Person
from twincore.choose import ASSUMPTIONS, cost_sum
from twincore.job import FIRST, cleared, several, title_of
from twincore.job.boards import SHARED_STEPS
from twincore.job.case import original_of
from twincore.job.left import changed_positions
from twincore.job.steps.prove import proving_of
from twincore.job.wires import findings_of


def hand_over_shown(job: Job, person: Person, now: datetime) -> HandOverShown:
    """What the last step shows besides the record itself."""
    handed = job.state["confirmed"].get("hand_over")
    boards = sheets_of(job)
    exchanged = [each for each in boards if each.state["left"] is not None and not cleared(each.state)]
    return HandOverShown(
        decisions=_of_each(boards, decisions_told),
        findings=_of_each(exchanged, _findings_told),
        codes=codes_of(job) if job.board in {each.board for each in exchanged} else [],
        changed=_of_each(exchanged, _changed_told),
        unproved=[
            each.model_copy(update={"what": _titled(board, each.what)})
            for board in exchanged
            for each in unproved_shown(proving_of(case_of(board)))
        ],
        temporary=_of_each(boards, _temporary_told),
        spent=spent_shown(job, now),
        second_person=job.depot.second_person,
        handed_by=handed["by"] if handed else "",
        may_sign=handed is not None and job.closed_at is None and handed.get("by_id") != person.pk,
        refused=[RefusedShown(**{key: each[key] for key in ("note", "by", "at")}) for each in job.state["refused"]],
        seal=seal_words(job),
        notes=_of_each(boards, _notes_told),
    )  # fmt: skip


def _of_each(boards: list[Job], told: Callable[[Job], list[str]]) -> list[str]:
    """What is told of each board, with its title where the machine has several; what holds for all of them once."""
    return list(dict.fromkeys(_titled(board, words) for board in boards for words in told(board)))


def _titled(board: Job, words: str) -> str:
    return f"{title_of(board.state, board.board)}: {words}" if several(board.state) else words


def _findings_told(job: Job) -> list[str]:
    return [
        f"{each.place}: {each.words} {each.settled}{f' ({each.note})' if each.note else ''}".strip()
        for each in findings_shown(job, findings_of(case_of(job)), original_of(case_of(job))[0])
    ]


def _changed_told(job: Job) -> list[str]:
    return [f"{name} {value}" for name, value in changed_positions(case_of(job)).items()]


def _temporary_told(job: Job) -> list[str]:
    return [each["what"] for each in job.state["temporary"].values() if not each["undone"]]


def _notes_told(job: Job) -> list[str]:
    return [
        f"{step.replace('_', ' ')}: {said['note']}"
        for step, said in job.state["confirmed"].items()
        if said["note"] and (job.board == FIRST or step not in SHARED_STEPS)
    ]


def seal_words(job: Job) -> str:
    """The first digits of the last entry's digest, in groups: what the cabinet label carries."""
    digest = job.entries.order_by("-number").values_list("digest", flat=True).first() or ""
    return " ".join(digest[start : start + 4] for start in range(0, 16, 4)).strip()


def decisions_told(job: Job) -> list[str]:
    """Every decision that somebody made, with the reason."""
    state = job.state
    family = case_of(job).family
    titles = family.titles if family else {}
    told = []
    if state["choice"]:
        told.append(f"{state['replacement']} chosen by {state['choice']['by']}" + _because(state["choice"]["reason"]))
    if state["school"]:
        told.append(f"Settings by the school of {state['school']}" + _because(_reason(job, "school")))
    told += [
        f"{titles[name]}: {school}" + _because(_reason(job, f"decision.{name}"))
        for name, school in state["decisions"].items()
        if name in titles
    ]
    told += [
        f"{titles[name]} left as it is" + _because(reason)
        for name, reason in state["reasons"].items()
        if name in titles
    ]
    told += [f"{name} set by hand to {value}" for name, value in state["overrides"].items()]
    if (energised := state["energised"]) and energised["reason"] and job.board == FIRST:
        told.append(f"Supply put on though not done: {'; '.join(energised['left'])}" + _because(energised["reason"]))
    return told


def _because(reason: str) -> str:
    return f": {reason}" if reason else ""


def _reason(job: Job, target: str) -> str:
    return job.entries.filter(target=target).values_list("reason", flat=True).first() or ""


def codes_of(job: Job) -> list[CodeLine]:
    """What the new board's lamp or display may say, and how each clears."""
    assert job.replacement_revision_id is not None  # handing over waits for the new board
    codes = board_profile(job.replacement_revision_id).document.get("codes", ())
    return [CodeLine(**{name: c.get(name, "") for name in ("shown", "meaning", "look_at", "clears")}) for c in codes]


def spent_shown(job: Job, now: datetime) -> SpentShown:
    """What the job took against the alternative. What nobody entered is taken from the choice's own estimate."""
    spent = job.state["spent"]
    guesses = [costs_shown(each, now).assumptions for each in sheets_of(job)]
    changed = {**job.depot.assumptions, **job.state["costs"]}
    for name in ("price", "minutes", "days"):
        changed.pop(name, None)
    price = float(spent.get("parts_trade", sum(each["price"] for each in guesses)))
    minutes = float(spent.get("minutes", sum(each["minutes"] for each in guesses))) + float(
        spent.get("travel_minutes", 0)
    )
    days = max(each["days"] for each in guesses)
    total = cost_sum(price, minutes, days, changed)
    own = [cost_line(each) for each in total.own]
    other = float(spent.get("other", 0))
    return SpentShown(
        own=own, service=[cost_line(each) for each in total.service], own_total=round(total.own_total + other, 2),
        service_total=total.service_total, saved=round(total.saved - other, 2),
        assumptions={**ASSUMPTIONS, **changed, "price": price, "minutes": minutes, "days": days, "other": other},
        entered=sorted(spent),
    )  # fmt: skip
