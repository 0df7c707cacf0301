"""Edits of one act share its id; every edit made before is an act of its own."""

from uuid import uuid4

from django.db import migrations, models


def fill(apps, schema_editor):
    for edit in apps.get_model("workshop", "Edit").objects.filter(act=None).only("pk").iterator():
        edit.act = uuid4()
        edit.save(update_fields=["act"])


FIELD = {"db_index": True, "help_text": "The id that the client made for it; edits of one act share it."}


class Migration(migrations.Migration):
    dependencies = [("workshop", "0001_drafts")]

    operations = [
        migrations.AddField("edit", "act", models.UUIDField(null=True, **FIELD)),
        migrations.RunPython(fill, migrations.RunPython.noop),
        migrations.AlterField("edit", "act", models.UUIDField(**FIELD)),
    ]
