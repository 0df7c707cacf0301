"""Hand over, for the screen and for the papers: decisions, findings, codes, what changed, what it took."""

from collections.abc import Callable, Mapping
from dataclasses import dataclass
from datetime import datetime

from twincore.choose import ASSUMPTIONS, cost_sum
from twincore.job import FIRST, cleared, several, title_of
from twincore.job.case import Case, new_board, original_of
from twincore.job.rules.boards import SHARED_STEPS
from twincore.job.shared.left import changed_positions
from twincore.job.shared.wires import findings_of
from twincore.job.steps.prove import proving_of
from twinshown.sheet.head import Rules
from twinshown.steps.hand_over.schemas import CodeLine, HandOverShown, RefusedShown, SpentShown
from twinshown.words.costs import Offers, cost_line, costs_shown, not_entered
from twinshown.words.findings import findings_shown
from twinshown.words.unproved import unproved_shown


@dataclass(frozen=True, slots=True)
class Handing:
    """What handing a job over rests on besides what its entries add up to."""

    rules: Rules
    closed: bool
    offers: Offers
    reasons: Mapping[tuple[str, str], str]
    """Why somebody said last what stands at a target, by board and target."""
    digest: str
    """Of the last entry."""


def hand_over_shown(case: Case, given: Handing, person_id: int) -> HandOverShown:
    """What the last step shows besides the record itself."""
    handed = case.state["confirmed"].get("hand_over")
    boards = case.boards
    exchanged = [each for each in boards if each.state["left"] is not None and not cleared(each.state)]
    return HandOverShown(
        decisions=_of_each(boards, lambda each: decisions_told(each, given.reasons)),
        findings=_of_each(exchanged, _findings_told),
        codes=codes_of(case) if any(each is case for each in exchanged) else [],
        changed=_of_each(exchanged, _changed_told),
        unproved=[
            each.model_copy(update={"what": _titled(board, each.what)})
            for board in exchanged
            for each in unproved_shown(proving_of(board))
        ],
        temporary=_of_each(boards, _temporary_told),
        spent=spent_shown(case, given),
        second_person=given.rules.second_person,
        handed_by=handed["by"] if handed else "",
        may_sign=handed is not None and not given.closed and handed.get("by_id") != person_id,
        refused=[
            RefusedShown(note=each["note"], by=each["by"], at=datetime.fromisoformat(each["at"]))
            for each in case.state["refused"]
        ],
        seal=seal_words(given.digest),
        notes=_of_each(boards, _notes_told),
    )  # fmt: skip


def _of_each(boards: list[Case], told: Callable[[Case], list[str]]) -> list[str]:
    """What is told of each board, with its title where the machine has several; what holds for all of them once."""
    return list(dict.fromkeys(_titled(board, words) for board in boards for words in told(board)))


def _titled(board: Case, words: str) -> str:
    title = title_of(board.state, board.state["board"])
    return f"{title}: {words}" if several(board.state) else words


def _findings_told(case: Case) -> list[str]:
    return [
        f"{each.place}: {each.words} {each.settled}{f' ({each.note})' if each.note else ''}".strip()
        for each in findings_shown(case, findings_of(case), original_of(case)[0])
    ]


def _changed_told(case: Case) -> list[str]:
    return [f"{name} {value}" for name, value in changed_positions(case).items()]


def _temporary_told(case: Case) -> list[str]:
    return [each["what"] for each in case.state["temporary"].values() if not each["undone"]]


def _notes_told(case: Case) -> list[str]:
    return [
        f"{step.replace('_', ' ')}: {said['note']}"
        for step, said in case.state["confirmed"].items()
        if said["note"] and (case.state["board"] == FIRST or step not in SHARED_STEPS)
    ]


def seal_words(digest: str) -> str:
    """The first digits of the last entry's digest, in groups: what the cabinet label carries."""
    return " ".join(digest[start : start + 4] for start in range(0, 16, 4)).strip()


def decisions_told(case: Case, reasons: Mapping[tuple[str, str], str]) -> list[str]:
    """Every decision that somebody made, with the reason."""

    def because(target: str) -> str:
        return _because(reasons.get((case.state["board"], target), ""))

    state = case.state
    family = case.family
    titles = family.titles if family else {}
    told = []
    if state["choice"]:
        told.append(f"{state['replacement']} chosen by {state['choice']['by']}" + _because(state["choice"]["reason"]))
    if state["school"]:
        told.append(f"Settings by the school of {state['school']}" + because("school"))
    told += [
        f"{titles[name]}: {school}" + because(f"decision.{name}")
        for name, school in state["decisions"].items()
        if name in titles
    ]
    told += [
        f"{titles[name]} left as it is" + _because(reason)
        for name, reason in state["reasons"].items()
        if name in titles
    ]
    told += [f"{name} set by hand to {value}" for name, value in state["overrides"].items()]
    if (energised := state["energised"]) and energised["reason"] and case.state["board"] == FIRST:
        told.append(f"Supply put on though not done: {'; '.join(energised['left'])}" + _because(energised["reason"]))
    return told


def _because(reason: str) -> str:
    return f": {reason}" if reason else ""


def codes_of(case: Case) -> list[CodeLine]:
    """What the new board's lamp or display may say, and how each clears."""
    codes = new_board(case).document.get("codes", ())
    return [
        CodeLine(shown=c["shown"], meaning=c["meaning"], look_at=c.get("look_at", ""), clears=c.get("clears", ""))
        for c in codes
    ]


def spent_shown(case: Case, given: Handing) -> SpentShown:
    """What the job took against the alternative. What nobody entered is taken from the choice's own estimate."""
    spent = case.state["spent"]
    assumptions = given.rules.assumptions
    guessed = [costs_shown(each.state, assumptions, given.offers) for each in case.boards]
    guesses = [each.assumptions for each in guessed]
    changed = {**assumptions, **case.state["costs"]}
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
        entered=sorted(spent), currency=given.rules.currency,
        not_entered=_not_entered(case, given, any(each.price_from == "not known" for each in guessed)),
    )  # fmt: skip


def _not_entered(case: Case, given: Handing, price_unknown: bool) -> list[str]:
    """What the sums of this job are made from that nobody entered, in words."""
    spent, offered = case.state["spent"], all(given.offers.get(each.state["replacement"] or "") for each in case.boards)
    mine = [
        "price of the part" if price_unknown and "parts_trade" not in spent else "",
        "minutes of work" if "minutes" not in spent else "",
        "days until the part came" if not offered and "days" not in case.state["costs"] else "",
    ]
    return [*filter(None, mine), *not_entered(case.state["costs"], given.rules.assumptions)]
