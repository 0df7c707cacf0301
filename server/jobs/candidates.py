"""Choose: every board that may take the original's place, judged on every criterion."""

from dataclasses import asdict, dataclass
from datetime import datetime
from time import monotonic
from typing import Any

from bench.twins import Twins
from catalogue.fittings import considered, fittings_of
from catalogue.profiles import board_profile, family_profile
from jobs.cases import case_of
from jobs.models import Job
from parts.queries import offers
from references.queries import lookup_from
from twincore import choose
from twincore.choose import Candidate, Machine, Ways
from twincore.choose.judged import RANK
from twincore.choose.ranking import CLOSENESS, verdict_of
from twincore.job import current
from twincore.job.shared.comparison import believed
from twincore.job.shared.facts import fact_values
from twincore.job.shared.taking import leads_at_hand
from twincore.profile import as_shipped, written_positions
from twincore.profile.values import plain
from twinshown.refusals import Refused

LONGEST_S = 8.0
"""How long one look may run twin checks that nobody ran before."""


TWINS_CHECKED = 16
"""The best of them on everything else for which carry-over and twin check are run at once."""


UNREAD = ("factory settings", "no setting")
"""What is judged on where nobody has read yet how the original is set."""


@dataclass(frozen=True, slots=True)
class Choice:
    """Candidates best first, with what they were judged on."""

    candidates: list[Candidate]
    ways: Ways
    machine: Machine
    rows: dict[str, dict[str, Any]]
    """By part number: maker, title, status and current revision."""
    offers: dict[str, dict[str, Any]]
    """What the parts desk said last, by part number."""
    judged_on: str
    unprofiled: list[str]
    """Boards that statements lead to and that nobody has a profile of."""
    whole: bool
    """Whether every twin check that was wanted was run in time."""


def found_of(job: Job) -> tuple[dict[str, Any], str]:
    """The original's positions to judge on: the record where anything was read, else factory settings as far as they are known."""
    if job.original_revision_id is None:
        raise Refused("Nobody has said yet which board comes out. Do that first, in Recognise.")
    stands = believed(current(job.state))
    if any(str(value).strip("?") for value in stands.values()):
        return stands, "the record, with what is assumed" if job.state.get("assumed") else "the record"
    original = board_profile(job.original_revision_id)
    shipped = as_shipped(original)
    known = any(value is not None for value in shipped.points.values()) or not shipped.points
    return plain(written_positions(original, shipped.points)), "factory settings" if known else "no setting"


def judge_all(job: Job, now: datetime, also: str | None = None) -> Choice:
    """Judge the boards of the family and those that statements lead to. `also` is judged whatever its place."""
    if job.original_revision_id is None or job.family_revision is None:
        raise Refused("Find out first which board is to be replaced.")
    original = board_profile(job.original_revision_id)
    family = family_profile(job.family_revision.pk)
    case = case_of(job)
    facts = fact_values(case)
    ways = choose.find_ways(original.part_number, lookup_from(original.part_number), facts, now.date())
    machine = Machine(
        choose.fitting_of(original.document),
        family,
        facts,
        job.depot.change_companions,
        leads_at_hand(case.shelf.adapters),
    )
    found, judged_on = found_of(job)
    known = judged_on not in UNREAD or None not in as_shipped(original).points.values()
    listed = [original.part_number, *ways.to, *([also] if also else [])]
    rows = considered(job.depot_id, job.family_revision.family_id, listed)
    fittings = fittings_of(rows)
    offered = offers(fittings, now)
    wishes = job.state.get("wishes", {})
    ids = {row["part_number"]: row["current_id"] for row in rows if row["current_id"]}
    family_id, original_id = job.family_revision.pk, job.original_revision_id

    twins = Twins(family_id, original_id, found, ids, wishes)

    def judged(part_number: str) -> Candidate:
        offer = offered.get(part_number)
        heard = None if offer is None or offer.get("silent") else offer
        return choose.judge_candidate(
            machine, fittings[part_number], ways.to.get(part_number), None, heard, ways.elsewhere_of(part_number)
        )

    first = choose.ranked([judged(name) for name in fittings])
    by_name = {each.part_number: each for each in first}
    best = [each.part_number for each in first if each.part_number in ids][:TWINS_CHECKED]
    if also is not None and also in ids:
        best = list(dict.fromkeys([also, *best]))
    twins.fetch(best)
    checked: dict[str, Candidate] = {}
    begun = monotonic()
    for name in best:
        # what is not run in time is said to be, and what was run is kept: the next look goes on from there
        if twins.has(name) or name == also or monotonic() - begun < LONGEST_S:
            checked[name] = choose.with_twin(by_name[name], twins.of(name), known)
    twins.keep()
    return Choice(
        candidates=choose.ranked([checked.get(each.part_number, each) for each in first]),
        ways=ways,
        machine=machine,
        rows={row["part_number"]: row for row in rows},
        offers=offered,
        judged_on=judged_on,
        unprofiled=sorted(set(ways.to) - set(fittings) - {original.part_number}),
        whole=len(checked) == len(best),
    )


def alternatives(job: Job, now: datetime, chosen: str | None) -> list[dict[str, Any]]:
    """The candidates as they stand now, the one chosen among them, for the record of a choice."""
    return [
        {
            "part_number": each.part_number, "verdict": each.verdict, "closeness": each.closeness,
            "minutes": each.minutes, "price": each.price, "days": each.days,
            "cells": {cell.criterion: cell.verdict for cell in each.cells}, "listed": _listed(each),
        }
        for each in judge_all(job, now, chosen).candidates
    ]  # fmt: skip


def _listed(candidate: choose.Candidate) -> dict[str, Any] | None:
    listed = choose.listed_as(candidate.at)
    return None if listed is None else plain(asdict(listed))


def rejudged(job: Job, now: datetime) -> dict[str, Any] | None:
    """What the complete record changes about the choice: the board chosen is worse now, or another is better.

    None where there is no choice yet or nothing speaks against it more than before.
    """
    choice = job.state.get("choice")
    chosen = job.state.get("replacement")
    if not choice or not chosen:
        return None
    stands = alternatives(job, now, chosen)
    was = {each["part_number"]: each for each in choice["alternatives"]}
    is_now = {each["part_number"]: _judged_as(each, was.get(each["part_number"])) for each in stands}
    mine, before = is_now.get(chosen), was.get(chosen)
    changes = []
    if mine and before and _rank(mine) > _rank(before):
        changes.append({"board": chosen, "what": "worse", **_standing(before, mine)})
    for name, each in is_now.items():
        earlier = was.get(name)
        better = mine is not None and _rank(each) < _rank(mine)
        if name != chosen and better and earlier and before and _rank(earlier) >= _rank(before):
            changes.append({"board": name, "what": "better than the one chosen", **_standing(earlier, each)})
    return {"at": now.isoformat(timespec="seconds"), "changes": changes[:5]} if changes else None


def _judged_as(stands: dict[str, Any], before: dict[str, Any] | None) -> dict[str, Any]:
    """How a candidate stands now on the criteria that there were then: one that came later speaks against nobody's choice."""
    if before is None:
        return stands
    cells = {criterion: verdict for criterion, verdict in stands["cells"].items() if criterion in before["cells"]}
    return {**stands, "verdict": verdict_of(cells)}


def _rank(stood: dict[str, Any]) -> tuple[int, int]:
    return RANK[stood["verdict"]], CLOSENESS.index(stood["closeness"])


def _standing(before: dict[str, Any], now: dict[str, Any]) -> dict[str, str]:
    return {"was": f"{before['verdict']}, {before['closeness']}", "now": f"{now['verdict']}, {now['closeness']}"}
