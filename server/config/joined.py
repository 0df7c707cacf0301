"""Rows of a model together with rows that they point at, read by one statement that is written down once.

A queryset with `select_related` makes its SQL anew for every question, which takes several times as long as asking. Here the
columns are listed once; what is asked is SQL.
"""

from collections.abc import Sequence
from functools import cached_property
from typing import Any, Generic, NamedTuple, TypeVar

from django.db import connection
from django.db.models import Field, Model

M = TypeVar("M", bound=Model)


class _Part(NamedTuple):
    """One table of a statement: where its row goes, what it is read into, and which columns those are."""

    path: tuple[str, ...]
    model: type[Model]
    fields: "list[Field[Any, Any]]"

    @property
    def alias(self) -> str:
        return "__".join(self.path) or "it"


class Joined(Generic[M]):
    """Rows of `model`, which the SQL calls `it`, with those under the paths `beside`, called by their path.

    `left_out` names columns that stay in the database, by path and field, such as `"current__document"`; they are read when
    somebody looks at them.
    """

    def __init__(self, model: type[M], beside: Sequence[str] = (), left_out: Sequence[str] = ()) -> None:
        self._model, self._beside, self._left_out = model, [tuple(each.split("__")) for each in beside], set(left_out)

    @cached_property
    def _parts(self) -> list[_Part]:
        found = [self._part((), self._model)]
        for path in self._beside:
            holder = next(each.model for each in found if each.path == path[:-1])
            model = holder._meta.get_field(path[-1]).related_model
            assert isinstance(model, type)
            found.append(self._part(path, model))
        return found

    def _part(self, path: tuple[str, ...], model: type[Model]) -> _Part:
        fields = [each for each in model._meta.concrete_fields if "__".join((*path, each.name)) not in self._left_out]
        return _Part(path, model, fields)

    @cached_property
    def _sql(self) -> str:
        columns = ", ".join(f'{part.alias}."{each.column}"' for part in self._parts for each in part.fields)
        tables = f'"{self._model._meta.db_table}" it'
        for part in self._parts[1:]:
            holder = next(each for each in self._parts if each.path == part.path[:-1])
            column, key = holder.model._meta.get_field(part.path[-1]).column, part.model._meta.pk.column  # type: ignore[union-attr]
            tables += f' left join "{part.model._meta.db_table}" {part.alias} on {part.alias}."{key}" = {holder.alias}."{column}"'
        return f"select {columns} from {tables} "

    @cached_property
    def _readers(self) -> list[tuple[_Part, list[str], slice, int, list[tuple[int, Any]]]]:
        """For each part: the names of its columns, where they are in a row and its key among them, and what reads a value."""
        found, at = [], 0
        for part in self._parts:
            names = [each.attname for each in part.fields]
            key = at + next(index for index, each in enumerate(part.fields) if each.primary_key)
            reading = [
                (index, each.from_db_value) for index, each in enumerate(part.fields) if hasattr(each, "from_db_value")
            ]
            found.append((part, names, slice(at, at + len(names)), key, reading))
            at += len(names)
        return found

    def __call__(self, rest: str, *values: Any) -> list[M]:
        """The rows for the rest of a statement: `"where it.id = %s"` and the like, and its values."""
        with connection.cursor() as cursor:
            cursor.execute(self._sql + rest, values)
            return [self._read(row) for row in cursor.fetchall()]

    def first(self, rest: str, *values: Any) -> M | None:
        """The first of the rows; None where there is none."""
        return next(iter(self(f"{rest} limit 1", *values)), None)

    def hold(self, rest: str, *values: Any) -> M | None:
        """The first of the rows, which nobody else changes until the transaction ends. Raises RuntimeError where none is open."""
        if not connection.in_atomic_block:
            raise RuntimeError("A row is held until a transaction ends, and none is open.")
        return self.first(f"{rest} for update of it", *values)

    def _read(self, row: tuple[Any, ...]) -> M:
        found: dict[tuple[str, ...], Any] = {}
        for part, names, among, key, reading in self._readers:
            if row[key] is None:
                made = None
            else:
                given = list(row[among])
                for index, read in reading:
                    given[index] = read(given[index], None, connection)
                made = part.model.from_db(connection.alias, names, given)
            found[part.path] = made
            if part.path and (holder := found[part.path[:-1]]) is not None:
                setattr(holder, part.path[-1], made)
        it: M = found[()]
        return it
