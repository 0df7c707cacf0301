"""Boards are listed by maker and drawn in lists: what a drawing takes is read out anew, right after the migrations."""

from django.db import migrations, models


def forget_traits(apps, schema_editor):
    """Let every board's traits be read out of its document again, now with where its parts sit."""
    apps.get_model("catalogue", "Board").objects.update(traits={}, features={})


class Migration(migrations.Migration):
    atomic = False

    dependencies = [("catalogue", "0004_adapters_named")]

    operations = [
        migrations.AddIndex("board", models.Index(fields=["maker", "part_number"], name="board_by_maker")),
        migrations.RunPython(forget_traits, migrations.RunPython.noop),
    ]
