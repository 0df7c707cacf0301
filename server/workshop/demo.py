"""What the demo world has on the bench of its workshop: one board known by a sketch alone, in an open job, and one half done.

A third kind of machine nobody has entered: of that there are only the pictures in `demo/pictures`.
"""

from collections.abc import Callable
from datetime import datetime
from uuid import UUID, uuid4, uuid5

from django.db import transaction

from catalogue.schemas import ChartColumn
from jobs.actions import add_entry, open_job
from jobs.models import Job
from people.models import Person
from twinshown.entering.accepting import NewEntry
from workshop.actions import Sketched, sketch_board
from workshop.drafting import Act, edit_draft, open_draft
from workshop.schemas import ChartGiven, GridGiven
from workshop.tables import Changes, chart_changes, grid_changes

NAMESPACE = UUID("6f1d4c52-3c0e-4a55-9d0b-7f3c1f3a9b10")
LIFT = "S1 bank 4, on right, from top; J1 jumper 3; C1 plug 6, keyed; C2 plug 3; relays 2; fuse; board brown, 130x90"
SIFTER = "S1 bank 6, on up, from left; R1 dial 0..5; C1 plug 6, keyed; lamp; board blue"
FUNCTIONS = (
    {"id": "run", "title": "Running time", "type": "duration", "unit": "s", "importance": "behaviour"},
    {"id": "shake", "title": "Shakes after stop", "type": "count", "importance": "comfort", "if_absent": 0},
    {"id": "restart", "title": "Restart after the lid", "type": "choice", "choices": ["by hand", "by itself"], "importance": "safety"},
)  # fmt: skip


@transaction.atomic
def load_workshop(now: datetime, say: Callable[[str], None]) -> None:
    """Sketch two boards, open a job on one, and leave the other half done."""
    technician, lead = (Person.objects.get(username=name) for name in ("wennick", "corm"))
    lift = sketch_board(technician, Sketched("HLB-20", "", "Lift board", None, "Dough bowl lift", LIFT), now)
    job = _job(technician, now, lift.part_number)
    sketch_board(technician, Sketched("SFT 9-4", "Brellmoor", "Sifter board", None, "Flour sifter", SIFTER), now)
    _half_done(lead, now)
    say(f"1 job with a sketch ({job.code}), 1 draft half done")


def _job(person: Person, now: datetime, board: str) -> Job:
    job = open_job(person, uuid5(NAMESPACE, board), "Dough bowl lift, Cressel Bakehouse", "Stops half way up", now)
    told = (("confirmed.rule_out", {"note": "burnt through at the fuse", "end": "condemned"}), ("original", board))
    for target, after in told:
        job = add_entry(person, job.pk, NewEntry(uuid5(job.pk, target), target, None, after), now)
    return job


def _half_done(person: Person, now: datetime) -> None:
    draft = open_draft(person, "SFT 9-4", now)

    def put(changes: Changes) -> None:
        edit_draft(Act(person, now, uuid4()), draft.pk, 0, changes)

    put(lambda _: [(["family", "functions"], list(FUNCTIONS))])
    run = GridGiven(seen=0, function="run", points=["S1.1", "S1.2"], cells=["30", "45", "1 min", ""], reads="")
    put(lambda documents: grid_changes(documents, run))
    shake = GridGiven(seen=0, function="shake", reads="R1")
    put(lambda documents: grid_changes(documents, shake))
    columns = [ChartColumn(heading="Replaces", role="fact", name="original"), ChartColumn(heading="S1", role="set", name="S1"),
               ChartColumn(heading="R1", role="set", name="R1")]  # fmt: skip
    rows = [["SFT 9-1", "011000", "2"], ["SFT 9-2", "01100", "2"], ["SFT 9-3", "111000", "3"]]
    chart = ChartGiven(seen=0, index=0, title="Sifter boards, sheet 4", columns=columns, rows=rows)
    put(lambda documents: chart_changes(documents, chart))
