"""Chain the entries that were made before there was a chain, as they stand now."""

from datetime import UTC

from django.db import migrations
from twincore.chain import first_link, link


def fill(apps, schema_editor):
    Job, Entry, Picture = (apps.get_model("jobs", name) for name in ("Job", "Entry", "Picture"))
    for picture in Picture.objects.iterator():
        picture.name = picture.pk
        picture.save(update_fields=["name"])
    digests = {str(p.name): p.digest for p in Picture.objects.iterator()}
    for job in Job.objects.only("machine").iterator():
        job.machine_key = " ".join(job.machine.split()).casefold()
        job.save(update_fields=["machine_key"])
        previous = first_link(str(job.pk))
        changed = []
        for entry in Entry.objects.filter(job=job).select_related("by").order_by("number"):
            entry.by_name = f"{entry.by.first_name} {entry.by.last_name}".strip() or entry.by.username
            kind, _, name = entry.target.partition(".")
            entry.attachment = digests.get(name, "") if kind == "picture" and entry.after is not None else ""
            node = {name: getattr(entry, name) for name in ("number", "target", "before", "after", "reason", "read_how", "attachment")}
            at = entry.at.astimezone(UTC).isoformat(timespec="milliseconds")
            previous = entry.digest = link(previous, {**node, "id": str(entry.pk), "at": at, "by": entry.by_name})
            changed.append(entry)
        Entry.objects.bulk_update(changed, ["by_name", "attachment", "digest"], batch_size=500)


class Migration(migrations.Migration):
    dependencies = [("jobs", "0003_chain")]

    operations = [migrations.RunPython(fill, migrations.RunPython.noop)]
