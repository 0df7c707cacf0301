"""Parsed revisions. A revision never changes, so what was parsed once stays true."""

import json
from functools import lru_cache
from typing import Any

from catalogue.models import BoardRevision, FamilyRevision, GuideRevision
from twincore.profile import Board, Family, dump, parse_board, parse_family
from twincore.recognise import Scheme, parse_nameplates
from twincore.rule_out import RuleOut, parse_rule_out
from twincore.wiring import Adapter, parse_adapters


@lru_cache(maxsize=512)
def board_profile(revision_id: int) -> Board:
    """The board of a revision."""
    return parse_board(bytes(BoardRevision.objects.values_list("document", flat=True).get(pk=revision_id)))


@lru_cache(maxsize=64)
def family_profile(revision_id: int) -> Family:
    """The family of a revision."""
    return parse_family(bytes(FamilyRevision.objects.values_list("document", flat=True).get(pk=revision_id)))


@lru_cache(maxsize=64)
def family_document(revision_id: int) -> Any:
    """The document of a family's revision as plain data, in the product's own form."""
    return json.loads(dump(family_profile(revision_id).document))


@lru_cache(maxsize=64)
def rule_out_data(revision_id: int) -> RuleOut:
    """The rule-out data of a revision."""
    return parse_rule_out(_guide(revision_id))


@lru_cache(maxsize=64)
def nameplate_schemes(revision_id: int) -> tuple[Scheme, ...]:
    """The nameplate schemes of a revision."""
    return parse_nameplates(_guide(revision_id))


@lru_cache(maxsize=64)
def adapters_of(revision_id: int) -> tuple[Adapter, ...]:
    """The adapter leads of a revision."""
    return parse_adapters(_guide(revision_id))


def _guide(revision_id: int) -> bytes:
    return bytes(GuideRevision.objects.values_list("document", flat=True).get(pk=revision_id))
