"""Vans, the machines that they look after, what is on their shelves, who serves whom, and plans."""

from uuid import uuid4

from django.db import models
from django.db.models import F, Q

from people.models import Depot, Person


class Van(models.Model):
    """A van with its shelf, and whose it is."""

    id = models.UUIDField(primary_key=True, default=uuid4)
    depot = models.ForeignKey(Depot, on_delete=models.PROTECT, related_name="vans")
    name = models.CharField(max_length=80)
    driver = models.ForeignKey(Person, on_delete=models.PROTECT, null=True, related_name="vans")
    budget = models.FloatField(null=True, help_text="The value of what is in it at most.")
    shelf = models.FloatField(null=True, help_text="The size of what is in it at most, in places.")

    class Meta:
        ordering = ["name"]
        constraints = [
            models.UniqueConstraint(fields=["depot", "name"], name="van_name_once"),
            models.UniqueConstraint(fields=["driver"], name="van_of_a_driver_once"),
        ]


class Apart(models.Model):
    """How long it usually takes from one van to another, either way."""

    van = models.ForeignKey(Van, on_delete=models.CASCADE, related_name="+")
    other = models.ForeignKey(Van, on_delete=models.CASCADE, related_name="+")
    minutes = models.PositiveIntegerField()

    class Meta:
        constraints = [
            models.UniqueConstraint(fields=["van", "other"], name="apart_once"),
            models.CheckConstraint(name="apart_in_order", condition=Q(van__lt=F("other"))),
        ]


class Served(models.Model):
    """Machines of one kind that a van looks after, and what was counted of them."""

    van = models.ForeignKey(Van, on_delete=models.CASCADE, related_name="served")
    board = models.CharField(max_length=80)
    machines = models.PositiveIntegerField()
    failed = models.FloatField(default=0.0)
    years = models.FloatField(default=0.0, help_text="Machine-years that were counted.")
    facts = models.JSONField(default=dict)

    class Meta:
        ordering = ["van__name", "board", "pk"]


class Priced(models.Model):
    """What a piece costs this depot, and how much of a shelf it takes."""

    depot = models.ForeignKey(Depot, on_delete=models.CASCADE, related_name="+")
    piece = models.CharField(max_length=700)
    cost = models.FloatField()
    size = models.FloatField(default=1.0)
    most = models.PositiveIntegerField(default=3)

    class Meta:
        ordering = ["piece"]
        constraints = [models.UniqueConstraint(fields=["depot", "piece"], name="piece_priced_once")]


class Held(models.Model):
    """So many of a piece are in a van, and so many should be by the plan that was taken."""

    van = models.ForeignKey(Van, on_delete=models.CASCADE, related_name="held")
    piece = models.CharField(max_length=700)
    count = models.PositiveIntegerField(default=0)
    wanted = models.PositiveIntegerField(null=True, help_text="By the plan that was taken; none where none was.")

    class Meta:
        ordering = ["piece"]
        constraints = [models.UniqueConstraint(fields=["van", "piece"], name="held_once")]
        indexes = [models.Index(fields=["piece"], name="who_has_a_piece")]


class Moved(models.Model):
    """Something that came onto a shelf or off it: only ever added. The id is made by the client, so that sending twice adds once."""

    class Why(models.TextChoices):
        """What it was."""

        COUNTED = "counted"
        PUT_IN = "put in"
        TAKEN_OUT = "taken out"
        USED = "used"
        FROM_LIST = "from a list"

    id = models.UUIDField(primary_key=True, default=uuid4)
    van = models.ForeignKey(Van, on_delete=models.CASCADE, related_name="moves")
    piece = models.CharField(max_length=700)
    change = models.IntegerField()
    left = models.PositiveIntegerField(help_text="How many were there afterwards.")
    why = models.CharField(max_length=12, choices=Why.choices)
    job = models.UUIDField(null=True, help_text="The job that it was used in.")
    job_code = models.CharField(max_length=20, blank=True)
    at = models.DateTimeField()
    by_name = models.CharField(max_length=320)

    class Meta:
        ordering = ["-at", "-pk"]
        constraints = [
            models.CheckConstraint(
                name="moved_for_a_known_reason",
                condition=Q(why__in=["counted", "put in", "taken out", "used", "from a list"]),
            ),
            models.UniqueConstraint(fields=["job", "piece"], name="used_once_a_job", condition=Q(why="used")),
        ]
        indexes = [models.Index(fields=["van", "-at"], name="moves_of_a_van")]


class Fed(models.Model):
    """A closed job that the list of machines served has heard of."""

    job = models.UUIDField(primary_key=True)
    at = models.DateTimeField()


class Judged(models.Model):
    """Who serves machines of one kind, and how well, as it was judged; kept as long as nothing changes that it hangs on."""

    depot = models.ForeignKey(Depot, on_delete=models.CASCADE, related_name="+")
    board = models.CharField(max_length=80)
    facts = models.CharField(max_length=64, help_text="The digest of the machine's facts.")
    version = models.CharField(max_length=40, help_text="Of all that it hangs on.")
    grades = models.JSONField(default=dict, help_text="Pieces with their grades.")
    known = models.BooleanField(help_text="Whether the board has a profile in a kind of machine.")
    at = models.DateTimeField()

    class Meta:
        constraints = [models.UniqueConstraint(fields=["depot", "board", "facts"], name="judged_once")]


class Plan(models.Model):
    """A plan that somebody asked for, and how far it is."""

    class State(models.TextChoices):
        """Where a plan stands."""

        WAITING = "waiting"
        JUDGING = "judging"
        PLANNING = "planning"
        DONE = "done"
        STOPPED = "stopped"
        FAILED = "failed"

    id = models.UUIDField(primary_key=True, default=uuid4)
    depot = models.ForeignKey(Depot, on_delete=models.CASCADE, related_name="plans")
    state = models.CharField(max_length=12, choices=State.choices, default=State.WAITING)
    share = models.FloatField(default=0.0, help_text="How far the part of the work is that its state names.")
    asked = models.JSONField(default=dict)
    found = models.JSONField(null=True)
    fault = models.CharField(max_length=2000, blank=True)
    stop_wanted = models.BooleanField(default=False)
    asked_at = models.DateTimeField()
    asked_by = models.ForeignKey(Person, on_delete=models.PROTECT, null=True, related_name="+")
    ended_at = models.DateTimeField(null=True)
    taken_at = models.DateTimeField(null=True, help_text="When the vans were given it as what they should carry.")

    class Meta:
        ordering = ["-asked_at"]
        constraints = [
            models.CheckConstraint(
                name="plan_state_known",
                condition=Q(state__in=["waiting", "judging", "planning", "done", "stopped", "failed"]),
            )
        ]

    @property
    def ended(self) -> bool:
        """Whether nothing more happens to it."""
        return self.state in (self.State.DONE, self.State.STOPPED, self.State.FAILED)
