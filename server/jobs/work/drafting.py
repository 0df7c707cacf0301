"""A profile's behaviour drafted from what the live original was seen to do."""

from config.errors import Refused
from jobs.models import Job
from jobs.work.recording import original_of, trace_of
from jobs.work.schemas import DraftShown
from people.access import require_parts_lead
from people.models import Person
from twincore.behaviour import draft_behaviour
from twincore.errors import TwinError
from twincore.profile.document import jsonable


def draft_shown(person: Person, job: Job) -> DraftShown:
    """States and times proposed from every trace of the job, and which traces they make."""
    require_parts_lead(person)
    family, board = original_of(job)
    keys = ("title", "steps", "seen", "until", "timed")
    names, traces = [], []
    for name, node in job.state["traces"].items():
        document = {"format": "worthy-twin/trace", "version": 1, "part_number": board.part_number}
        names.append(name)
        traces.append(trace_of({**document, **{key: node[key] for key in keys if key in node}}, family))
    try:
        draft = draft_behaviour(board, family, traces)
    except TwinError as error:
        raise Refused(f"Nothing can be drafted: {error}.") from error
    return DraftShown(behaviour=jsonable(draft.behaviour), made=dict(zip(names, draft.made, strict=True)))
