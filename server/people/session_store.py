"""Sessions as Django keeps them, read together with the person whose they are: one question to the database instead of two."""

from typing import Any, NamedTuple

from django.contrib.sessions.backends.db import SessionStore as DatabaseSessions
from django.db import connection
from django.utils import timezone

from people.models import Person

FIELDS = list(Person._meta.concrete_fields)
READ = f"""
select session.session_data, {", ".join(f'person."{field.column}"' for field in FIELDS)}
from django_session session
left join people_signedin signed on signed.session_key = session.session_key
left join people_person person on person.id = signed.person_id
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
            self.person = Person.from_db("default", [field.attname for field in FIELDS], row[1:])
        return Read(row[0])
