"""Which steps somebody has ended before is asked whenever that person opens a job."""

from django.db import migrations, models


class Migration(migrations.Migration):
    dependencies = [("jobs", "0006_adds")]

    operations = [
        migrations.AddIndex(
            "entry",
            models.Index(
                fields=["by", "target"],
                name="steps_of_person",
                condition=models.Q(target__startswith="confirmed.")
                | models.Q(target__in=["original", "replacement"]),
            ),
        )
    ]
