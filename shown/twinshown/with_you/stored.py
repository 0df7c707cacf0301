"""A state as the depot's database keeps it: what is worked out from it reads the same here and there."""

from typing import Any


def as_stored(node: Any) -> Any:
    """A JSON value with the names of its objects in the order of PostgreSQL's jsonb: shorter ones first, then by their bytes
    (PostgreSQL's documentation, 8.14 JSON types, says that the order is not kept; its source, jsonb_util.c, how it is made).
    """
    if isinstance(node, dict):
        names = sorted(node, key=lambda name: (len(name.encode()), name.encode()))
        return {name: as_stored(node[name]) for name in names}
    return [as_stored(each) for each in node] if isinstance(node, list | tuple) else node
