"""What the depot's jobs teach about a board."""

from catalogue import queries as catalogue
from catalogue.models import Board
from catalogue.profiles import board_profile, family_profile
from jobs.queries import jobs_with
from people.models import Person
from twincore.job import current, sheets
from twincore.job.shared.meanings import meaning_words, told_of
from twincore.profile import Board as BoardProfile
from twincore.workshop import taught_by
from workshop.schemas import SaidShown, TaughtShown, UsesShown

MOST_JOBS, MOST_SAID = 500, 20


def uses_of(person: Person, part_number: str) -> UsesShown:
    """What was found on this board in the last jobs of the depot that had it as the original."""
    board = catalogue.board(part_number, person.depot_id)
    assert board.current_id and board.family.current_id  # queries.board sees to it
    rows = jobs_with(board.part_number).filter(depot=person.depot_id).order_by("-opened_at")
    states = [state for stored in rows.values_list("state", flat=True)[:MOST_JOBS] for state in sheets(current(stored))]
    found = [state["found"] for state in states if state["original"] == board.part_number]
    family, profile = family_profile(board.family.current_id), board_profile(board.current_id)
    taught = taught_by(profile, family, [each for each in found if each])
    return UsesShown(
        jobs=len(found),
        taught=[
            TaughtShown(of=each.of, title=family.titles.get(each.of, each.of), what=each.what, jobs=each.jobs)
            for each in taught[:20]
        ],
        said=_said(person, board, profile),
    )


def _said(person: Person, board: Board, profile: BoardProfile) -> list[SaidShown]:
    """What the depot's jobs said that positions of a board mean, the last first, as far as the profile does not say it."""
    rows = jobs_with(board.part_number).filter(depot=person.depot_id).exclude(state__meanings={}, state__boards={})
    return [
        SaidShown(title=said["title"], words=meaning_words(said, profile), by=said["by"], job=job.code)
        for job in rows.select_related("depot").order_by("-opened_at")[:MOST_SAID]
        for state in sheets(current(job.state))
        for function, said in told_of(state, profile)
        if function not in profile.functions
    ]


def open_jobs_with(person: Person, part_number: str) -> int:
    """How many open jobs of the depot have a board, coming out or going in."""
    board = catalogue.board(part_number, person.depot_id)
    return jobs_with(board.part_number).filter(depot=person.depot_id, closed_at=None).count()
