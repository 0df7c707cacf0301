"""Use cases of the catalogue: load a document. The only way in, for the API and for the demo world alike."""

from dataclasses import dataclass
from datetime import datetime
from hashlib import sha256
from typing import Any

from django.db import transaction
from django.db.models import F, QuerySet

from catalogue import queries
from catalogue.models import Board, BoardRevision, Family, FamilyRevision, Guide, GuideRevision, Marking, Revision
from catalogue.profiles import board_profile, family_profile
from people.access import require_parts_lead
from people.models import Depot, Person
from twincore.choose import traits_of
from twincore.errors import DocumentError, Fault
from twincore.profile import (
    Board as BoardProfile,
)
from twincore.profile import (
    Family as FamilyProfile,
)
from twincore.profile import (
    check_board_in_family,
    check_layouts_agree,
    open_document,
    parse_board,
    parse_family,
    warnings_of,
    worth_of,
)
from twincore.recognise import features_of, parse_nameplates
from twincore.rule_out import parse_rule_out
from twincore.wiring import parse_adapters
from twinshown.refusals import Faulty, Refused


@dataclass(frozen=True, slots=True)
class Loaded:
    """What loading a document did: its kind, name and revision; `new` is false where it was there already."""

    kind: str
    name: str
    revision: int
    new: bool
    warnings: tuple[Fault, ...] = ()


def load_document(person: Person | None, data: bytes, now: datetime, keep: bool = True) -> Loaded:
    """Check a board, family, rule-out data, nameplate schemes or adapter leads and keep them as a new revision.

    With `keep` false, only check. `person` is None for the demo world and for commands run on the server. Raises
    DocumentError with every fault.
    """
    if person is not None:
        require_parts_lead(person)
    document = open_document(data)
    with transaction.atomic():
        match document.kind:
            case "family":
                family = parse_family(data)
                loaded = _load_family(person, family, data, now, _owner(person, Family.objects.filter(code=family.id)))
            case "board":
                board = parse_board(data)
                mine = Board.objects.filter(part_number=board.part_number)
                loaded = _load_board(person, board, data, now, _owner(person, mine))
            case "rule-out" | "nameplates" | "adapters":
                loaded = _load_guide(person, document.kind, data, now)
            case _:
                raise Faulty(
                    "Expected a board, a family, rule-out data, nameplate schemes or adapter leads.",
                    [Fault("format", f"found {document.root['format']}")],
                )
        if not keep:
            transaction.set_rollback(True)
    return loaded


@transaction.atomic
def load_own_family(person: Person, data: bytes, now: datetime) -> Loaded:
    """Keep a kind of machine as the depot's own: nobody of another depot sees it. Anybody of the depot may."""
    return _load_family(person, parse_family(data), data, now, person.depot)


@transaction.atomic
def load_own_board(person: Person, data: bytes, now: datetime, family: Family | None = None) -> Loaded:
    """Keep a board as the depot's own, as `load_own_family`; in a family that is given, or in one that the depot sees.

    Raises DocumentError with every fault, and Refused for a number that is in the shared catalogue.
    """
    profile = parse_board(data)
    if Board.objects.filter(part_number=profile.part_number, depot=None).exists():
        raise Refused(f"{profile.part_number} is in the catalogue already. Take it from there.")
    return _load_board(person, profile, data, now, person.depot, family)


@transaction.atomic
def make_current(person: Person, part_number: str, number: int, now: datetime) -> Loaded:
    """Make an earlier revision of a board the one that is taken from now on: it is loaded again, as the next revision.

    Raises Refused for the revision that is current, and DocumentError where it no longer fits its family.
    """
    require_parts_lead(person)
    board = queries.board(part_number, person.depot_id)
    wanted = queries.revision(board, number)
    if board.current_id == wanted.pk:
        raise Refused(f"Revision {number} is the current one.")
    data = bytes(wanted.document)
    return _load_board(person, parse_board(data), data, now, board.depot)


def _owner(person: Person | None, named: QuerySet[Any]) -> Depot | None:
    """Whose a document becomes: the person's depot's where it has one of this name, else everybody's."""
    depot = person.depot if person else None
    return depot if depot is not None and named.filter(depot=depot).exists() else None


def _is_there(revision: Revision | None, data: bytes) -> bool:
    """Whether the current revision is these very bytes."""
    return revision is not None and revision.digest == sha256(data).hexdigest()


def _next(last: Revision | None, person: Person | None, data: bytes, now: datetime) -> dict[str, Any]:
    """The columns of the revision that follows the last one."""
    return {
        "number": last.number + 1 if last else 1,
        "document": data,
        "digest": sha256(data).hexdigest(),
        "loaded_at": now,
        "loaded_by": person,
    }


def _load_family(
    person: Person | None, profile: FamilyProfile, data: bytes, now: datetime, depot: Depot | None
) -> Loaded:
    family, _ = (
        Family.objects.select_for_update(of=("self",))
        .select_related("current")
        .get_or_create(code=profile.id, defaults={"title": profile.title, "depot": depot})
    )
    if family.depot != depot:
        raise Refused(f"The id {profile.id} is taken. Give this family another one.")
    if family.current and _is_there(family.current, data):
        return Loaded("family", profile.id, family.current.number, False)
    faults = []
    for board in family.boards.select_related("current"):
        name = board.part_number if board.depot in (None, depot) else "a depot's own board"
        try:
            check_board_in_family(board_profile(board.current_id), profile)
        except DocumentError as error:
            faults += [Fault(f"{name}: {fault.place}", fault.expected) for fault in error.faults]
    if faults:
        raise Faulty("Boards of this family would no longer fit it. Load them in a form that fits first.", faults)
    family.title = profile.title
    family.current = FamilyRevision.objects.create(family=family, **_next(family.revisions.first(), person, data, now))
    family.save()
    return Loaded("family", profile.id, family.current.number, True)


def _load_board(
    person: Person | None,
    profile: BoardProfile,
    data: bytes,
    now: datetime,
    depot: Depot | None,
    family: Family | None = None,
) -> Loaded:
    if family is None:
        seen = Family.objects.seen_by(depot.pk if depot else None).select_related("current")
        family = seen.filter(code=profile.family).first()
    if family is None or family.current is None:
        raise Faulty(
            "Load the family first.", [Fault("family", f'expected a family of the catalogue, found "{profile.family}"')]
        )
    in_family = family_profile(family.current_id)
    check_board_in_family(profile, in_family)
    if profile.settings_layout is not None:
        others = Board.objects.filter(settings_layout=profile.settings_layout, depot=None).exclude(
            part_number=profile.part_number
        )
        for other in others:
            check_layouts_agree(profile, board_profile(other.current_id))
    board, _ = (
        Board.objects.select_for_update(of=("self",))
        .select_related("current")
        .get_or_create(
            part_number=profile.part_number,
            depot=depot,
            defaults={"family": family, "maker": profile.maker, "title": profile.title, "status": profile.status},
        )
    )
    warnings = tuple(warnings_of(profile, in_family))
    if board.current and _is_there(board.current, data):
        return Loaded("board", profile.part_number, board.current.number, False, warnings)
    board.family, board.maker, board.title, board.status = family, profile.maker, profile.title, profile.status
    board.settings_layout = profile.settings_layout
    board.traits, board.features = traits_of(profile.document), features_of(profile)
    board.current = BoardRevision.objects.create(
        board=board, family_revision=family.current, **_next(board.revisions.first(), person, data, now)
    )
    board.save()
    board.markings.all().delete()
    Marking.objects.bulk_create(
        Marking.of(board, text) for text in dict.fromkeys([profile.part_number, *profile.also_marked])
    )
    return Loaded("board", profile.part_number, board.current.number, True, warnings)


def fill_traits() -> None:
    """Read out what fitting and the key look at, for boards that were loaded before there were columns for it."""
    for board in Board.objects.select_related("current").filter(current__isnull=False, traits={}):
        assert board.current is not None  # the rest was left out above
        profile = parse_board(bytes(board.current.document))
        board.traits, board.features = traits_of(profile.document), features_of(profile)
        board.save(update_fields=["traits", "features"])


def _load_guide(person: Person | None, kind: str, data: bytes, now: datetime) -> Loaded:
    if kind == "rule-out":
        name = parse_rule_out(data).family
        families = {name}
    elif kind == "adapters":
        name, families = parse_adapters(data)[0].id.split("-")[0], set()
    else:
        schemes = parse_nameplates(data)
        name, families = schemes[0].maker, {each.family for each in schemes}
    if unknown := sorted(families - set(Family.objects.filter(code__in=families).values_list("code", flat=True))):
        raise Faulty(
            "Load the family first.",
            [Fault("family", f'expected a family of the catalogue, found "{code}"') for code in unknown],
        )
    guide, _ = (
        Guide.objects.select_for_update(of=("self",)).select_related("current").get_or_create(kind=kind, name=name)
    )
    if guide.current and _is_there(guide.current, data):
        return Loaded(kind, name, guide.current.number, False)
    guide.current = GuideRevision.objects.create(guide=guide, **_next(guide.current, person, data, now))
    guide.save()
    return Loaded(kind, name, guide.current.number, True)


def keep_family(person: Person, data: bytes, now: datetime) -> tuple[FamilyRevision, bool]:
    """The revision of a family with these very bytes, kept beside the current one where it is not there; and whether it is new.

    What jobs from elsewhere rest on is kept so; the catalogue stays as it is.
    """
    profile = parse_family(data)
    there = FamilyRevision.objects.filter(family=profile.id, digest=sha256(data).hexdigest()).first()
    if there is not None:
        return there, False
    family = Family.objects.select_for_update(of=("self",)).filter(code=profile.id).first()
    if family is None:
        take_in = load_own_family if worth_of(profile.document, "settings") == "sketched" else load_document
        take_in(person, data, now)
        return FamilyRevision.objects.get(family=profile.id), True
    return FamilyRevision.objects.create(family=family, **_next(family.revisions.first(), person, data, now)), True


def keep_board(person: Person, data: bytes, family: FamilyRevision, now: datetime) -> tuple[BoardRevision, bool]:
    """The revision of a board with these very bytes, as `keep_family`; it must fit the family revision given."""
    profile = parse_board(data)
    check_board_in_family(profile, family_profile(family.pk))
    known = Board.objects.seen_by(person.depot_id).filter(part_number=profile.part_number)
    there = BoardRevision.objects.filter(board__in=known, digest=sha256(data).hexdigest()).first()
    if there is not None:
        return there, False
    board = known.select_for_update(of=("self",)).order_by(F("depot").asc(nulls_last=True)).first()
    if board is None:
        # what another depot put down for itself stays with the job, and with the depot that takes it in
        if worth_of(profile.document, "settings") == "sketched":
            load_own_board(person, data, now, family.family)
        else:
            load_document(person, data, now)
        return BoardRevision.objects.get(board__in=known.all()), True
    new = BoardRevision.objects.create(
        board=board, family_revision=family, **_next(board.revisions.first(), person, data, now)
    )
    return new, True
