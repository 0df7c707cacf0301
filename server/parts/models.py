"""What the parts desk said last, kept with its age."""

from django.db import models


class Offer(models.Model):
    """The last answer about one part; what a later question could not find out does not wipe it out."""

    part_number = models.CharField(max_length=700, unique=True)
    price = models.DecimalField(max_digits=10, decimal_places=2, null=True)
    stock = models.PositiveIntegerField(null=True)
    on_van = models.BooleanField(default=False)
    days = models.FloatField(null=True)
    unknown = models.BooleanField(default=False, help_text="The desk answered that it does not know this part.")
    answered_at = models.DateTimeField(null=True)
    asked_at = models.DateTimeField(null=True)
    fault = models.CharField(max_length=200, blank=True, help_text="Why the last question was not answered.")

    class Meta:
        ordering = ["part_number"]
