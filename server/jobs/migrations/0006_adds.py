"""What entries bring along from data that none of them holds."""

from django.db import migrations, models


class Migration(migrations.Migration):
    dependencies = [("jobs", "0005_machines")]

    operations = [
        migrations.AddField(
            "entry", "adds",
            models.JSONField(help_text="What it brings along from data that no entry holds.", null=True),
        ),
    ]
