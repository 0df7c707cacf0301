"""What a depot has beside the profile of the board that goes in: boards easily taken for it, and pictures of its leaflet."""

from uuid import UUID

from catalogue.models import Board, BoardPicture
from jobs.models import Job
from twincore.recognise import Sighting, separating
from twinshown.steps.fit.schemas import AlikeShown

MOST_BOARDS, MOST_SHOWN, MOST_PICTURES = 400, 4, 8
ALIKE = 1
"""Features at most by which boards differ that are taken for each other."""


def look_alikes_of(mine: Board, job: Job) -> list[AlikeShown]:
    """Those that differ in one visible feature or none, the likest first, with what tells them apart."""
    rows = Board.objects.seen_by(job.depot_id).filter(family_id=mine.family_id, current__isnull=False)
    others = rows.exclude(pk=mine.pk).order_by("part_number").only("part_number", "features")[:MOST_BOARDS]
    me = Sighting(mine.part_number, mine.features)
    apart = [(separating(me, Sighting(each.part_number, each.features)), each) for each in others if each.features]
    alike = sorted((len(told), each.part_number, told) for told, each in apart if len(told) <= ALIKE)
    return [
        AlikeShown(part_number=name, words=_words(told, old=name == job.state["original"]))
        for _, name, told in alike[:MOST_SHOWN]
    ]


def _words(told: tuple[tuple[str, str, str], ...], old: bool) -> str:
    words = "; ".join(f"{name}: {mine} here, {other} there" for name, mine, other in told)
    apart = words or "nothing visible tells them apart, the printed number does"
    return f"the old board; {apart}" if old else apart


def leaflet_of(part_number: str, job: Job) -> list[UUID]:
    """The depot's pictures of a board's leaflet."""
    rows = BoardPicture.objects.filter(depot=job.depot_id, part_number=part_number, of=BoardPicture.Of.LEAFLET)
    return [each.pk for each in rows[:MOST_PICTURES]]
