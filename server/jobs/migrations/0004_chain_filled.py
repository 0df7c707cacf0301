"""Chain the entries that were made before there was a chain, as they stand now."""

import json
from datetime import UTC
from hashlib import sha256

from django.db import migrations

CHAINED = ("id", "number", "at", "by", "target", "before", "after", "reason", "read_how", "attachment")


def digest_of(node):
    """As the chain was defined when this migration was written; later definitions do not reach back here."""
    text = json.dumps(even(node), sort_keys=True, separators=(",", ":"), ensure_ascii=False)
    return sha256(text.encode("utf-8", "surrogatepass")).hexdigest()


def even(node):
    if isinstance(node, dict):
        return {str(key): even(value) for key, value in node.items()}
    if isinstance(node, list | tuple):
        return [even(value) for value in node]
    return int(node) if isinstance(node, float) and node.is_integer() else node


def fill(apps, schema_editor):
    Job, Entry, Picture = (apps.get_model("jobs", name) for name in ("Job", "Entry", "Picture"))
    for picture in Picture.objects.iterator():
        picture.name = picture.pk
        picture.save(update_fields=["name"])
    digests = {str(p.name): p.digest for p in Picture.objects.iterator()}
    for job in Job.objects.only("machine").iterator():
        job.machine_key = " ".join(job.machine.split()).casefold()
        job.save(update_fields=["machine_key"])
        previous = digest_of(["worthy-twin/job", str(job.pk)])
        changed = []
        for entry in Entry.objects.filter(job=job).select_related("by").order_by("number"):
            entry.by_name = f"{entry.by.first_name} {entry.by.last_name}".strip() or entry.by.username
            kind, _, name = entry.target.partition(".")
            entry.attachment = digests.get(name, "") if kind == "picture" and entry.after is not None else ""
            node = {name: getattr(entry, name) for name in ("number", "target", "before", "after", "reason", "read_how", "attachment")}
            at = entry.at.astimezone(UTC).isoformat(timespec="milliseconds")
            node |= {"id": str(entry.pk), "at": at, "by": entry.by_name}
            previous = entry.digest = digest_of([previous, *(node[key] for key in CHAINED)])
            changed.append(entry)
        Entry.objects.bulk_update(changed, ["by_name", "attachment", "digest"], batch_size=500)


class Migration(migrations.Migration):
    dependencies = [("jobs", "0003_chain")]

    operations = [migrations.RunPython(fill, migrations.RunPython.noop)]
