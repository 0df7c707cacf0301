"""Boards of the same kind that are easily taken for the one that goes in."""

from catalogue.models import Board
from jobs.models import Job
from jobs.steps.fit.schemas import AlikeShown
from twincore.recognise import Sighting, separating

MOST_BOARDS, MOST_SHOWN = 400, 4
ALIKE = 1
"""Features at most by which boards differ that are taken for each other."""


def look_alikes_of(job: Job) -> list[AlikeShown]:
    """Those that differ in one visible feature or none, the likest first, with what tells them apart."""
    if job.replacement_revision is None:
        return []
    mine = job.replacement_revision.board
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
