"""Pages of queries."""

from collections.abc import Callable
from typing import Any, TypeVar

from django.db.models import Model, QuerySet

from twinshown.paging import Paging, page_of

Row = TypeVar("Row", bound=Model)


def paged(rows: QuerySet[Row], paging: Paging, show: Callable[[Row], Any]) -> dict[str, Any]:
    """One page of a query: two queries, whatever its length."""
    return page_of([show(row) for row in rows[paging.start : paging.start + paging.size]], rows.count(), paging)
