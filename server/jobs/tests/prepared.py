"""The demo world in the test database, prepared once a process: later it is put back as it was, not made again."""

from datetime import datetime

from django.conf import settings
from django.db import connection, transaction

from jobs.demo import load_demo_world
from people.models import Person

_kept: dict[str, bytes] = {}
_counters: dict[str, int] = {}
NOT_KEPT = {
    "django_migrations", "django_content_type", "auth_permission", "kept_answer", "django_session",
    "procrastinate_events", "procrastinate_workers", "procrastinate_periodic_defers",
}  # fmt: skip
"""Tables that tests leave as they are, or that hold nothing of the world; the queue writes its events by itself."""


def prepare_demo_world(now: datetime) -> None:
    """The demo world in an empty database: loaded the first time, with `now`; afterwards put back as it was then."""
    if Person.objects.exists():
        return
    if _kept:
        _put_back()
        return
    load_demo_world(settings.ROOT / "demo", now, lambda _: None)
    with connection.cursor() as cursor:
        for table in set(connection.introspection.table_names(cursor)) - NOT_KEPT:
            with cursor.copy(f'copy "{table}" to stdout') as rows:
                data = b"".join(bytes(each) for each in rows)
            if data:
                _kept[table] = data
        cursor.execute("select sequencename, last_value from pg_sequences where schemaname = 'public'")
        _counters.update({name: last for name, last in cursor.fetchall() if last is not None})


def _put_back() -> None:
    # rows have the numbers that they had, so that answers which are kept by revision stay true;
    # what refers to what is looked at when the transaction ends: the order of the tables does not matter
    with transaction.atomic(), connection.cursor() as cursor:
        cursor.execute("set constraints all deferred")
        cursor.execute("truncate procrastinate_jobs cascade")  # emptying the database leaves the queue as it was
        for table, data in _kept.items():
            with cursor.copy(f'copy "{table}" from stdin') as rows:
                rows.write(data)
        for name, last in _counters.items():
            cursor.execute("select setval(%s, greatest(%s, (select last_value from pg_sequences where sequencename = %s)))",
                           [f'public."{name}"', last, name])  # fmt: skip
