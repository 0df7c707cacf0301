"""Certificates: what a verdict of *identical* rests on, written so that a checker which shares nothing with the search can check it."""

from typing import Any

from twincore.behaviour import Twin
from twincore.behaviour.pair import MOST_TOGETHER
from twincore.certificate.checking import check
from twincore.certificate.deciding import NotShown
from twincore.certificate.writing import MOST_PLACES, certificate
from twincore.profile import dump

__all__ = ["MOST_PLACES", "MOST_TOGETHER", "NotShown", "accepted", "certificate", "check", "check_twin"]


def check_twin(twin: Twin, given: dict[str, Any]) -> int:
    """How many places of a certificate were checked against the documents of a twin. Raises NotShown."""
    if twin.missing or twin.undecided:
        raise NotShown("of one of the boards it is not known how it behaves")
    boards = [twin.original.document, twin.replacement.document]
    return check(twin.family.document, boards, twin.positions, given, twin.wished)


def accepted(twin: Twin, at_once: bool = False) -> str:
    """The certificate of a twin, as a document, where the independent checker accepts it; empty where there is none.

    With `at_once` only what the lockstep shows is tried.
    """
    written = certificate(twin, at_once)
    if written is None:
        return ""
    try:
        check_twin(twin, written)
    except NotShown:
        return ""
    return dump(written)
