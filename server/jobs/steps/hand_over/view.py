"""Hand over, for the screen and for the papers: decisions, findings, codes, what changed, what it took."""

from datetime import datetime

from catalogue.profiles import board_profile
from jobs.cases import case_of
from jobs.models import Job
from jobs.shown.costs import cost_line, costs_shown
from jobs.shown.findings import findings_shown
from jobs.shown.unproved import unproved_shown
from jobs.steps.hand_over.schemas import CodeLine, HandOverShown, RefusedShown, SpentShown
from people.models import Person
from twincore.choose import ASSUMPTIONS, cost_sum
from twincore.job import cleared, current
from twincore.job.case import original_of
from twincore.job.left import changed_positions
from twincore.job.steps.prove import proving_of
from twincore.job.wires import findings_of


def hand_over_shown(job: Job, person: Person, now: datetime) -> HandOverShown:
    """What the last step shows besides the record itself."""
    handed = job.state["confirmed"].get("hand_over")
    exchanged = not cleared(current(job.state))
    return HandOverShown(
        decisions=decisions_told(job),
        findings=[
            f"{each.place}: {each.words} {each.settled}{f' ({each.note})' if each.note else ''}".strip()
            for each in findings_shown(job, findings_of(case_of(job)), original_of(case_of(job))[0])
        ]
        if exchanged
        else [],
        codes=codes_of(job) if exchanged else [],
        changed=[f"{name} {value}" for name, value in changed_positions(case_of(job)).items()] if exchanged else [],
        unproved=unproved_shown(proving_of(case_of(job))) if exchanged else [],
        temporary=[each["what"] for each in job.state["temporary"].values() if not each["undone"]],
        spent=spent_shown(job, now),
        second_person=job.depot.second_person,
        handed_by=handed["by"] if handed else "",
        may_sign=handed is not None and job.closed_at is None and handed.get("by_id") != person.pk,
        refused=[RefusedShown(**{key: each[key] for key in ("note", "by", "at")}) for each in job.state["refused"]],
        seal=seal_words(job),
        notes=[f"{step.replace('_', ' ')}: {c['note']}" for step, c in job.state["confirmed"].items() if c["note"]],
    )  # fmt: skip


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
    if (energised := state["energised"]) and energised["reason"]:
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
    guess = costs_shown(job, now).assumptions
    changed = {**job.depot.assumptions, **job.state["costs"]}
    for name in ("price", "minutes", "days"):
        changed.pop(name, None)
    price, minutes, days = float(spent.get("parts_trade", guess["price"])), _minutes(spent, guess), guess["days"]
    total = cost_sum(price, minutes, days, changed)
    own = [cost_line(each) for each in total.own]
    other = float(spent.get("other", 0))
    return SpentShown(
        own=own, service=[cost_line(each) for each in total.service], own_total=round(total.own_total + other, 2),
        service_total=total.service_total, saved=round(total.saved - other, 2),
        assumptions={**ASSUMPTIONS, **changed, "price": price, "minutes": minutes, "days": days, "other": other},
        entered=sorted(spent),
    )  # fmt: skip


def _minutes(spent: dict[str, float], guess: dict[str, float]) -> float:
    return float(spent.get("minutes", guess["minutes"])) + float(spent.get("travel_minutes", 0))
