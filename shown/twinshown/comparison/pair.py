"""Two boards side by side without a job, as the bench has them."""

from typing import Any

from twincore.carry_over import Comparison
from twincore.profile import Board, Family, as_shipped, written_positions
from twincore.profile.values import plain
from twinshown.comparison.schemas import PairGiven


def side_by_side(family: Family, original: Board, replacement: Board, given: PairGiven, **more: Any) -> Comparison:
    """A pair as somebody set it; an original without positions stands as it left the maker. `more` as Comparison has it."""
    found = given.found
    if found is None:
        found = plain(written_positions(original, as_shipped(original).points))
    return Comparison(family=family, original=original, replacement=replacement, found=found, plan=given.plan, **more)
