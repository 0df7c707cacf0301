"""Sessions as Django keeps them, read together with the person whose they are and their depot: one question to the database instead of three."""

from collections.abc import Sequence
from typing import Any, NamedTuple, TypeVar

from django.contrib.sessions.backends.db import SessionStore as DatabaseSessions
from django.db import DEFAULT_DB_ALIAS, connection
from django.db.models import Model
from django.utils import timezone

from people.models import Depot, Person

Row = TypeVar("Row", bound=Model)
PERSON, DEPOT = (list(model._meta.concrete_fields) for model in (Person, Depot))
READ = f"""
select session.session_data, {", ".join(f"person.{field.column}" for field in PERSON)}, {", ".join(f"depot.{field.column}" for field in DEPOT)}
from django_session session
left join people_signedin signed on signed.session_key = session.session_key
left join people_person person on person.id = signed.person_id
left join people_depot depot on depot.id = person.depot_id
where session.session_key = %s and session.expire_date > %s
"""


class Read(NamedTuple):
    """What is read of a session."""

    session_data: str


class SessionStore(DatabaseSessions):
    """A session; `person` is whose it is by the list of sign-ins, where it stands there. Whether it is theirs is asked elsewhere."""

    person: Person | None = None

    def _get_session_from_db(self) -> Any:
        with connection.cursor() as cursor:
            cursor.execute(READ, [self.session_key, timezone.now()])
            row = cursor.fetchone()
        if row is None:
            self._session_key = None
            return None
        if row[1] is not None:
            self.person = _made(Person, PERSON, row[1 : 1 + len(PERSON)])
            if self.person.depot_id is not None:
                self.person.depot = _made(Depot, DEPOT, row[1 + len(PERSON) :])
        return Read(row[0])


def _made(model: type[Row], fields: list[Any], values: Sequence[Any]) -> Row:
    """A row as Django makes it, with what a field makes of its column."""
    read = [
        field.from_db_value(value, None, connection) if hasattr(field, "from_db_value") else value
        for field, value in zip(fields, values, strict=True)
    ]
    return model.from_db(DEFAULT_DB_ALIAS, [field.attname for field in fields], read)
