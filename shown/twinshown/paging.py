"""Paging: every list comes in pages."""

from typing import Any, Generic, TypeVar

from pydantic import Field

from twinshown.shapes import Schema

Item = TypeVar("Item")
PAGE_SIZE = 25


class Paging(Schema):
    """Which page of a list; pages count from 1."""

    page: int = Field(1, ge=1, le=100_000)
    size: int = Field(PAGE_SIZE, ge=1, le=100)

    @property
    def start(self) -> int:
        """Where in the list the page begins."""
        return (self.page - 1) * self.size


class Page(Schema, Generic[Item]):
    """One page of a list, and how many there are in all."""

    items: list[Item]
    total: int
    page: int
    size: int


def page_of(items: list[Any], total: int, paging: Paging) -> dict[str, Any]:
    """One page of a list, as it is answered."""
    return {"items": items, "total": total, "page": paging.page, "size": paging.size}
