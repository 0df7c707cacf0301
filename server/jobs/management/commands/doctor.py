"""Look whether an installation is in order, and say what to do where it is not."""

import os
from collections.abc import Callable
from datetime import timedelta
from pathlib import Path
from typing import Any
from zipfile import ZipFile

from django.conf import settings
from django.core.management import BaseCommand, CommandError
from django.db import connection
from django.utils import timezone
from procrastinate.contrib.django.models import ProcrastinateWorker

from config.operating import error_of, look_at_database, look_at_storage, look_at_tables

OLDEST_DATABASE = 15
EXTENSIONS = ("pg_trgm",)
DURABLE = ["fsync", "full_page_writes", "synchronous_commit"]
APART = timedelta(seconds=5)
HEARTBEAT = timedelta(minutes=2)


def _version() -> None:
    with connection.cursor() as cursor:
        cursor.execute("select current_setting('server_version_num')::int / 10000")
        (version,) = cursor.fetchone() or (0,)
    if version < OLDEST_DATABASE:
        raise RuntimeError(f"PostgreSQL {version} is too old: upgrade it to {OLDEST_DATABASE} or newer")


def _extensions() -> None:
    with connection.cursor() as cursor:
        cursor.execute("select extname from pg_extension")
        there = {name for (name,) in cursor.fetchall()}
    if missing := [name for name in EXTENSIONS if name not in there]:
        raise RuntimeError(
            f"{', '.join(missing)} is missing: install PostgreSQL's contrib package and run manage.py migrate"
        )


def _keeps_its_word() -> None:
    """What the database acknowledges is on its disk (PostgreSQL's manual, 20.5)."""
    with connection.cursor() as cursor:
        cursor.execute("select name from pg_settings where name = any(%s) and setting = 'off'", [DURABLE])
        off = [name for (name,) in cursor.fetchall()]
    if off:
        raise RuntimeError(f"what it acknowledges can be lost in a power cut: set {', '.join(off)} to on")


def _time() -> None:
    with connection.cursor() as cursor:
        cursor.execute("select clock_timestamp()")
        (at,) = cursor.fetchone() or (None,)
    if at is None or abs(at - timezone.now()) > APART:
        raise RuntimeError(
            f"this machine's clock and the database's are apart (there it is {at:%H:%M:%S}): set both by NTP"
        )


def _uploads() -> None:
    folder = settings.UPLOADS
    folder.mkdir(parents=True, exist_ok=True)
    if not os.access(folder, os.W_OK):
        raise RuntimeError(f"{folder} cannot be written: give it to whoever runs the server, or set TWIN_UPLOADS")


def _queue() -> None:
    if not ProcrastinateWorker.objects.filter(last_heartbeat__gt=timezone.now() - HEARTBEAT).exists():
        raise RuntimeError("nobody works on imports and the parts desk: start manage.py work beside the server")


def _settings() -> None:
    wrong = {
        "TWIN_DEBUG is on: leave it off outside of development": settings.DEBUG,
        "TWIN_SECRET_KEY is short: take 50 random characters": len(settings.SECRET_KEY) < 50,
        "TWIN_HTTPS is off: set it where a proxy speaks TLS": not settings.SESSION_COOKIE_SECURE,
    }
    if told := [words for words, is_so in wrong.items() if is_so]:
        raise RuntimeError("; ".join(told))


def _core_for_browsers() -> None:
    """What jobs on a device without a connection are computed with is handed out, and whole."""
    archives = list(Path(settings.STATIC_ROOT).glob("core/*/core.zip"))
    if not archives:
        raise RuntimeError("it is not built, so that nothing works without a connection: build the web client anew")
    with ZipFile(archives[0]) as archive:
        there = {name.partition("/")[0] for name in archive.namelist()}
    if missing := {"twincore", "twinshown", "pydantic"} - there:
        raise RuntimeError(
            f"it lacks {', '.join(sorted(missing))}: remove web/public/core and build the web client anew"
        )


LOOKS: dict[str, Callable[[], None]] = {
    "database answers": look_at_database, "its version": _version, "its extensions": _extensions, "its tables": look_at_tables,
    "it keeps its word": _keeps_its_word,
    "clocks agree": _time, "pictures can be kept": look_at_storage, "uploads can be kept": _uploads, "queue is worked on": _queue,
    "core for browsers": _core_for_browsers, "settings": _settings,
}  # fmt: skip


class Command(BaseCommand):
    """Every point by itself, with what to do; the end is an error where one is not in order."""

    help = __doc__
    requires_system_checks = ()

    def handle(self, *args: Any, **options: Any) -> None:
        """Look at everything."""
        found = {name: error_of(look) for name, look in LOOKS.items()}
        for name, error in found.items():
            self.stdout.write(f"{name:<22} {'in order' if error is None else error}")
        wrong = [name for name, error in found.items() if error is not None]
        if wrong:
            raise CommandError(f"not in order: {', '.join(wrong)}")
