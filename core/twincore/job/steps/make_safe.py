"""Make safe: what makes a hold point hold."""

from math import ceil
from typing import Any

from twincore.errors import Refusal, WrongValue
from twincore.job.case import Case
from twincore.job.given import Captured, Check, Given
from twincore.job.shared.holds import isolates, locked_off_at, points_of, unsettled
from twincore.job.targets.make_safe import HoldSaid
from twincore.make_safe import Fault, HoldPoint, fault_of
from twincore.profile.times import time_words

NAMES = {
    "where": "where", "tag": "the tag's number", "instrument": "the instrument", "reading": "the reading",
    "checked_before": "that the instrument was checked before", "checked_after": "that it was checked again after",
}  # fmt: skip


def hold_value(case: Case, name: str, after: HoldSaid, given: Given) -> dict[str, Any]:
    """What was said of a hold point. Refuses what does not make it hold; skipping takes a reason."""
    point = next((each for each in points_of(case) if each.id == name), None)
    if point is None:
        raise WrongValue(f"There is no hold point {name} for this machine.")
    allowed = {*point.asks, "note", "skipped"}
    if not set(after) <= allowed:
        raise WrongValue(f"Expected any of {', '.join(sorted(allowed))}.")
    if after.get("skipped"):
        if not given.why:
            raise WrongValue(
                f"{point.title}: say why it is skipped. The reason stands on every later page and on the sheet."
            )
        return {"skipped": True, "reason": given.why}
    _check_order(case, point)
    since = locked_off_at(case)
    fault = fault_of(point, dict(after), (given.now - since).total_seconds() if since else None)
    if fault is not None:
        raise WrongValue(_words(point, fault, since is not None))
    return dict(after)


def _check_order(case: Case, point: HoldPoint) -> None:
    """Proving dead and what follows speak of a machine that is locked off."""
    if point.kind not in ("prove dead", "stored energy"):
        return
    before = [each for each in points_of(case) if each.kind == "isolate" and each.id not in case.state["holds"]]
    if before:
        raise Refusal(f"First: {before[0].title.lower()}.")


def _words(point: HoldPoint, fault: Fault, locked: bool) -> str:
    left_s, name = fault.left_s, fault.name
    where = next((f" at {pair.title}" for pair in point.pairs if pair.id == name), "")
    match fault.code:
        case "too early" if not locked:
            return f"{point.title}: the wait of {time_words(ceil(point.wait_s))} starts when the supply is locked off."
        case "too early":
            return (
                f"{point.title}: wait {time_words(ceil(left_s))} more, then measure. The clock alone does not end it."
            )
        case "not below":
            return (
                f"{point.title}: the reading{where} is not below {point.limit:g} {point.unit}. Nothing is touched; "
                "find out what still feeds it, and measure again."
            )
        case "perhaps induced":
            return (
                f"{point.title}: {fault.reading:g} {point.unit}{where} is not dead (below {point.limit:g} {point.unit}). "
                "Find out what still feeds it. If it may be induced, measure again with a low-impedance tester."
            )
        case "no number":
            return f"{point.title}: expected a reading in {point.unit} of at least 0{where}."
        case "not asked":
            return f"{point.title}: {name} is no pair of terminals of this machine. Load the page again."
        case "not confirmed":
            return f"{point.title}: confirm {NAMES[name]}."
    return f"{point.title}: enter the reading{where}." if where else f"{point.title}: say {NAMES[name]}."


def check_confirmed(case: Case, note: str) -> None:
    """Refuse to open what needs the machine dead before every hold point holds or was skipped with a reason."""
    if missing := unsettled(case):
        raise Refusal(f"Still open: {', '.join(each.title for each in missing)}.", holds=[each.id for each in missing])


CHECKS: dict[str, Check] = {"hold": hold_value}
CAPTURED: dict[str, Captured] = {"hold": lambda case, name, value: {"isolates": isolates(case, name)}}
