"""Sessions as Django keeps them, read together with the person whose they are and their depot: one question to the database instead of three."""

from typing import Any, NamedTuple

from django.contrib.sessions.backends.db import SessionStore as DatabaseSessions
from django.db import connection
from django.utils import timezone

from people.models import Depot, Person

PERSON, DEPOT = ([field.attname for field in model._meta.concrete_fields] for model in (Person, Depot))
READ = f"""
select session.session_data, {", ".join(f"{table}.{column}" for table, columns in (("person", PERSON), ("depot", DEPOT)) for column in columns)}
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
            self.person = Person.from_db("default", PERSON, row[1 : 1 + len(PERSON)])
            if self.person.depot_id is not None:
                self.person.depot = Depot.from_db("default", DEPOT, row[1 + len(PERSON) :])
        return Read(row[0])
