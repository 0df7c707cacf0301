"""Django's cache in the database, with many answers written in one statement."""

import base64
import pickle
from collections.abc import Callable, Mapping
from datetime import datetime
from typing import Any

from django.core.cache.backends.base import DEFAULT_TIMEOUT
from django.core.cache.backends.db import DatabaseCache
from django.db import connections, router
from django.utils import timezone

FOR_EVER = datetime.max.replace(microsecond=0)


class AnswerStore(DatabaseCache):
    """Answers that never end; where one is kept already, the new one takes its place."""

    _table: str
    _cull: Callable[..., None]

    def set(self, key: Any, value: Any, timeout: float | None = DEFAULT_TIMEOUT, version: int | None = None) -> None:
        """Keep one answer for good."""
        self.set_many({key: value}, timeout, version)

    def set_many(
        self, data: Mapping[Any, Any], timeout: float | None = DEFAULT_TIMEOUT, version: int | None = None
    ) -> list[Any]:
        """Keep many answers for good, all of them or, where the database is away, none. Raises DatabaseError then."""
        if not data:
            return []
        database = router.db_for_write(self.cache_model_class)
        connection = connections[database]
        table = connection.ops.quote_name(self._table)
        rows = [
            (self.make_and_validate_key(key, version=version), _written(value, self.pickle_protocol), FOR_EVER)
            for key, value in sorted(data.items())  # in one order always, so that two writers never wait for each other
        ]
        with connection.cursor() as cursor:
            # counted as the last vacuum found it: to count a large table takes longer than all the rest
            cursor.execute("select reltuples::bigint from pg_class where oid = %s::regclass", [table])
            number = cursor.fetchone()[0]
            if number > self._max_entries:
                self._cull(database, cursor, timezone.now().replace(microsecond=0), number)
            cursor.execute(
                f"insert into {table} (cache_key, value, expires) values {', '.join(['(%s, %s, %s)'] * len(rows))} "
                "on conflict (cache_key) do update set value = excluded.value, expires = excluded.expires",
                [cell for row in rows for cell in row],
            )
        return []


def _written(value: Any, protocol: int) -> str:
    """An answer as Django's cache keeps it in its table."""
    return base64.b64encode(pickle.dumps(value, protocol)).decode("ascii")
