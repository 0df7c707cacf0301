"""What becomes of a draft: proposed, sent back, given up, or published as the board's next revision."""

from datetime import datetime
from uuid import UUID

from django.db import transaction

from catalogue.actions import load_document, load_own_board, load_own_family
from people.access import require_parts_lead
from people.models import Person
from twincore.errors import Fault
from twincore.workshop import findings
from twinshown.refusals import Changed, Faulty, Refused
from workshop.drafting import documents_of, draft_of, family_changed, follow_family
from workshop.models import Draft


@transaction.atomic
def step(person: Person, draft_id: UUID, state: Draft.State, note: str, now: datetime) -> Draft:
    """Propose a draft to the parts lead, give it back with what is missing (only the lead may), or put it away.

    A board whose draft is put away stays as it is, and what was edited can still be read.
    """
    if state == Draft.State.OPEN:
        require_parts_lead(person)
        if not note.strip():
            raise Faulty("Say what is missing.")
    return _step(person, draft_id, state, note, now)


@transaction.atomic
def publish(person: Person, draft_id: UUID, seen: int, over: int, reason: str, now: datetime) -> Draft:
    """Make a draft the board's next revision.

    `seen` is the version whose changes were looked at, and `over` the board's revision that they were held against.
    Raises Faulty with everything that is wrong, Changed where the draft or the board was changed since, and Refused
    without a reason.
    """
    require_parts_lead(person)
    draft = draft_of(person, draft_id, lock=True)
    if not draft.live:
        raise Refused("This draft is not worked on any more.")
    if not reason.strip():
        raise Refused("Say why this revision is published.")
    if draft.version != seen:
        raise Changed(f"{draft.touched_by.shown_name} changed this draft meanwhile. Look at what it changes again.")
    if draft.board.current is None or draft.board.current.number != over:
        raise Changed("The board got another revision meanwhile. Look at what changes against it.")
    follow_family(draft)
    wrong = [each for each in findings(documents_of(draft)) if each.weight == "fault"]
    if wrong:
        raise Faulty("This draft has faults yet.", [Fault(each.place, each.says) for each in wrong[:50]])
    own = draft.board.depot_id is not None
    if family_changed(draft):
        data = draft.family_text.encode()
        if draft.family_base.family.depot_id is not None:
            load_own_family(person, data, now)
        else:
            load_document(person, data, now)
    if own:
        load_own_board(person, draft.board_text.encode(), now)
    else:
        load_document(person, draft.board_text.encode(), now)
    return _step(person, draft_id, Draft.State.PUBLISHED, reason, now)


def _step(person: Person, draft_id: UUID, state: Draft.State, note: str, now: datetime) -> Draft:
    draft = draft_of(person, draft_id, lock=True)
    if not draft.live:
        raise Refused("This draft is not worked on any more.")
    draft.state, draft.note, draft.touched_by, draft.touched_at = state, note.strip(), person, now
    draft.save()
    return draft
