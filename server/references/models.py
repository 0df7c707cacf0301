"""Cross-references as directed statements, their imports, and what contradicts what."""

from uuid import uuid4

from django.contrib.postgres.fields import ArrayField
from django.contrib.postgres.indexes import GinIndex
from django.db import models
from django.db.models import Q

from people.models import Person
from twincore.choose import RELATIONS


class Statement(models.Model):
    """One board (or set) may, or may not, stand in for another. Withdrawn ones stay, and count no more."""

    code = models.CharField(max_length=80, unique=True, help_text="The statement's id in its file.")
    original = models.CharField(max_length=700)
    replacement = models.CharField(max_length=700)
    relation = models.CharField(max_length=20)
    members = ArrayField(models.CharField(max_length=80), null=True, help_text="The originals, where several go out.")
    conditions = models.JSONField(default=dict)
    needs = ArrayField(models.CharField(max_length=2000), default=list)
    companions = ArrayField(models.CharField(max_length=2000), default=list)
    words = models.CharField(max_length=2000, blank=True)
    source = models.CharField(max_length=2000, blank=True)
    dated = models.DateField(null=True)
    valid_from = models.DateField(null=True)
    valid_to = models.DateField(null=True)
    cost = models.FloatField(null=True)
    days = models.FloatField(null=True)
    worked = models.PositiveIntegerField(default=0)
    failed = models.PositiveIntegerField(default=0)
    withdrawn_at = models.DateTimeField(null=True)
    withdrawn_by = models.ForeignKey(Person, on_delete=models.PROTECT, null=True, related_name="+")
    withdrawn_because = models.CharField(max_length=2000, blank=True)

    class Meta:
        ordering = ["original", "relation", "code"]
        constraints = [
            models.CheckConstraint(name="statement_relation_known", condition=Q(relation__in=list(RELATIONS))),
            models.CheckConstraint(
                name="statement_withdrawn_with_reason",
                condition=Q(withdrawn_at__isnull=True) | ~Q(withdrawn_because=""),
            ),
        ]
        indexes = [
            models.Index(fields=["original", "relation", "code"], name="statement_from"),
            models.Index(fields=["replacement"], name="statement_same_to", condition=Q(relation="same")),
            GinIndex(fields=["members"], name="statement_members", condition=Q(members__isnull=False)),
        ]


class Import(models.Model):
    """A file of statements on its way into the catalogue: nothing of it counts before all of it does."""

    class State(models.TextChoices):
        """Where an import stands."""

        WAITING = "waiting"
        READING = "reading"
        KEEPING = "keeping"
        DONE = "done"
        CANCELLED = "cancelled"
        FAILED = "failed"

    id = models.UUIDField(primary_key=True, default=uuid4)
    name = models.CharField(max_length=200)
    bytes = models.PositiveBigIntegerField()
    bytes_read = models.PositiveBigIntegerField(default=0)
    rows = models.PositiveIntegerField(default=0)
    refused = models.PositiveIntegerField(default=0)
    new = models.PositiveIntegerField(default=0)
    state = models.CharField(max_length=12, choices=State.choices, default=State.WAITING)
    fault = models.CharField(max_length=2000, blank=True)
    cancel_wanted = models.BooleanField(default=False)
    sent_at = models.DateTimeField()
    sent_by = models.ForeignKey(Person, on_delete=models.PROTECT, null=True, related_name="+")
    ended_at = models.DateTimeField(null=True)

    class Meta:
        ordering = ["-sent_at"]
        constraints = [
            models.CheckConstraint(
                name="import_state_known",
                condition=Q(state__in=["waiting", "reading", "keeping", "done", "cancelled", "failed"]),
            )
        ]

    @property
    def ended(self) -> bool:
        """Whether nothing more happens to it."""
        return self.state in (self.State.DONE, self.State.CANCELLED, self.State.FAILED)


class Contradiction(models.Model):
    """Statements that cannot all be true, as they were found last; settled by withdrawing one of them."""

    kind = models.CharField(max_length=20)
    boards = ArrayField(models.CharField(max_length=700))
    codes = ArrayField(models.CharField(max_length=80), help_text="The statements that clash.")

    class Meta:
        ordering = ["kind", "id"]


class Outcome(models.Model):
    """How a pairing did on one machine, as it was said last: counted into every statement of that pairing."""

    class Result(models.TextChoices):
        """What people say of a replacement, at once and after a month."""

        WORKED = "worked"
        WITH_A_CHANGE = "worked with a change"
        DID_NOT = "did not"

    job = models.UUIDField(primary_key=True, help_text="The job that it is about.")
    original = models.CharField(max_length=700)
    replacement = models.CharField(max_length=700)
    result = models.CharField(max_length=24, choices=Result.choices)
    at = models.DateTimeField()

    class Meta:
        constraints = [
            models.CheckConstraint(
                name="outcome_result_known", condition=Q(result__in=["worked", "worked with a change", "did not"])
            )
        ]
        indexes = [models.Index(fields=["original", "replacement"], name="outcomes_of_pairing")]
