"""What people did in practice, what they can do by it, and the groups that a trainer looks after."""

from uuid import uuid4

from django.db import models

from people.models import Depot, Person


class Attempt(models.Model):
    """A task that somebody ended: what was done in it, and what came of it. The id is made by the client."""

    id = models.UUIDField(primary_key=True, default=uuid4)
    person = models.ForeignKey(Person, on_delete=models.CASCADE, related_name="attempts")
    level = models.CharField(max_length=8)
    task = models.JSONField(help_text="What makes it: level, seed, and the boards in their revisions.")
    title = models.CharField(max_length=200)
    actions = models.JSONField(default=list)
    right = models.BooleanField()
    wrong_rows = models.PositiveIntegerField(default=0)
    rows = models.PositiveIntegerField(default=0)
    seconds = models.FloatField(help_text="How long it took.")
    at = models.DateTimeField()

    class Meta:
        ordering = ["-at", "-pk"]
        indexes = [models.Index(fields=["person", "-at"], name="attempts_of_a_person")]


class SkillHeld(models.Model):
    """What somebody can do: an estimate, and when it is to be practised again."""

    person = models.ForeignKey(Person, on_delete=models.CASCADE, related_name="skills")
    skill = models.CharField(max_length=20)
    known = models.FloatField()
    times = models.PositiveIntegerField(default=0)
    ease = models.FloatField()
    days = models.FloatField(default=0.0)
    due = models.DateTimeField(null=True)

    class Meta:
        ordering = ["skill"]
        constraints = [models.UniqueConstraint(fields=["person", "skill"], name="skill_of_a_person_once")]


class Group(models.Model):
    """People whom a trainer looks after, with the tasks set for them."""

    id = models.UUIDField(primary_key=True, default=uuid4)
    depot = models.ForeignKey(Depot, on_delete=models.CASCADE, related_name="groups_of_learners")
    name = models.CharField(max_length=80)
    members = models.ManyToManyField(Person, related_name="groups_of_learners")
    tasks = models.JSONField(
        default=list, help_text="What makes each of them, in the order in which they are to be done."
    )

    class Meta:
        ordering = ["name"]
        constraints = [models.UniqueConstraint(fields=["depot", "name"], name="group_name_once")]
