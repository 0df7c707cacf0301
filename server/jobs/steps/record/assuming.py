"""Where the positions of a board that cannot be read may be taken from: this depot's other jobs, the leaflet, the maker."""

from collections.abc import Iterator
from typing import Any

from jobs.cases import case_of
from jobs.models import Job
from jobs.queries import jobs_with
from twincore.job import current, sheets
from twincore.job.case import original_of
from twincore.job.shared.assuming import SOURCES, Assumable, assumable
from twincore.job.targets.record import Assumption
from twinshown.steps.record.schemas import AssumableShown

MOST_LOOKED_AT = 60
MOST_OF_A_KIND = 3
"""Jobs of either kind that are offered."""


def assumable_shown(job: Job) -> list[AssumableShown]:
    """Every source with what it says of the elements that cannot be read."""
    return [
        AssumableShown(source=each.source, of=each.of, words=_words(each), positions=each.positions)
        for each in assumable(case_of(job), _other_jobs(job))
    ]


def _words(each: Assumable) -> str:
    words = SOURCES[each.source]
    return f"{words[0].upper()}{words[1:]}{f': {each.of}' if each.of else ''}"


def _other_jobs(job: Job) -> Iterator[Assumable]:
    """What other jobs of the depot know of boards of this number: this machine's first, then machines of the same model."""
    number = original_of(case_of(job))[1].part_number
    model = _model(job)
    jobs = list(
        jobs_with(number)
        .filter(depot=job.depot_id)
        .exclude(pk=job.pk)
        .select_related("depot")
        .order_by("-opened_at")[:MOST_LOOKED_AT]
    )
    sources: tuple[Assumption, ...] = ("earlier job", "sister machine")
    for source in sources:
        mine = [each for each in jobs if (each.machine_key == job.machine_key) == (source == "earlier job")]
        mine.sort(key=lambda each: model is None or _model(each) != model)
        count = 0
        for each in mine:
            stands = _stands(each, number)
            if stands and count < MOST_OF_A_KIND:
                count += 1
                yield Assumable(source, f"{each.code}, {each.machine}", dict(stands))


def _stands(job: Job, number: str) -> dict[str, Any]:
    """How a job knows a board of this number to stand: as it was left, or as it was found."""
    for state in sheets(current(job.state)):
        if number in (state["replacement"], state["original"]):
            return dict((state["left"] if state["replacement"] == number else state["found"]) or {})
    return {}


def _model(job: Job) -> str | None:
    """The model as it was entered or read off the plate."""
    fact = current(job.state)["facts"].get("model")
    plate = current(job.state)["plates"].get("plate")
    return str(fact["value"]) if fact else plate["text"][:4] if plate else None
