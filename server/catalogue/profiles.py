"""Parsed revisions. A revision never changes, so what was parsed once stays true."""

from functools import lru_cache

from catalogue.models import BoardRevision, FamilyRevision
from twincore.profile import Board, Family, parse_board, parse_family


@lru_cache(maxsize=512)
def board_profile(revision_id: int) -> Board:
    """The board of a revision."""
    return parse_board(bytes(BoardRevision.objects.values_list("document", flat=True).get(pk=revision_id)))


@lru_cache(maxsize=64)
def family_profile(revision_id: int) -> Family:
    """The family of a revision."""
    return parse_family(bytes(FamilyRevision.objects.values_list("document", flat=True).get(pk=revision_id)))
