import uuid

import django.db.models.deletion
from django.conf import settings
from django.db import migrations, models


class Migration(migrations.Migration):
    dependencies = [("jobs", "0002_pictures"), migrations.swappable_dependency(settings.AUTH_USER_MODEL)]

    operations = [
        migrations.AddField("job", "machine_key", models.CharField(default="", help_text="The machine's name as machines are told apart by it.", max_length=200), preserve_default=False),
        migrations.AddField("job", "origin", models.JSONField(help_text="Where it was imported from: id, number and depot there, and when.", null=True)),
        migrations.AddField("entry", "by_name", models.CharField(default="", help_text="Who it was, as that person was called then.", max_length=320), preserve_default=False),
        migrations.AddField("entry", "known_as", models.UUIDField(null=True)),
        migrations.AddField("entry", "attachment", models.CharField(blank=True, default="", help_text="The digest of what the entry brings along.", max_length=64), preserve_default=False),
        migrations.AddField("entry", "digest", models.CharField(default="", max_length=64), preserve_default=False),
        migrations.AlterField("entry", "by", models.ForeignKey(null=True, on_delete=django.db.models.deletion.PROTECT, related_name="+", to=settings.AUTH_USER_MODEL)),
        migrations.AddField("picture", "name", models.UUIDField(default=uuid.uuid4, help_text="What the job's entries call it: the id that the client made."), preserve_default=False),
        migrations.AlterField("picture", "id", models.UUIDField(default=uuid.uuid4, primary_key=True, serialize=False)),
        migrations.AlterField("picture", "added_by", models.ForeignKey(null=True, on_delete=django.db.models.deletion.PROTECT, related_name="+", to=settings.AUTH_USER_MODEL)),
    ]
