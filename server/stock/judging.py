"""Who serves whom, and how well: judged once for each kind of machine, and kept until something changes that it hangs on."""

import json
from collections.abc import Callable, Iterable, Mapping, Sequence
from datetime import datetime
from functools import partial
from hashlib import sha256
from typing import Any, NamedTuple

from bench.kept import SOURCE
from bench.twins import Twins
from catalogue.fittings import considered, fittings_of
from catalogue.models import Board
from catalogue.profiles import adapters_of, board_profile, family_profile
from catalogue.queries import guide_revisions
from people.models import Depot
from references.queries import lookup_from
from stock.models import Judged, Served
from twincore import choose, stock
from twincore.choose import TwinChecked
from twincore.job.shared.taking import leads_at_hand
from twincore.profile import as_shipped, written_positions
from twincore.profile.values import plain

Leads = Sequence[choose.AdapterLead]


class MachineKind(NamedTuple):
    """Machines that are alike: their board, and the digest of their facts."""

    board: str
    facts: str


def kind_of(row: Served) -> MachineKind:
    """The kind of the machines of a row."""
    return MachineKind(row.board, digest_of(row.facts))


def digest_of(facts: Mapping[str, Any]) -> str:
    """One word for facts of a machine, the same for the same facts."""
    return sha256(json.dumps(facts, sort_keys=True).encode()).hexdigest()


def grades_of(depot: Depot, kinds: Iterable[MachineKind]) -> dict[MachineKind, Judged]:
    """What is kept of these kinds, as it was judged last."""
    wanted = set(kinds)
    rows = Judged.objects.filter(depot=depot, board__in={each.board for each in wanted})
    return {kind: row for row in rows if (kind := MachineKind(row.board, row.facts)) in wanted}


def judge_all(
    depot: Depot, rows: Iterable[Served], now: Callable[[], datetime], tell: Callable[[float], None]
) -> dict[MachineKind, Judged]:
    """Every kind of these machines judged as things stand; `tell` hears how far it is, and may raise to stop it.

    What was judged stays, whatever stops it.
    """
    facts = {kind_of(row): row.facts for row in rows}
    kept = grades_of(depot, facts)
    leads = leads_at_hand(each for revision in guide_revisions("adapters") for each in adapters_of(revision))
    found = {}
    for number, (kind, said) in enumerate(sorted(facts.items())):
        tell(number / len(facts))
        found[kind] = _judged(depot, kind, said, leads, kept.get(kind), now())
    tell(1.0)
    return found


def _judged(
    depot: Depot, kind: MachineKind, facts: dict[str, Any], leads: Leads, kept: Judged | None, now: datetime
) -> Judged:
    case = _case_of(depot, kind.board, facts, leads, now)
    version = case.version if case else "no profile"
    if kept is not None and kept.version == version:
        return kept
    row, _ = Judged.objects.update_or_create(
        depot=depot, board=kind.board, facts=kind.facts,
        defaults={"version": version, "grades": case.grades() if case else {}, "known": case is not None, "at": now},
    )  # fmt: skip
    return row


class _Case(NamedTuple):
    """A kind of machine with all that its judgement hangs on."""

    depot: Depot
    family_revision: int
    original_revision: int
    facts: dict[str, Any]
    ways: choose.Ways
    rows: list[dict[str, Any]]
    leads: Leads

    @property
    def version(self) -> str:
        """One word that changes when anything does that the grades hang on."""
        boards = [(row["part_number"], row["current_id"], row.get("members")) for row in self.rows]
        hangs_on = [
            SOURCE, self.family_revision, self.original_revision, boards, repr(self.ways), repr(self.leads),
            self.depot.change_companions,
        ]  # fmt: skip
        return sha256(json.dumps(hangs_on).encode()).hexdigest()[:40]

    def grades(self) -> dict[str, stock.Grade]:
        """The pieces that serve it; twin checks are run from factory settings, for nobody read these machines' switches."""
        original, family = board_profile(self.original_revision), family_profile(self.family_revision)
        found = plain(written_positions(original, as_shipped(original).points))
        machine = choose.Machine(
            choose.fitting_of(original.document), family, self.facts, self.depot.change_companions, self.leads
        )
        fittings = fittings_of(self.rows)
        revisions = {row["part_number"]: row["current_id"] for row in self.rows}
        twins = Twins(self.family_revision, self.original_revision, found, revisions, {})
        twins.fetch(name for name, revision in revisions.items() if revision)

        def checked(name: str) -> TwinChecked | None:
            return twins.of(name) if revisions[name] else None

        grades = stock.pieces_that_serve(
            machine,
            [
                stock.Considered(
                    each,
                    self.ways.to.get(name),
                    partial(checked, name),
                    partial(twins.again, name),
                    self.ways.elsewhere_of(name),
                )
                for name, each in fittings.items()
            ],
        )
        twins.keep()
        return grades


def _case_of(depot: Depot, board: str, facts: dict[str, Any], leads: Leads, now: datetime) -> _Case | None:
    row = (
        Board.objects.seen_by(depot.pk)
        .filter(part_number=board, current__isnull=False, family__current__isnull=False)
        .values("current_id", "family_id", "family__current_id")
        .first()
    )
    if row is None:
        return None
    ways = choose.find_ways(board, lookup_from(board), facts, now.date())
    rows = considered(depot.pk, row["family_id"], [board, *ways.to])
    return _Case(depot, row["family__current_id"], row["current_id"], facts, ways, rows, leads)
