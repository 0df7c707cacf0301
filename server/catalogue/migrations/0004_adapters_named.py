"""Adapter leads are a kind of guide like the others; the constraint has known them all along."""

from django.db import migrations, models


class Migration(migrations.Migration):
    dependencies = [("catalogue", "0003_adapters")]

    operations = [
        migrations.AlterField(
            "guide", "kind",
            models.CharField(
                choices=[("rule-out", "Rule Out"), ("nameplates", "Nameplates"), ("adapters", "Adapters")], max_length=16
            ),
        ),
    ]
