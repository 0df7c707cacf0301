"""Pairs of boards by their revisions, with answers that are kept for every worker."""

from typing import Any

from bench.kept import kept
from catalogue.profiles import board_profile, family_profile
from twincore.carry_over import Comparison


def compared(family_id: int, original_id: int, found: dict[str, Any], replacement_id: int, **more: Any) -> Comparison:
    """The comparison of two boards in these revisions, whose answers are kept; `more` as Comparison has it."""
    return Comparison(
        family=family_profile(family_id),
        original=board_profile(original_id),
        replacement=board_profile(replacement_id),
        found=found,
        names=(family_id, original_id, replacement_id),
        **{"keep": kept, **more},
    )
