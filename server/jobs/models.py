"""Jobs, and the entries of which their history consists."""

from typing import Any
from uuid import uuid4

from django.db import models

from catalogue.models import BoardRevision, FamilyRevision
from people.models import Depot, Person
from pictures.models import KeptPicture
from twincore.job import FIRST, TARGETS, Void


class Job(models.Model):
    """One replacement: of one board, or of several boards of one machine together. The state is what its entries add up to, kept with them in one transaction."""

    id = models.UUIDField(primary_key=True, default=uuid4)
    depot = models.ForeignKey(Depot, on_delete=models.PROTECT, related_name="jobs")
    number = models.PositiveIntegerField()
    machine = models.CharField(max_length=200)
    machine_key = models.CharField(max_length=200, help_text="The machine's name as machines are told apart by it.")
    complaint = models.CharField(max_length=2000, blank=True)
    opened_at = models.DateTimeField()
    opened_by = models.ForeignKey(Person, on_delete=models.PROTECT, related_name="+")
    closed_at = models.DateTimeField(null=True)
    family_revision = models.ForeignKey(FamilyRevision, on_delete=models.PROTECT, null=True, related_name="+")
    original_revision = models.ForeignKey(BoardRevision, on_delete=models.PROTECT, null=True, related_name="+")
    replacement_revision = models.ForeignKey(BoardRevision, on_delete=models.PROTECT, null=True, related_name="+")
    state = models.JSONField(default=dict)
    step = models.CharField(max_length=16, default="rule_out")
    entry_count = models.PositiveIntegerField(default=0)
    said = models.PositiveIntegerField(default=0, help_text="Bytes of what its entries say, as JSON.")
    changed_at = models.DateTimeField()
    opened_as = models.JSONField(
        null=True,
        help_text="What it was opened as, under the first link of its chain; none where an earlier version opened it.",
    )
    origin = models.JSONField(null=True, help_text="Where it was imported from: id, number and depot there, and when.")

    board = FIRST
    """The board whose sheet is at hand."""
    void: tuple[Void, ...] = ()
    """Its entries that say nothing that can stand; only a job whose state is damaged has any."""
    others: dict[str, Any] | None = None
    """The revisions of the job's other boards, once somebody asked for them."""
    looked_at: tuple[Any, ...] | None = None
    """The case that was made of it, with what it was made of."""

    class Meta:
        ordering = ["-changed_at", "-number"]
        constraints = [models.UniqueConstraint(fields=["depot", "number"], name="job_number_once")]
        indexes = [
            models.Index(fields=["depot", "-changed_at", "-number"], name="jobs_of_depot"),
            models.Index(
                fields=["depot", "-changed_at", "-number"], name="open_jobs_of_depot",
                condition=models.Q(closed_at__isnull=True),
            ),
            models.Index(fields=["depot", "machine_key", "-opened_at"], name="jobs_of_machine"),
            models.Index(fields=["depot", "closed_at"], name="closed_jobs_of_depot"),
        ]  # fmt: skip

    @property
    def code(self) -> str:
        """The number as people say it."""
        return f"{self.depot.code}-{self.number:04d}"

    @property
    def known_as(self) -> str:
        """The id under which its entries are chained: its own, or the one it had where it comes from."""
        return self.origin["id"] if self.origin else str(self.pk)


class OtherBoard(models.Model):
    """A board of a job besides the one it was opened for: which boards it is about. Its state is in the job's."""

    job = models.ForeignKey(Job, on_delete=models.CASCADE, related_name="other_boards")
    name = models.CharField(max_length=2)
    family_revision = models.ForeignKey(FamilyRevision, on_delete=models.PROTECT, null=True, related_name="+")
    original_revision = models.ForeignKey(BoardRevision, on_delete=models.PROTECT, null=True, related_name="+")
    replacement_revision = models.ForeignKey(BoardRevision, on_delete=models.PROTECT, null=True, related_name="+")

    class Meta:
        constraints = [models.UniqueConstraint(fields=["job", "name"], name="other_board_once")]


class Picture(KeptPicture):
    """A picture of a job."""

    id = models.UUIDField(primary_key=True, default=uuid4)
    job = models.ForeignKey(Job, on_delete=models.PROTECT, related_name="pictures")
    name = models.UUIDField(help_text="What the job's entries call it: the id that the client made.")

    class Meta(KeptPicture.Meta):
        constraints = [models.UniqueConstraint(fields=["job", "name"], name="picture_name_once")]


ENDS_A_STEP = models.Q(target__startswith="confirmed.") | models.Q(
    target__in=[kind for kind, target in TARGETS.items() if target.ends_step]
)
"""The entries with which somebody ends a step."""


class Entry(models.Model):
    """One thing that somebody did: only ever added. The id is made by the client, so that sending twice adds once.

    `digest` chains it to the entry before; `known_as` is its id in the job that it was imported from.
    """

    id = models.UUIDField(primary_key=True)
    job = models.ForeignKey(Job, on_delete=models.PROTECT, related_name="entries")
    number = models.PositiveIntegerField()
    at = models.DateTimeField()
    by = models.ForeignKey(Person, on_delete=models.PROTECT, null=True, related_name="+")
    by_name = models.CharField(max_length=320, help_text="Who it was, as that person was called then.")
    known_as = models.UUIDField(null=True)
    board = models.CharField(max_length=2, default=FIRST, help_text="The board of the job that it speaks of.")
    target = models.CharField(max_length=100)
    before = models.JSONField(null=True)
    after = models.JSONField(null=True)
    reason = models.CharField(max_length=2000, blank=True)
    read_how = models.CharField(max_length=40, blank=True)
    adds = models.JSONField(null=True, help_text="What it brings along from data that no entry holds.")
    made = models.JSONField(null=True, help_text="When it was made and joined, where that was without a connection.")
    device = models.CharField(max_length=36, blank=True, help_text="The device that it was made on.")
    attachment = models.CharField(max_length=64, blank=True, help_text="The digest of what the entry brings along.")
    digest = models.CharField(max_length=64)

    class Meta:
        ordering = ["-number"]
        constraints = [models.UniqueConstraint(fields=["job", "number"], name="entry_number_once")]
        indexes = [models.Index(fields=["by", "target"], name="steps_of_person", condition=ENDS_A_STEP)]


class CatalogueChange(models.Model):
    """One statement that changed boards, kinds of machine, guides, cross-references, outcomes or offers: written by the database
    itself (a trigger of each table), old ones let go by it too. Which of them are seen is a version of all that was seen.
    """


class KeptAnswer(models.Model):
    """What an address of a job answers, with the version of all that it hangs on; an unlogged table, worth nothing after a crash."""

    path = models.CharField(max_length=160, primary_key=True)
    version = models.CharField(max_length=40)
    body = models.BinaryField()
    at = models.DateTimeField(db_index=True)
