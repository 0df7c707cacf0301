"""Reading jobs."""

from uuid import UUID

from django.db.models import Q, QuerySet

from bench.comparing import QUICK_LIMIT, Comparison, proof_shown
from catalogue import queries as catalogue
from catalogue.models import Board
from catalogue.profiles import board_profile
from config.errors import NotThere, Refused
from jobs.models import Entry, Job
from jobs.schemas import CandidateShown, CandidatesShown, PinShown
from people.models import Person
from twincore.errors import TwinError
from twincore.match import pin_differences
from twincore.profile import factory_record, written_positions
from twincore.profile.values import plain

VERDICTS = ("identical", "within tolerance", "open", "not proved", "different", "no position")


def jobs(person: Person, show: str, search: str) -> QuerySet[Job]:
    """The jobs of the person's depot, last changed first."""
    rows = Job.objects.filter(depot=person.depot_id).select_related("depot")
    if show != "all":
        rows = rows.filter(closed_at__isnull=show == "open")
    if search:
        found = Q(machine__icontains=search) | Q(state__original__icontains=search)
        digits = search.rsplit("-", 1)[-1]
        if digits.isdigit() and len(digits) < 9:
            found |= Q(number=int(digits))
        rows = rows.filter(found)
    return rows


def job(person: Person, job_id: UUID) -> Job:
    """One job of the person's depot, with both boards."""
    found = (
        Job.objects.filter(depot=person.depot_id, pk=job_id)
        .select_related(
            "depot",
            "opened_by",
            "family_revision__family",
            "original_revision__board__family",
            "replacement_revision__board__family",
        )
        .defer("family_revision__document", "original_revision__document", "replacement_revision__document")
        .first()
    )
    if found is None:
        raise NotThere("Your depot has no such job.")
    return found


def entries(job: Job) -> QuerySet[Entry]:
    """A job's history, newest first."""
    return job.entries.select_related("by")


def candidates(job: Job) -> CandidatesShown:
    """Every board of the family that is still made, judged as a replacement, best first."""
    if job.original_revision_id is None or job.family_revision is None:
        raise Refused("Find out first which board is to be replaced.")
    original = board_profile(job.original_revision_id)
    read = {name: value for name, value in job.state["found"].items() if str(value).strip("?")}
    found = job.state["found"] if read else plain(written_positions(original, factory_record(original).points))
    boards = catalogue.still_made(job.family_revision.family_id).exclude(part_number=original.part_number)
    judged = [_judged(job, found, board) for board in boards[:200]]
    return CandidatesShown(judged_on="the record" if read else "factory settings", candidates=sorted(judged, key=_rank))


def _rank(candidate: CandidateShown) -> tuple[object, ...]:
    """Like first, then what is not met, then work."""
    return (
        candidate.safety_misses, len(candidate.pins) > 0, VERDICTS.index(candidate.verdict), len(candidate.misses),
        candidate.moved or 0, candidate.part_number,
    )  # fmt: skip


def _judged(job: Job, found: dict[str, object], board: Board) -> CandidateShown:
    assert job.family_revision_id and job.original_revision_id and board.current_id and board.current
    comparison = Comparison(job.family_revision_id, job.original_revision_id, found, board.current_id)
    titles = comparison.family.titles
    carried = comparison.carried()
    proof = None
    if carried.record is not None:
        try:
            proof = comparison.proof(carried.record, QUICK_LIMIT)
        except TwinError:
            proof = None
    missed = [each for each in carried.functions if each.verdict in ("off", "not on this board")]
    verdict = "no position" if carried.record is None else proof.verdict if proof else "not proved"
    return CandidateShown(
        part_number=board.part_number,
        title=board.title,
        maker=board.maker,
        revision=board.current.number,
        verdict=verdict,
        misses=[titles[each.id] for each in missed],
        safety_misses=carried.misses(True),
        moved=carried.moved if carried.record else None,
        proof=proof_shown(proof, comparison) if proof else None,
        pins=[
            PinShown(
                connector=pin.connector,
                pin=pin.pin,
                original=titles.get(pin.original or "", pin.original or "nothing"),
                replacement=titles.get(pin.replacement or "", pin.replacement or "nothing"),
            )
            for pin in pin_differences(comparison.original, comparison.replacement)
        ],
    )
