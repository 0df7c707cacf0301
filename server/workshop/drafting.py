"""Use cases of a draft: open it, edit it, take an edit back. Who edits what meanwhile is told apart by the place."""

import json
from collections.abc import Callable, Sequence
from dataclasses import dataclass
from datetime import datetime
from typing import Any
from uuid import UUID

from django.db import transaction
from django.db.models import QuerySet
from django.utils.timezone import localtime

from catalogue import queries as catalogue
from people.access import depot_of
from people.models import Person
from twincore.workshop import Draft as Documents
from twincore.workshop import edited, merged_family, opened, same_json
from twinshown.refusals import Changed, NotThere, Refused
from workshop.models import Draft, Edit
from workshop.wording import place_words

Path = Sequence[str | int]


def open_draft(person: Person, part_number: str, now: datetime) -> Draft:
    """The depot's draft of a board: the one that is worked on, else a new one from the revision in use."""
    depot = depot_of(person)
    board = catalogue.board(part_number, depot.pk)
    live = Draft.objects.filter(depot=depot, part_number=board.part_number, state__in=["open", "proposed"])
    with transaction.atomic():
        if there := live.first():
            return there
        assert board.current is not None and board.family.current is not None  # queries.board sees to it
        return Draft.objects.create(
            depot=depot, base=board.current, family_base=board.family.current, part_number=board.part_number,
            board_text=bytes(board.current.document).decode("utf-8-sig"),
            family_text=bytes(board.family.current.document).decode("utf-8-sig"),
            started_by=person, started_at=now, touched_by=person, touched_at=now,
        )  # fmt: skip


def draft_of(person: Person, draft: UUID, lock: bool = False) -> Draft:
    """A draft of the person's depot. Raises NotThere for any other."""
    rows = Draft.objects.select_related("base__board", "family_base__family__current", "started_by", "touched_by")
    if lock:
        rows = rows.select_for_update(of=("self",))
    found = rows.filter(pk=draft, depot=person.depot_id).first()
    if found is None:
        raise NotThere("There is no draft like this in your depot.")
    return found


def follow_family(draft: Draft) -> None:
    """Bring a draft up to its kind of machine as that is now, with what the draft itself added to it."""
    current = draft.family_base.family.current
    assert current is not None  # a draft is opened of boards whose family has a revision
    if current.pk == draft.family_base_id:
        return
    base, theirs = (json.loads(bytes(each.document)) for each in (draft.family_base, current))
    merged = merged_family(base, json.loads(draft.family_text), theirs)
    draft.family_text = _text(merged, bytes(current.document).decode("utf-8-sig"))
    draft.family_base = current
    draft.save(update_fields=["family_text", "family_base"])


def documents_of(draft: Draft) -> Documents:
    """Both documents of a draft."""
    return opened(draft.board_text.encode(), draft.family_text.encode())


@dataclass(frozen=True, slots=True)
class Act:
    """Something that somebody does to a draft: who, when, and its id, which the client made: sent twice, it is done once."""

    person: Person
    now: datetime
    id: UUID


@transaction.atomic
def edit_draft(
    act: Act, draft_id: UUID, seen: int, changes_of: Callable[[Documents], Sequence[tuple[Path, Any]]]
) -> Draft:  # fmt: skip
    """Put something else at places of a draft, all of them or none; `changes_of` says what, from the draft as it is.

    `seen` is the version that the person looked at. Raises Changed where somebody else changed the same place since, and
    Refusal or WrongValue where the draft could not be read any more.
    """
    draft = _open_for(act, draft_id)
    if draft.edits.filter(act=act.id).exists():
        return draft
    follow_family(draft)
    changes = changes_of(documents_of(draft))
    for path, _ in changes:
        _check_nobody_faster(draft, act.person, seen, path)
    for path, after in changes:
        _put(draft, act, path, after)
    return draft


@transaction.atomic
def undo(act: Act, draft_id: UUID) -> Draft:
    """Take back the person's last act that still stands. Raises Refused where there is none or it was built on."""
    draft = _open_for(act, draft_id)
    if draft.edits.filter(act=act.id).exists():
        return draft
    last = to_take_back(draft, act.person).first()
    if last is None:
        raise Refused("Nothing of yours is left to take back.")
    for edit in draft.edits.filter(act=last.act):
        path = json.loads(edit.path)
        if not same_json(documents_of(draft).at(path), json.loads(edit.after)):
            raise Refused(f"{place_words(path)} was changed again since. It cannot be taken back by itself.")
        _put(draft, act, path, json.loads(edit.before), undoes=edit)
    return draft


def to_take_back(draft: Draft, person: Person) -> QuerySet[Edit]:
    """A person's edits of a draft that still stand, the last one first."""
    return draft.edits.filter(by=person, undoes=None, undone_by=None)


def family_changed(draft: Draft) -> bool:
    """Whether a draft says otherwise of its kind of machine than the revision that it began with."""
    return bool(json.loads(draft.family_text) != json.loads(bytes(draft.family_base.document)))


def _open_for(act: Act, draft_id: UUID) -> Draft:
    draft = draft_of(act.person, draft_id, lock=True)
    if not draft.live:
        raise Refused(f"This draft is {draft.get_state_display().lower()}. Open the board anew to change it.")
    return draft


def _put(draft: Draft, act: Act, path: Path, after: Any, undoes: Edit | None = None) -> None:
    old = documents_of(draft)
    before = old.at(path)
    if same_json(before, after):
        return
    new = edited(old, path, before, after)
    draft.board_text, draft.family_text = _text(new.board, draft.board_text), _text(new.family, draft.family_text)
    draft.version += 1
    draft.touched_by, draft.touched_at = act.person, act.now
    draft.state = Draft.State.OPEN if draft.state == Draft.State.PROPOSED else draft.state
    draft.save()
    Edit.objects.create(
        draft=draft, number=draft.version, by=act.person, at=act.now, act=act.id, undoes=undoes,
        path=json.dumps(list(path)), before=json.dumps(before), after=json.dumps(after),
    )  # fmt: skip


def _text(node: Any, before: str) -> str:
    """A document as it is kept: the text that was there where nothing of it changed."""
    return before if json.loads(before) == node else json.dumps(node, ensure_ascii=False, indent=1) + "\n"


def _check_nobody_faster(draft: Draft, person: Person, seen: int, path: Path) -> None:
    for edit in draft.edits.filter(number__gt=seen).exclude(by=person).select_related("by"):
        theirs = json.loads(edit.path)
        shorter = min(len(theirs), len(path))
        if list(path[:shorter]) == theirs[:shorter]:
            when = localtime(edit.at).strftime("%H:%M")
            raise Changed(
                f"{edit.by.shown_name} changed {place_words(theirs)} at {when}. Look at it, then change it again.",
                changes=[{"by": edit.by.shown_name, "at": edit.at.isoformat(), "place": place_words(theirs)}],
            )
