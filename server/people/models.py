"""Depots and the people who work for them."""

from django.contrib.auth.models import AbstractUser
from django.db import models

from twincore.make_safe import USUAL_V


class Depot(models.Model):
    """A depot whose vans look after machines; jobs belong to it."""

    name = models.CharField(max_length=120, unique=True)
    code = models.CharField(max_length=8, unique=True, help_text="Stands before the numbers of its jobs.")

    rule_out_school = models.CharField(max_length=24, default="prove first")
    change_companions = models.BooleanField(default=True, help_text="Companions are changed along with a board.")
    school_when_agreed = models.CharField(max_length=16, default="functions")
    school_when_not = models.CharField(max_length=16, default="functions")
    second_person = models.BooleanField(default=False, help_text="A second person signs each job off.")
    dead_v = models.FloatField(
        default=USUAL_V, help_text="Volts that an instrument may still show of a machine that is dead."
    )
    assumptions = models.JSONField(
        default=dict, help_text="The figures for sums of costs that the depot entered itself."
    )
    currency = models.CharField(
        max_length=3, blank=True, default="", help_text="ISO 4217, such as EUR; empty for none."
    )
    locale = models.CharField(max_length=12, default="en-gb", help_text="How its papers write numbers.")

    def __str__(self) -> str:
        return self.name


class Person(AbstractUser):
    """Somebody who signs in; sees the jobs of one depot only."""

    class Role(models.TextChoices):
        """What a person may do beyond jobs: a parts lead keeps the catalogue."""

        TECHNICIAN = "technician"
        PARTS_LEAD = "parts_lead"

    depot = models.ForeignKey(Depot, on_delete=models.PROTECT, related_name="people", null=True)
    role = models.CharField(max_length=16, choices=Role.choices, default=Role.TECHNICIAN)

    tries_from = models.DateTimeField(null=True, help_text="Wrong passwords before this do not count any more.")

    class Meta:
        constraints = [
            models.CheckConstraint(name="person_role_known", condition=models.Q(role__in=["technician", "parts_lead"]))
        ]

    @property
    def shown_name(self) -> str:
        """The name that others see."""
        return self.get_full_name() or self.username

    @property
    def keeps_catalogue(self) -> bool:
        """Whether this person may load boards and families."""
        return self.role == self.Role.PARTS_LEAD


class Sent(models.Model):
    """How much a person uploaded in the hour that runs."""

    person = models.OneToOneField(Person, on_delete=models.CASCADE, primary_key=True, related_name="+")
    hour = models.DateTimeField()
    bytes = models.PositiveBigIntegerField(default=0)


class SignedIn(models.Model):
    """A session of somebody: since when, and from what."""

    session_key = models.CharField(max_length=40, primary_key=True)
    person = models.ForeignKey(Person, on_delete=models.CASCADE, related_name="signed_in")
    at = models.DateTimeField()
    address = models.GenericIPAddressField(null=True)
    on_a_phone = models.BooleanField(default=False)

    class Meta:
        ordering = ["-at"]


class LostDevice(models.Model):
    """A session that a lead ended because its device is lost: at its next contact it is told to forget everything."""

    session_key = models.CharField(max_length=40, primary_key=True)
    at = models.DateTimeField()


class Taken(models.Model):
    """A file that somebody took away."""

    person = models.ForeignKey(Person, on_delete=models.PROTECT, related_name="+")
    at = models.DateTimeField()
    name = models.CharField(max_length=200)
    address = models.GenericIPAddressField(null=True)

    class Meta:
        indexes = [models.Index(fields=["person", "-at"], name="taken_by_person")]
