"""The catalogue that all depots share: families and boards, each with revisions that never change."""

from typing import Any, Self

from django.contrib.postgres.fields import ArrayField
from django.contrib.postgres.indexes import GinIndex
from django.db import models

from people.models import Depot, Person
from pictures.models import KeptPicture
from twincore.recognise import code_of, normal_form, with_one_left_out, without_look_alikes


class OwnedRows(models.QuerySet[Any]):
    """Rows that all depots share, and rows of one of them."""

    def seen_by(self, depot: int | None) -> Self:
        """What people of a depot see: all that is shared, and their own."""
        return self.filter(models.Q(depot=None) | models.Q(depot=depot))


class Owned(models.Model):
    """Something of the catalogue that all depots share, or that is one depot's own."""

    depot = models.ForeignKey(
        Depot,
        on_delete=models.PROTECT,
        null=True,
        related_name="+",
        help_text="Whose own it is; none where it is shared.",
    )

    objects = OwnedRows.as_manager()

    class Meta:
        abstract = True


SKETCHED = ("size_mm", "holes", "look", "connectors", "layout")


class Family(Owned):
    """A family of boards, known by the id that its document gives."""

    code = models.CharField(max_length=80, primary_key=True)
    title = models.CharField(max_length=2000)
    current = models.ForeignKey("FamilyRevision", on_delete=models.PROTECT, null=True, related_name="+")


class Revision(models.Model):
    """One state of a document, kept as it was loaded."""

    number = models.PositiveIntegerField()
    document = models.BinaryField()
    digest = models.CharField(max_length=64)
    loaded_at = models.DateTimeField()
    loaded_by = models.ForeignKey(Person, on_delete=models.PROTECT, null=True, related_name="+")

    class Meta:
        abstract = True
        ordering = ["-number"]


class FamilyRevision(Revision):
    """One state of a family."""

    family = models.ForeignKey(Family, on_delete=models.PROTECT, related_name="revisions")

    class Meta(Revision.Meta):
        constraints = [models.UniqueConstraint(fields=["family", "number"], name="family_revision_once")]


class Board(Owned):
    """A board, known by its part number; a depot's own stands before a shared one of the same number."""

    part_number = models.CharField(max_length=80, db_index=True)
    family = models.ForeignKey(Family, on_delete=models.PROTECT, related_name="boards")
    maker = models.CharField(max_length=80)
    title = models.CharField(max_length=2000)
    status = models.CharField(max_length=16)
    settings_layout = models.CharField(max_length=80, null=True, db_index=True)
    traits = models.JSONField(default=dict, help_text="What fitting looks at, of the current revision.")
    features = models.JSONField(default=dict, help_text="What can be seen on it, of the current revision.")
    withdrawn = models.JSONField(null=True, help_text="Why it is not to be used any more: why, successor, by, at.")
    current = models.ForeignKey("BoardRevision", on_delete=models.PROTECT, null=True, related_name="+")

    class Meta:
        ordering = ["part_number", "pk"]
        indexes = [models.Index(fields=["maker", "part_number"], name="board_by_maker")]
        constraints = [
            models.CheckConstraint(
                name="board_status_known", condition=models.Q(status__in=["current", "discontinued"])
            ),
            models.UniqueConstraint(fields=["part_number"], name="shared_board_once", condition=models.Q(depot=None)),
            models.UniqueConstraint(
                fields=["depot", "part_number"], name="own_board_once", condition=models.Q(depot__isnull=False)
            ),
        ]

    @property
    def sketch(self) -> dict[str, Any]:
        """What a drawing of it takes: size, holes, parts and where they sit, what it looks like."""
        return {name: self.traits[name] for name in SKETCHED if name in self.traits}


class BoardRevision(Revision):
    """One state of a board, checked against the family revision that was current then."""

    board = models.ForeignKey(Board, on_delete=models.PROTECT, related_name="revisions")
    family_revision = models.ForeignKey(FamilyRevision, on_delete=models.PROTECT, related_name="+")

    class Meta(Revision.Meta):
        constraints = [models.UniqueConstraint(fields=["board", "number"], name="board_revision_once")]


class Marking(models.Model):
    """Something printed on a board that says which one it is, in the forms that searches use."""

    board = models.ForeignKey(Board, on_delete=models.CASCADE, related_name="markings")
    text = models.CharField(max_length=80)
    normal = models.CharField(max_length=80, db_index=True)
    folded = models.CharField(max_length=80, db_index=True)
    lacking = ArrayField(
        models.IntegerField(), default=list, help_text="The folded form with each one of its places left out, as codes."
    )

    @classmethod
    def of(cls, board: Board, text: str) -> Self:
        """What is printed on a board, in every form that searches use."""
        folded = without_look_alikes(text)
        lacking = [code_of(each) for each in with_one_left_out(folded)]
        return cls(board=board, text=text, normal=normal_form(text), folded=folded, lacking=lacking)

    class Meta:
        ordering = ["id"]
        constraints = [models.UniqueConstraint(fields=["board", "text"], name="marking_once")]
        indexes = [
            GinIndex(fields=["folded"], name="marking_trigrams", opclasses=["gin_trgm_ops"]),
            GinIndex(fields=["lacking"], name="marking_lacking"),
        ]


class Guide(models.Model):
    """What a family or maker knows besides its boards: rule-out data of a family, nameplate schemes of a maker."""

    class Kind(models.TextChoices):
        """The formats of guides."""

        RULE_OUT = "rule-out"
        NAMEPLATES = "nameplates"
        ADAPTERS = "adapters"

    kind = models.CharField(max_length=16, choices=Kind.choices)
    name = models.CharField(max_length=80, help_text="The family's id, or the maker.")
    current = models.ForeignKey("GuideRevision", on_delete=models.PROTECT, null=True, related_name="+")

    class Meta:
        ordering = ["kind", "name"]
        constraints = [
            models.UniqueConstraint(fields=["kind", "name"], name="guide_once"),
            models.CheckConstraint(
                name="guide_kind_known", condition=models.Q(kind__in=["rule-out", "nameplates", "adapters"])
            ),
        ]


class GuideRevision(Revision):
    """One state of a guide."""

    guide = models.ForeignKey(Guide, on_delete=models.PROTECT, related_name="revisions")

    class Meta(Revision.Meta):
        constraints = [models.UniqueConstraint(fields=["guide", "number"], name="guide_revision_once")]


class BoardPicture(KeptPicture):
    """A picture of a board, plate or leaflet that a depot took."""

    class Of(models.TextChoices):
        """What it shows."""

        BOARD = "board"
        PLATE = "plate"
        LEAFLET = "leaflet"

    id = models.UUIDField(primary_key=True)
    depot = models.ForeignKey(Depot, on_delete=models.PROTECT, related_name="+")
    part_number = models.CharField(max_length=80, help_text="The board's; a depot's own and a shared one share them.")
    of = models.CharField(max_length=8, choices=Of.choices)
    under = models.BooleanField(default=False, help_text="It lies under the board's drawing.")

    class Meta(KeptPicture.Meta):
        indexes = [models.Index(fields=["depot", "part_number"], name="pictures_of_board")]
        constraints = [
            models.CheckConstraint(
                name="board_picture_of_known", condition=models.Q(of__in=["board", "plate", "leaflet"])
            ),
            models.UniqueConstraint(
                fields=["depot", "part_number"], condition=models.Q(under=True), name="one_picture_under"
            ),
        ]
