"""All that a job's pages are worked out from, as it stands now."""

import json
from collections.abc import Iterable
from datetime import datetime
from typing import Any

from bench.kept import SOURCE
from catalogue import queries as catalogue
from catalogue.api import board_shown
from catalogue.models import Board, BoardRevision, FamilyRevision, GuideRevision
from jobs.candidates import alternatives
from jobs.cases import JobShelf
from jobs.heads import head_of, ref_of
from jobs.ledger.chaining import closed_as, entry_node
from jobs.machines.queries import machine_now
from jobs.models import Job
from jobs.ports.reading import port_of
from jobs.sheets import Revisions, revisions_of, sheet, sheets_of
from jobs.steps.choose.view import candidates_shown
from jobs.steps.fit.look_alikes import leaflet_of, look_alikes_of
from jobs.steps.hand_over.handing import last_digest
from jobs.steps.make_safe.before import as_before
from jobs.steps.recognise.key_view import key_shown
from jobs.steps.record.assuming import assumable_shown
from jobs.steps.record.stripping import route_shown
from parts.queries import offers
from people.models import Person
from twincore.job import FIRST
from twincore.job.steps.choose import MOST_ALTERNATIVES
from twinshown.paging import Paging
from twinshown.rendering import rendered

CANDIDATES = Paging(page=1, size=12)
"""The page of candidates that is looked at first."""


def taken(job: Job, person: Person, now: datetime) -> dict[str, Any]:
    """What `twinshown.with_you` answers a job's pages from; `job` is the sheet of its first board."""
    whole = sheet(job, FIRST)
    boards = sheets_of(whole)
    stood = alternatives(whole, now, whole.state["replacement"])[:MOST_ALTERNATIVES] if _judged(whole) else []
    current = _current([each["part_number"] for each in stood], whole)
    held = {each.board: revisions_of(each) for each in boards}
    revisions = _unique([*current.values(), *(rev for each in held.values() for rev in each[1:])])
    families = _unique([*(rev.family_revision for rev in revisions), *(each.family for each in held.values())])
    families = _unique([*families, *(rev.family.current for rev in families)])
    kinds = sorted({each.family_id for each in families})
    head = head_of(whole)
    return {
        "source": SOURCE,
        "as_of": now.isoformat(),
        "person": {"id": person.pk, "username": person.username, "shown_name": person.shown_name},
        "depot": {
            "rule_out_school": whole.depot.rule_out_school,
            "dead_v": whole.depot.dead_v,
            **{name: getattr(head.rules, name) for name in ("school_when_agreed", "school_when_not", "second_person", "assumptions", "currency")},
        },
        "job": {
            **{name: getattr(head, name) for name in ("id", "code", "machine", "complaint", "opened_by", "origin")},
            "opened_at": head.opened_at.isoformat(),
            "changed_at": head.changed_at.isoformat(),
            "closed_at": head.closed_at.isoformat() if head.closed_at else None,
            "void": [{"number": v.number, "target": v.target, "board": v.board, "expected": v.expected} for v in head.void],
        },
        "head": closed_as(whole),
        "digest": last_digest(whole),
        "state": whole.state,
        "entries": [{**entry_node(each), "here": str(each.pk)} for each in whole.entries.order_by("number")],
        "sheets": {name: dict(zip(Revisions._fields, map(_key, each), strict=True)) for name, each in held.items()},
        "families": {
            _key(each): {"code": each.family_id, "document": bytes(each.document).decode()} for each in families
        },
        "boards": {
            _key(each): {
                "kind": each.board.family_id,
                "ref": json.loads(rendered(ref_of(each))),
                "shown": json.loads(rendered(board_shown(each.board, each, whole.depot_id))),
                "document": bytes(each.document).decode(),
            }
            for each in revisions
        },
        "now": {
            "boards": {name: _key(each) for name, each in current.items()},
            "families": {each.family_id: _key(each.family.current) for each in families},
        },
        "looked_up": {
            "nameplates": _guides(catalogue.guide_revisions("nameplates")),
            "adapters": _guides(catalogue.guide_revisions("adapters")),
            "rule_out": {kind: _guides([guide.current_id])[0] for kind in kinds if (guide := catalogue.guide("rule-out", kind)) and guide.current_id},
            "codes": {kind: catalogue.every_code_meaning(kind, whole.depot_id) for kind in kinds},
            "failures": {each.family_revision.family_id: JobShelf(each).failures() for each in boards if each.family_revision},
            "as_before": as_before(whole, person),
            "ports": {side: port_of(whole, side) is not None for side in ("original", "replacement")},
            "offers": offers([rev.board.part_number for rev in revisions], now),
            "alike": {rev.board.part_number: json.loads(rendered(look_alikes_of(rev.board, whole))) for rev in revisions},
            "leaflets": {rev.board.part_number: json.loads(rendered(leaflet_of(rev.board.part_number, whole))) for rev in revisions},
            "alternatives": stood,
        },
        "answers": _answers(boards, person, now),
    }  # fmt: skip


def _judged(job: Job) -> bool:
    """Whether there is anything to judge candidates on."""
    return job.original_revision is not None and job.family_revision is not None


def _current(names: list[str], job: Job) -> dict[str, BoardRevision]:
    """Boards that may be chosen, as they are now: the candidates, and those of the job."""
    names = [
        *names,
        *(revision.board.part_number for each in sheets_of(job) for revision in revisions_of(each)[1:] if revision),
    ]
    rows = Board.objects.seen_by(job.depot_id).filter(
        part_number__in=names, current__isnull=False, withdrawn__isnull=True
    )
    found = rows.select_related(
        "current__family_revision__family__current", "family", "current__board__current", "current__board__family"
    )
    return {row.part_number: row.current for row in found if row.current}


def _unique(rows: Iterable[Any]) -> list[Any]:
    return list({row.pk: row for row in rows if row is not None}.values())


def _key(revision: FamilyRevision | BoardRevision | None) -> str | None:
    """What a revision is called in what is taken along."""
    return None if revision is None else str(revision.pk)


def _guides(revisions: list[int]) -> list[str]:
    rows = dict(GuideRevision.objects.filter(pk__in=revisions).values_list("pk", "document"))
    return [bytes(rows[each]).decode() for each in revisions]


def _answers(boards: list[Job], person: Person, now: datetime) -> dict[str, Any]:
    """What only the depot works out, as it stands now, by the address after that of the job."""
    found: dict[str, Any] = {}
    for each in boards:
        prefix = "" if each.board == FIRST else f".{each.board}"
        found[f"{prefix}/key"] = key_shown(each)
        found[f"{prefix}/earlier"] = machine_now(person, each.machine_key, each)
        found[f"{prefix}/way-in"] = route_shown(each)
        if each.original_revision is not None:
            found[f"{prefix}/assumable"] = assumable_shown(each)
        if _judged(each):
            found[f"{prefix}/candidates?page=1&size=12"] = candidates_shown(each, CANDIDATES, now)
    return dict(json.loads(rendered(found)))
