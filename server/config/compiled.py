"""Queries that are asked many times a second: their SQL is made once.

Django makes the SQL of a queryset anew for every question, which for a row with those it points at takes several times as
long as asking. Here a queryset is written as everywhere, for example values; what differs from then on are the values.
"""

from collections.abc import Callable
from copy import copy
from functools import cached_property
from types import SimpleNamespace
from typing import Any, Generic, NamedTuple, TypeVar

from django.contrib.postgres.fields import ArrayField
from django.db import DEFAULT_DB_ALIAS, connection
from django.db.models import CharField, Lookup, QuerySet
from django.db.models.sql.compiler import SQLCompiler

Row = TypeVar("Row")


@CharField.register_lookup
class AnyOf(Lookup):
    """`name__any=[…]`: as `name__in`, with all the values as one parameter, so that the SQL is the same however many there are."""

    lookup_name = "any"
    prepare_rhs = False
    words = "{} = any(%s)"

    def as_sql(self, compiler: SQLCompiler, connection: Any) -> tuple[str, list[Any]]:  # type: ignore[override]
        """The lookup in PostgreSQL's words."""
        left, given = self.process_lhs(compiler, connection)
        return self.words.format(left), [*given, list(self.rhs)]


@ArrayField.register_lookup
class SharesAny(AnyOf):
    """`names__any=[…]`: as `names__overlap`, with all the values as one parameter."""

    words = "{} && (%s)::varchar[]"


class _Place(str):
    """Where in the SQL the value of a name goes."""


class _Made(NamedTuple):
    rows: QuerySet[Any, Any]
    compiler: SQLCompiler
    sql: str
    parameters: list[Any]
    converters: dict[int, Any]


class Compiled(Generic[Row]):
    """A queryset of models or of `values_list`, whose SQL is made when it is first asked.

    `rows` makes the queryset of its named values. `examples` has one value for each name, which the SQL takes as a parameter:
    told from the others by its kind and by what it is. Raises ValueError where one is no parameter.
    """

    def __init__(self, rows: Callable[..., QuerySet[Any, Row]], **examples: Any) -> None:
        self._rows, self._examples = rows, examples

    @cached_property
    def _made(self) -> _Made:
        rows = self._rows(**self._examples)
        compiler = rows.query.get_compiler(DEFAULT_DB_ALIAS)
        sql, given = compiler.as_sql()
        parameters = [
            next((_Place(name) for name, example in self._examples.items() if _is(each, example)), each)
            for each in given
        ]
        if missing := set(self._examples).difference(each for each in parameters if isinstance(each, _Place)):
            raise ValueError(f"No parameter of the query stands for {', '.join(sorted(missing))}.")
        columns = [column for column, *_ in compiler.select[: compiler.col_count]]
        return _Made(rows, compiler, sql, parameters, compiler.get_converters(columns))

    def __call__(self, **values: Any) -> list[Row]:
        """The rows for these values, as the queryset for them would give them."""
        rows, made, sql, parameters, converters = self._made
        if rows.query.select_for_update and not connection.in_atomic_block:
            raise RuntimeError("These rows are held until a transaction ends, and none is open.")
        compiler = copy(made)
        compiler.connection = connection
        given = tuple(values[each] if isinstance(each, _Place) else each for each in parameters)
        compiler.as_sql = lambda *_, **__: (sql, given)  # type: ignore[method-assign]
        compiler.get_converters = lambda _: converters  # type: ignore[assignment,method-assign]
        # what a queryset's own reader of rows looks at
        asked: Any = SimpleNamespace(
            db=DEFAULT_DB_ALIAS,
            query=SimpleNamespace(get_compiler=lambda *_, **__: compiler),
            _known_related_objects={},
        )
        read: Any = rows._iterable_class
        return list(read(asked))

    def first(self, **values: Any) -> Row | None:
        """The first of the rows; None where there is none."""
        return next(iter(self(**values)), None)


def _is(parameter: Any, example: Any) -> bool:
    return isinstance(parameter, type(example)) and bool(parameter == example)
