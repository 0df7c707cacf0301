"""How much the entries of a job say."""

from django.db import migrations, models

COUNTED = """
update jobs_job set said = coalesce((select sum(octet_length(concat(before::text, after::text, adds::text, reason)))
  from jobs_entry where jobs_entry.job_id = jobs_job.id), 0)
"""


class Migration(migrations.Migration):
    dependencies = [("jobs", "0010_catalogue_changes")]
    operations = [
        migrations.AddField(
            "job", "said", models.PositiveIntegerField(default=0, help_text="Bytes of what its entries say, as JSON."),
        ),
        migrations.RunSQL(COUNTED, migrations.RunSQL.noop),
    ]  # fmt: skip
