"""Two people at one bank: what each set of its places, together."""

from typing import Any

from twincore.job.case import Case
from twincore.job.target import Target
from twincore.profile.record import UNREADABLE


def merged(case: Case, target: Target, name: str, before: Any, after: Any, now: Any) -> str | None:
    """What stands when an entry that changed some places joins what somebody else changed of others; None where they changed the
    same place, or what is said there has no places. Nothing said before is taken as nothing read.
    """
    board = {"original": case.original, "replacement": case.replacement}.get(target.by_place or "")
    placed = board is not None and any(each.id == name and each.placed for each in board.elements)
    if not placed or not isinstance(after, str) or not isinstance(now, str):
        return None
    was = UNREADABLE * len(now) if before is None else before
    if not isinstance(was, str) or not len(was) == len(after) == len(now):
        return None
    found = []
    for old, mine, theirs in zip(was, after, now, strict=True):
        if mine not in (old, theirs) and theirs != old:
            return None
        found.append(theirs if mine == old else mine)
    return "".join(found)
