"""Certificates: what a verdict of *identical* rests on, written so that a checker which shares nothing with the search can check it."""

from typing import Any

from twincore.behaviour import Twin
from twincore.behaviour.pair import MOST_TOGETHER
from twincore.certificate.checking import check
from twincore.certificate.deciding import NotShown
from twincore.certificate.writing import MOST_PLACES, certificate

__all__ = ["MOST_PLACES", "MOST_TOGETHER", "NotShown", "certificate", "check", "check_twin"]


def check_twin(twin: Twin, given: dict[str, Any]) -> int:
    """How many places of a certificate were checked against the documents of a twin. Raises NotShown."""
    if twin.missing or twin.undecided:
        raise NotShown("of one of the boards it is not known how it behaves")
    boards = [twin.original.document, twin.replacement.document]
    return check(twin.family.document, boards, twin.positions, given, twin.wished)
