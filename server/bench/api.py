"""The bench: any two boards of a family side by side, without a job."""

from django.http import HttpRequest
from ninja import Router

from bench.kept import kept
from catalogue import queries
from catalogue.profiles import board_profile, family_profile
from people.access import person_of
from people.models import Person
from twincore.carry_over import Comparison
from twinshown.comparison import playing
from twinshown.comparison import view as comparison_view
from twinshown.comparison.pair import side_by_side
from twinshown.comparison.scenarios import checked_scenario
from twinshown.comparison.schemas import ComparisonShown, PairGiven, PlayGiven, PlayShown
from twinshown.refusals import Refused

router = Router(tags=["bench"])


@router.post("/bench/compare", response=ComparisonShown)
def compare(request: HttpRequest, pair: PairGiven) -> ComparisonShown:
    """Two boards side by side; an original without positions stands as it leaves the maker."""
    return comparison_view.compare(_comparison(pair, person_of(request)))


@router.post("/bench/play", response=PlayShown)
def play(request: HttpRequest, given: PlayGiven) -> PlayShown:
    """A scenario on both boards."""
    comparison = _comparison(given.pair, person_of(request))
    return playing.play(comparison, checked_scenario(given.scenario, comparison.family))


def _comparison(pair: PairGiven, person: Person) -> Comparison:
    original, replacement = (queries.board(name, person.depot_id) for name in (pair.original, pair.replacement))
    if original.family_id != replacement.family_id:
        raise Refused(
            f"{original.part_number} is of the family {original.family_id}, {replacement.part_number} of "
            f"{replacement.family_id}. Only boards of one family can be compared."
        )
    assert original.family.current_id and original.current_id and replacement.current_id  # queries.board sees to it
    names = (original.family.current_id, original.current_id, replacement.current_id)
    family, one, other = family_profile(names[0]), board_profile(names[1]), board_profile(names[2])
    return side_by_side(family, one, other, pair, names=names, keep=kept)
