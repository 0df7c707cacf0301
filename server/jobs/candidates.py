"""Choose: every board that may take the original's place, judged on every criterion."""

from dataclasses import dataclass
from datetime import datetime
from time import monotonic
from typing import Any

from django.db.models import Case, F, IntegerField, Value, When

from bench.kept import fetch, kept
from bench.pairs import compared
from catalogue.models import Board
from catalogue.profiles import board_profile, family_profile
from jobs.cases import case_of
from jobs.models import Job
from parts.queries import offers
from references.queries import lookup_from
from twincore import choose
from twincore.carry_over import twin_key
from twincore.choose import Candidate, Machine, TwinChecked, Ways
from twincore.choose.judged import RANK
from twincore.choose.ranking import CLOSENESS, verdict_of
from twincore.job import current
from twincore.job.comparison import believed
from twincore.job.facts import fact_values
from twincore.job.given import Given
from twincore.job.taking import leads_at_hand
from twincore.profile import factory_record, written_positions
from twincore.profile.values import plain
from twinshown.refusals import Faulty, Refused

MOST_ALTERNATIVES = 12
"""Candidates kept with a choice, best first."""


MOST_JUDGED = 200
"""Boards of a family that are judged; those that are listed come first."""


LONGEST_S = 8.0
"""How long one look may run twin checks that nobody ran before."""


TWINS_CHECKED = 16
"""The best of them on everything else for which carry-over and twin check are run at once."""


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
    """The original's positions to judge on: the record where anything was read, else factory settings."""
    assert job.original_revision_id is not None  # callers wait for the original
    stands = believed(current(job.state))
    if any(str(value).strip("?") for value in stands.values()):
        return stands, "the record, with what is assumed" if job.state.get("assumed") else "the record"
    original = board_profile(job.original_revision_id)
    return plain(written_positions(original, factory_record(original).points)), "factory settings"


def judge_all(job: Job, now: datetime, also: str | None = None) -> Choice:
    """Judge the boards of the family and those that statements lead to. `also` is judged whatever its place."""
    if job.original_revision_id is None or job.family_revision is None:
        raise Refused("Find out first which board is to be replaced.")
    original = board_profile(job.original_revision_id)
    family = family_profile(job.family_revision.pk)
    facts = fact_values(case_of(job))
    ways = choose.find_ways(original.part_number, lookup_from(original.part_number), facts, now.date())
    case = case_of(job)
    machine = Machine(
        choose.fitting_of(original.document),
        family,
        facts,
        job.depot.change_companions,
        leads_at_hand(case.shelf.adapters),
    )
    found, judged_on = found_of(job)
    rows = _considered(
        job.depot_id, job.family_revision.family_id, [original.part_number, *ways.to, *([also] if also else [])]
    )
    rows += _sets(job.depot_id, ways, {row["part_number"] for row in rows}, family.id)
    fittings = fittings_of(rows)
    known = offers(fittings, now)
    wishes = job.state.get("wishes", {})
    ids = {row["part_number"]: row["current_id"] for row in rows if row["current_id"]}
    family_id, original_id = job.family_revision.pk, job.original_revision_id

    def key_of(part_number: str) -> str:
        return twin_key((family_id, original_id, ids[part_number]), found, wishes)

    def checked_twin(part_number: str) -> TwinChecked:
        # what is kept is found by its key alone: the boards are read only for what is not
        return kept(
            key_of(part_number),
            lambda: compared(family_id, original_id, found, ids[part_number], wishes=wishes).quick_twin(),
        )

    elsewhere: dict[str, list[choose.Statement]] = {}
    for statement in ways.elsewhere:
        elsewhere.setdefault(statement.replacement, []).append(statement)

    def judged(part_number: str, twin: TwinChecked | None) -> Candidate:
        offer = known.get(part_number)
        heard = None if offer is None or offer.get("silent") else offer
        return choose.judge_candidate(
            machine, fittings[part_number], ways.to.get(part_number), twin, heard, elsewhere.get(part_number, [])
        )

    first = choose.ranked([judged(name, None) for name in fittings])
    best = [each.part_number for each in first if each.part_number in ids][:TWINS_CHECKED]
    if also is not None and also in ids:
        best = list(dict.fromkeys([also, *best]))
    fetch(key_of(name) for name in best)
    checked: dict[str, Candidate] = {}
    begun = monotonic()
    for name in best:
        # what is not run in time is said to be, and what was run is kept: the next look goes on from there
        if name == also or monotonic() - begun < LONGEST_S:
            checked[name] = judged(name, checked_twin(name))
    return Choice(
        candidates=choose.ranked([checked.get(each.part_number, each) for each in first]),
        ways=ways,
        machine=machine,
        rows={row["part_number"]: row for row in rows},
        offers=known,
        judged_on=judged_on,
        unprofiled=sorted(set(ways.to) - set(fittings) - {original.part_number}),
        whole=len(checked) == len(best),
    )


def _considered(depot: int | None, family: str, listed: list[str]) -> list[dict[str, Any]]:
    """The boards to judge: listed ones first, then the family's by part number."""
    first = Case(When(part_number__in=listed, then=Value(0)), default=Value(1), output_field=IntegerField())
    rows = (
        Board.objects.seen_by(depot)
        .filter(family_id=family, current__isnull=False, withdrawn__isnull=True)
        .order_by(first, "status", "part_number", F("depot").asc(nulls_first=True))
        .values("part_number", "maker", "title", "status", "current_id", "current__number")[:MOST_JUDGED]
    )
    return [dict(row) for row in rows]


def _sets(depot: int | None, ways: Ways, there: set[str], family: str) -> list[dict[str, Any]]:
    """Sets that statements lead to and that have no profile of their own, but whose boards all have one."""
    sets = {name: name.split(choose.TOGETHER) for name in ways.to if choose.TOGETHER in name and name not in there}
    if not sets:
        return []
    boards = Board.objects.seen_by(depot).filter(
        part_number__in={each for parts in sets.values() for each in parts}, family_id=family
    )
    found = {row["part_number"]: row for row in boards.values("part_number", "maker", "current_id")}
    return [
        {
            "part_number": name,
            "maker": found[parts[0]]["maker"],
            "title": "a set without a profile of its own",
            "status": "current",
            "current_id": None,
            "current__number": 0,
            "members": [found[each]["current_id"] for each in parts],
        }
        for name, parts in sets.items()
        if all(each in found and found[each]["current_id"] for each in parts)
    ]


MOST_KEPT = 20_000


_kept: dict[int, choose.Fitting] = {}
"""Fittings by revision, which never changes; begun anew when there are very many."""


def fittings_of(rows: list[dict[str, Any]]) -> dict[str, choose.Fitting]:
    """What fitting looks at, by part number; only what this process has not seen yet is read."""
    wanted = {number for row in rows for number in row.get("members", [row["current_id"]])}
    known = {number: _kept.get(number) for number in wanted}
    missing = [number for number, fitting in known.items() if fitting is None]
    if missing:
        read = Board.objects.filter(current__in=missing).values_list("current_id", "traits")
        fresh = {number: choose.fitting_of(traits) for number, traits in read}
        known |= fresh
        if len(_kept) + len(fresh) > MOST_KEPT:
            _kept.clear()
        _kept.update(fresh)
    parts = {row["part_number"]: [known[n] for n in row.get("members", [row["current_id"]])] for row in rows}
    return {name: choose.merged([part for part in each if part]) for name, each in parts.items() if all(each)}


def choice_made(job: Job, part_number: str, given: Given) -> dict[str, Any]:
    """A choice with the alternatives as they stand now. Refuses a board that does not fit without a reason."""
    reason = given.reason.strip()
    stood = alternatives(job, given.now, part_number)
    chosen = next((each for each in stood if each["part_number"] == part_number), None)
    if chosen is not None and chosen["verdict"] == "no" and not reason:
        raise Faulty(f"{part_number} does not fit as it is judged. Say why it is taken all the same.")
    return {
        "reason": reason,
        "by": given.by,
        "at": given.now.isoformat(timespec="seconds"),
        "verdict": chosen["verdict"] if chosen else "to check",
        "alternatives": stood[:MOST_ALTERNATIVES],
    }


def alternatives(job: Job, now: datetime, chosen: str | None) -> list[dict[str, Any]]:
    """The candidates as they stand now, the one chosen among them, for the record of a choice."""
    return [
        {
            "part_number": each.part_number, "verdict": each.verdict, "closeness": each.closeness,
            "minutes": each.minutes, "price": each.price, "days": each.days,
            "cells": {cell.criterion: cell.verdict for cell in each.cells},
        }
        for each in judge_all(job, now, chosen).candidates
    ]  # fmt: skip


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
