"""Two programs say it: a verdict that two boards never show anything different is checked by one that shares nothing with the search."""

from twincore.behaviour import Twin
from twincore.carry_over import Comparison
from twincore.certificate import NotShown, certificate, check_twin
from twincore.profile import Record

ALIKE = ("identical", "within tolerance")


def second_check(comparison: Comparison, record: Record) -> bool | None:
    """Whether the independent checker agrees that the boards, the new one standing so, never show anything different.

    False where it does not, or cannot tell in its time; None where the twin check itself says no such thing.
    """
    if comparison.proof(record).verdict not in ALIKE:
        return None
    return comparison.keep(comparison.second_key(record), lambda: _agrees(comparison.twin(record)))


def _agrees(twin: Twin) -> bool:
    written = certificate(twin)
    if written is None:
        return False
    try:
        check_twin(twin, written)
    except NotShown:
        return False
    return True
