"""Rows read with those they point at, by one statement: as Django's own querysets read them."""

from typing import Any
from uuid import UUID

from django.db import transaction
from django.db.models import Model
from django.test import TransactionTestCase

from catalogue.models import BoardRevision
from config.joined import Joined
from jobs.models import Entry, Job
from jobs.sheets import JOBS, REVISIONS, held
from jobs.tests.world import WorldTestCase

ANY = UUID(int=0)


def columns(row: Model | None) -> Any:
    """All that was read of a row."""
    return row and (row.get_deferred_fields(), {k: v for k, v in vars(row).items() if not k.startswith("_")})


class JoinedRows(WorldTestCase):
    def test_jobs_come_with_what_they_point_at_and_without_what_is_left_out(self) -> None:
        beside = ("depot", "opened_by", "family_revision")
        jobs = Job.objects.select_related(*beside).defer("family_revision__document").order_by("pk")
        with self.assertNumQueries(2):
            expected, found = list(jobs), JOBS("order by it.id")
            self.assertEqual([columns(each) for each in found], [columns(each) for each in expected])
            for name in beside:
                self.assertEqual(
                    [columns(getattr(each, name)) for each in found],
                    [columns(getattr(each, name)) for each in expected],
                )
        self.assertTrue(any(each.family_revision is None for each in found))

    def test_what_lies_two_tables_away_and_may_be_missing(self) -> None:
        revisions = BoardRevision.objects.select_related("board__current").order_by("pk")
        some = [each.pk for each in revisions[:9]]
        with self.assertNumQueries(1):
            found = {each.pk: each for each in REVISIONS("where it.id = any(%s)", some)}
            at = {pk: (each.board.pk, each.board.current and each.board.current.pk) for pk, each in found.items()}
        self.assertEqual(at, {each.pk: (each.board_id, each.board.current_id) for each in revisions[:9]})
        document = revisions[0].document
        with self.assertNumQueries(1):
            self.assertEqual(found[some[0]].document, document)

    def test_what_was_read_can_be_saved(self) -> None:
        job = JOBS.first("where it.id = %s", self.job(1).pk)
        assert job is not None
        job.state["boards"] = {"1": "x"}
        job.save()
        self.assertEqual(Job.objects.get(pk=job.pk).state, job.state)

    def test_none_where_there_is_none(self) -> None:
        self.assertEqual(
            (Joined(Entry)("where it.id = %s", ANY), Joined(Entry).first("where it.id = %s", ANY)), ([], None)
        )


class HeldRows(TransactionTestCase):
    def test_rows_are_held_in_a_transaction_only(self) -> None:
        with transaction.atomic():
            self.assertIsNone(held(ANY, 1))
        with self.assertRaisesMessage(RuntimeError, "transaction"):
            held(ANY, 1)
