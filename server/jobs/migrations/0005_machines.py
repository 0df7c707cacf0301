from django.db import migrations, models


class Migration(migrations.Migration):
    dependencies = [("jobs", "0004_chain_filled"), ("people", "0003_carry_policies")]

    operations = [
        migrations.AddIndex("job", models.Index(fields=["depot", "machine_key", "-opened_at"], name="jobs_of_machine")),
        migrations.AddIndex("job", models.Index(fields=["depot", "closed_at"], name="closed_jobs_of_depot")),
        migrations.AddConstraint("picture", models.UniqueConstraint(fields=("job", "name"), name="picture_name_once")),
    ]
