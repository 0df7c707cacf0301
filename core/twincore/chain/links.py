"""Each entry's digest covers the entry and the digest before it: changing, dropping or moving one breaks every later one.

SHA-256 (FIPS 180-4) over UTF-8 JSON without spaces, keys in order. That a whole number is written 5 or 5.0 makes no
difference. A chain shows a change to whoever knows its last digest; the cabinet label carries that.
"""

import json
from collections.abc import Iterable, Mapping
from hashlib import sha256
from typing import Any

ENTRY_KEYS = ("id", "number", "at", "by", "target", "before", "after", "reason", "read_how", "attachment")
"""What of an entry its digest covers; where it speaks of another board than the first one, that;
where it was made without a connection, when by which clock and when it joined; and what it brings along."""


def first_link(job: str, head: Mapping[str, Any] | None = None) -> str:
    """What stands before the first entry of a job: the chain belongs to this job and to no other, and to what it was opened as
    (its number, machine, who, when and by which clock; chains of earlier versions left that out).
    """
    return _digest(["worthy-twin/job", job] if head is None else ["worthy-twin/job", job, head])


def link(previous: str, entry: Mapping[str, Any]) -> str:
    """The digest of an entry, 64 hexadecimal digits; `attachment` is the digest of what the entry brings, or empty."""
    captured = [entry["adds"]] if entry.get("adds") is not None else []
    board = [f"board {entry['board']}"] if "board" in entry else []
    made = [f"made {m['at']} ahead {m['ahead_ms']} joined {m['joined']}"] if (m := entry.get("made")) else []
    return _digest([previous, *(entry.get(key, "") for key in ENTRY_KEYS), *board, *made, *captured])


def chained(job: str, entries: Iterable[Mapping[str, Any]], head: Mapping[str, Any] | None = None) -> list[str]:
    """The digests of a job's entries in their order."""
    found: list[str] = []
    previous = first_link(job, head)
    for entry in entries:
        previous = link(previous, entry)
        found.append(previous)
    return found


def canonical(node: Any) -> str:
    """What a digest is taken of: JSON without spaces, keys in order, whole numbers written as such."""
    return json.dumps(_even(node), sort_keys=True, separators=(",", ":"), ensure_ascii=False)


def seal_of(state: Mapping[str, Any], documents: Mapping[str, str]) -> str:
    """The digest of a job as it closes: what its entries add up to, and the digests of the documents it rests on."""
    return _digest([state, documents])


def _digest(node: Any) -> str:
    return sha256(canonical(node).encode("utf-8", "surrogatepass")).hexdigest()


def _even(node: Any) -> Any:
    """The same data with whole numbers written as such, for storage may do either."""
    if isinstance(node, Mapping):
        return {str(key): _even(value) for key, value in node.items()}
    if isinstance(node, list | tuple):
        return [_even(value) for value in node]
    if isinstance(node, float) and node.is_integer():
        return int(node)
    return node
