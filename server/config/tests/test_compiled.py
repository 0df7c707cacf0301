"""Queries whose SQL is made once: they answer as the querysets they were made of."""

from typing import Any
from uuid import UUID, uuid4

from django.db import transaction
from django.db.models import Q, QuerySet
from django.db.models.functions import JSONObject
from django.test import TransactionTestCase

from config.compiled import Compiled
from jobs.models import Job
from jobs.sheets import HELD
from jobs.tests.world import WorldTestCase
from people.models import Depot
from references.models import Statement

ANY = UUID(int=0)


class CompiledQueries(WorldTestCase):
    def test_rows_come_with_what_they_point_at_and_without_what_is_left_out(self) -> None:
        def rows(depot: int) -> QuerySet[Job]:
            parts = JSONObject(original="state__original")
            found = Job.objects.filter(depot=depot).select_related("depot", "original_revision__board")
            return found.defer("state").annotate(parts=parts)

        def told(job: Job) -> tuple[Any, ...]:
            revision = job.original_revision
            return job, job.machine, job.depot, revision, revision and revision.board, vars(job)["parts"]

        compiled = Compiled(rows, depot=-1)
        for depot in Depot.objects.all():
            expected = [told(job) for job in rows(depot.pk)]
            with self.assertNumQueries(1):
                found = compiled(depot=depot.pk)
                self.assertEqual([told(job) for job in found], expected)
            self.assertTrue(all(job.get_deferred_fields() == {"state"} for job in found))

    def test_it_answers_anew_every_time(self) -> None:
        numbers = Compiled(lambda pk: Job.objects.filter(pk=pk).values_list("complaint", flat=True), pk=ANY)
        job = self.job(1)
        self.assertEqual(numbers(pk=job.pk), [job.complaint])
        Job.objects.filter(pk=job.pk).update(complaint="hums")
        self.assertEqual(numbers.first(pk=job.pk), "hums")
        self.assertEqual((numbers(pk=uuid4()), numbers.first(pk=uuid4())), ([], None))

    def test_a_value_may_stand_in_it_twice_beside_some_that_stand_in_it_for_good(self) -> None:
        def rows(text: str, most: int) -> QuerySet[Job, Any]:
            found = Job.objects.filter(Q(machine=text) | Q(complaint=text), number__lt=most, closed_at__isnull=True)
            return found.order_by("number").values_list("number", "machine")

        compiled = Compiled(rows, text="some text", most=99_999)
        for job in Job.objects.all():
            for text in (job.machine, job.complaint):
                self.assertEqual(compiled(text=text, most=job.number + 1), list(rows(text, job.number + 1)))

    def test_any_of_some_values_is_one_parameter_however_many_there_are(self) -> None:
        compiled = Compiled(
            lambda machines: Job.objects.filter(machine__any=machines).order_by("number"), machines=["x"]
        )
        machines = list(Job.objects.values_list("machine", flat=True))
        for wanted in ([], machines[:1], machines[:5], [*machines, "nobody's"]):
            expected = list(Job.objects.filter(machine__in=wanted).order_by("number"))
            self.assertEqual(compiled(machines=wanted), expected)
            self.assertEqual(list(Job.objects.filter(machine__any=wanted).order_by("number")), expected)

    def test_arrays_that_share_a_value_with_some_are_found_by_one_parameter(self) -> None:
        compiled = Compiled(lambda boards: Statement.objects.filter(members__any=boards), boards=["x"])
        members = Statement.objects.filter(members__isnull=False).values_list("members", flat=True)
        together = {each for row in members for each in row}
        for wanted in ([], sorted(together)[:1], [*together, "x"]):
            self.assertEqual(compiled(boards=wanted), list(Statement.objects.filter(members__overlap=wanted)))
        self.assertTrue(together)

    def test_an_example_that_is_no_parameter_is_an_error(self) -> None:
        compiled = Compiled(lambda first: Job.objects.order_by("number")[:first], first=7)
        with self.assertRaisesMessage(ValueError, "stands for first"):
            compiled(first=3)


class HeldRows(TransactionTestCase):
    def test_rows_are_held_in_a_transaction_only(self) -> None:
        with transaction.atomic():
            self.assertIsNone(HELD.first(pk=ANY, depot=1))
        with self.assertRaisesMessage(RuntimeError, "transaction"):
            HELD.first(pk=ANY, depot=1)
