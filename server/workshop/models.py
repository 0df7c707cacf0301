"""Drafts of boards, and the edits of which their history consists."""

from uuid import uuid4

from django.db import models

from catalogue.models import Board, BoardRevision, FamilyRevision
from people.models import Depot, Person

LIVE = models.Q(state__in=["open", "proposed"])


class Draft(models.Model):
    """A board on the bench of a depot's workshop: its document and its kind's, as they would be published.

    Both are texts, so that keys stay in the order in which the documents have them.
    """

    class State(models.TextChoices):
        """Worked on, proposed to the parts lead, published, or given up."""

        OPEN = "open"
        PROPOSED = "proposed"
        PUBLISHED = "published"
        GIVEN_UP = "given_up"

    id = models.UUIDField(primary_key=True, default=uuid4)
    depot = models.ForeignKey(Depot, on_delete=models.PROTECT, related_name="drafts")
    base = models.ForeignKey(BoardRevision, on_delete=models.PROTECT, related_name="+")
    family_base = models.ForeignKey(FamilyRevision, on_delete=models.PROTECT, related_name="+")
    part_number = models.CharField(max_length=80)
    board_text = models.TextField()
    family_text = models.TextField()
    state = models.CharField(max_length=12, choices=State.choices, default=State.OPEN)
    note = models.CharField(max_length=2000, blank=True, help_text="What was said with the last step.")
    version = models.PositiveIntegerField(default=0, help_text="The number of its last edit.")
    started_by = models.ForeignKey(Person, on_delete=models.PROTECT, related_name="+")
    started_at = models.DateTimeField()
    touched_by = models.ForeignKey(Person, on_delete=models.PROTECT, related_name="+")
    touched_at = models.DateTimeField()

    class Meta:
        ordering = ["-touched_at", "id"]
        constraints = [
            models.UniqueConstraint(fields=["depot", "part_number"], condition=LIVE, name="draft_live_once"),
            models.CheckConstraint(
                name="draft_state_known", condition=models.Q(state__in=["open", "proposed", "published", "given_up"])
            ),
        ]
        indexes = [models.Index(fields=["depot", "-touched_at"], name="drafts_of_depot")]

    @property
    def live(self) -> bool:
        """Whether it is still worked on."""
        return self.state in (self.State.OPEN, self.State.PROPOSED)

    @property
    def board(self) -> Board:
        """The board that it would be the next revision of."""
        return self.base.board


class Edit(models.Model):
    """Something that somebody changed in a draft: only ever added. `path`, `before` and `after` are JSON texts."""

    draft = models.ForeignKey(Draft, on_delete=models.CASCADE, related_name="edits")
    number = models.PositiveIntegerField()
    by = models.ForeignKey(Person, on_delete=models.PROTECT, related_name="+")
    at = models.DateTimeField()
    path = models.TextField()
    before = models.TextField()
    after = models.TextField()
    act = models.UUIDField(db_index=True, help_text="The id that the client made for it; edits of one act share it.")
    undoes = models.OneToOneField("self", on_delete=models.PROTECT, null=True, related_name="undone_by")

    class Meta:
        ordering = ["-number"]
        constraints = [models.UniqueConstraint(fields=["draft", "number"], name="edit_number_once")]
