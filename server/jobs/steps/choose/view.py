"""The matrix of candidates, two boards laid on each other, and the sum of costs, for the screen."""

from collections.abc import Mapping
from datetime import datetime
from typing import Any

from bench.pairs import compared
from catalogue import queries as catalogue
from catalogue.api import marked_board
from catalogue.profiles import board_profile, family_profile
from jobs.candidates import Choice, found_of, judge_all
from jobs.cases import case_of
from jobs.models import Job
from jobs.steps.choose.schemas import (
    BesideShown,
    CandidateShown,
    CandidatesShown,
    CellShown,
    ContactRow,
    HaveShown,
    OfferShown,
    PinRow,
    ReasonShown,
    TwinShown,
)
from parts.actions import want_offers
from references.api import statement_shown
from references.models import Statement
from references.queries import with_outcomes
from twincore import choose
from twincore.choose import Candidate, Judged
from twincore.choose.criteria import BY_ID
from twincore.job.shared.facts import fact_values
from twincore.profile import written_positions
from twincore.profile.document import jsonable
from twincore.profile.values import plain
from twinshown.comparison.schemas import ProofShown
from twinshown.comparison.view import explained, proof_shown
from twinshown.paging import Paging
from twinshown.refusals import Refused
from twinshown.words.fit import FitWords
from twinshown.words.questions import question_asked
from twinshown.words.schemas import HoleShown


def candidates_shown(job: Job, paging: Paging, now: datetime) -> CandidatesShown:
    """One page of the matrix; asks the parts desk in the background about what it shows."""
    choice = judge_all(job, now)
    start = paging.start
    page = choice.candidates[start : start + paging.size]
    want_offers([each.part_number for each in page], now)
    codes = {s.id for each in page if each.way for s in _statements(each)}
    others = [each.id for each in choice.ways.others]
    elsewhere = [each.id for each in choice.ways.elsewhere][:25]
    rows = {row.code: row for row in with_outcomes(Statement.objects.filter(code__in=[*codes, *others, *elsewhere]))}
    told = {s.id: s for each in page for s in _statements(each)} | {s.id: s for s in choice.ways.elsewhere}
    words = FitWords(choice.machine.family, told)
    return CandidatesShown(
        items=[_candidate(each, choice, job, words, rows) for each in page],
        total=len(choice.candidates),
        page=paging.page,
        size=paging.size,
        judged_on=choice.judged_on,
        unprofiled=choice.unprofiled[:25],
        other_ways=[statement_shown(rows[code]) for code in others if code in rows],
        elsewhere=[statement_shown(rows[code]) for code in elsewhere if code in rows],
        whole=choice.whole,
        desk=next((each["fault"] for each in choice.offers.values() if each.get("fault")), ""),
    )


def have_shown(job: Job, text: str, now: datetime) -> HaveShown:
    """One number judged alone. Of several boards that it may be none is judged until somebody says which."""
    if job.original_revision_id is None or job.family_revision is None:
        raise Refused("Find out first which board is to be replaced.")
    hits = catalogue.boards_marked(text, job.depot_id)
    exact = [each for each in hits if each.hit.readings[0].how in ("as printed", "written differently")]
    one = exact[0] if len(exact) == 1 else hits[0] if len(hits) == 1 else None
    read = [marked_board(each) for each in hits]
    if one is None:
        words = "It may be one of these. Say which." if hits else "No board of this number is in the catalogue."
        return HaveShown(read=read, candidate=None, words=words)
    board = one.board
    if board.family_id != job.family_revision.family_id:
        words = f"No: it is for another kind of machine ({board.family.title})."
        return HaveShown(read=[], candidate=None, words=words)
    choice = judge_all(job, now, board.part_number)
    found = next((each for each in choice.candidates if each.part_number == board.part_number), None)
    if found is None:
        return HaveShown(read=read, candidate=None, words="It cannot be judged yet.")
    want_offers([found.part_number], now)
    statements = {s.id: s for s in (*_statements(found), *choice.ways.elsewhere)}
    rows = {row.code: row for row in with_outcomes(Statement.objects.filter(code__in=list(statements)))}
    shown = _candidate(found, choice, job, FitWords(choice.machine.family, statements), rows)
    return HaveShown(read=read, candidate=shown, words=_in_a_word(found.verdict, shown))


def _in_a_word(verdict: str, shown: CandidateShown) -> str:
    """Yes, no, or what it hangs on: with the worst reason."""
    worst = [reason.words for cell in shown.cells for reason in cell.reasons if reason.verdict == verdict]
    said = {"fits": "Yes", "with work": "Yes, with work", "to check": "Not known yet", "no": "No"}[verdict]
    return f"{said}: {worst[0]}" if worst and verdict != "fits" else f"{said}."


def _statements(candidate: Candidate) -> list[choose.Statement]:
    way = candidate.way
    if way is None:
        return []
    return [*way.statements, *(each for each in (way.forbidden, way.perhaps_forbidden) if each)]


def _candidate(
    each: Candidate, choice: Choice, job: Job, words: FitWords, rows: dict[str, Statement]
) -> CandidateShown:
    row = choice.rows[each.part_number]
    return CandidateShown(
        part_number=each.part_number,
        maker=row["maker"],
        title=row["title"],
        status=row["status"],
        revision=row["current__number"],
        verdict=each.verdict,
        closeness=each.closeness,
        minutes=each.minutes,
        offer=_offer(choice.offers.get(each.part_number)),
        cells=[_cell(cell, words) for cell in each.cells],
        proof=_proof(each, job, row["current_id"]),
        statements=[statement_shown(rows[s.id]) for s in _statements(each) if s.id in rows],
        questions=[question_asked(question, words) for question in each.questions],
    )


def _proof(each: Candidate, job: Job, replacement_id: int) -> ProofShown | None:
    if each.proof is None:
        return None
    if not (job.family_revision_id and job.original_revision_id):
        raise Refused("Nobody has said yet which board comes out. Do that first, in Recognise.")
    return proof_shown(each.proof, compared(job.family_revision_id, job.original_revision_id, {}, replacement_id))


def _offer(offer: dict[str, Any] | None) -> OfferShown | None:
    if offer is None:
        return None
    return OfferShown(
        price=offer.get("price"), stock=offer.get("stock"), on_van=offer.get("on_van", False), days=offer.get("days"),
        age_s=offer.get("age_s"), fault=offer.get("fault", ""), unknown=offer.get("unknown", False),
    )  # fmt: skip


def _cell(cell: Judged, words: FitWords) -> CellShown:
    return CellShown(
        criterion=cell.criterion,
        verdict=cell.verdict,
        reasons=[ReasonShown(verdict=each.verdict, words=words.reason(each)) for each in cell.reasons],
        questions=[question_asked(each, words) for each in cell.questions],
    )


def beside(job: Job, part_number: str) -> BesideShown:
    """Original and candidate: outlines and holes with the best turn and shift, pins side by side, contacts."""
    if job.original_revision_id is None or job.family_revision is None:
        raise Refused("Find out first which board is to be replaced.")
    original = board_profile(job.original_revision_id)
    replacement = board_profile(catalogue.board_revision_id(part_number, job.depot_id))
    mine, its = choose.fitting_of(original.document), choose.fitting_of(replacement.document)
    mounting = choose.best_mounting(mine.plate, its.plate) if mine.plate and its.plate else None
    family = family_profile(job.family_revision.pk)
    contacts = BY_ID["contacts"].judge(choose.Context(mine, its, family, fact_values(case_of(job))))
    words = FitWords(family, {})
    return BesideShown(
        original=_outline(original.document),
        replacement=_outline(replacement.document),
        turn=mounting.turn if mounting else None,
        right_mm=mounting.shift_mm[0] if mounting else 0.0,
        up_mm=mounting.shift_mm[1] if mounting else 0.0,
        serving=len(mounting.pairs) if mounting else 0,
        new_holes=[
            HoleShown(from_left_mm=h.from_left_mm, from_bottom_mm=h.from_bottom_mm, diameter_mm=h.diameter_mm)
            for h in (mounting.new_holes if mounting else ())
        ],
        pins=_pins(mine, its, words),
        contacts=[ContactRow(words=words.reason(each), verdict=each.verdict) for each in contacts.reasons],
    )


def twin_of(job: Job, part_number: str) -> TwinShown:
    """How a candidate would behave by the nearest functions, and which of its settings come closer by what they do."""
    if job.original_revision_id is None or job.family_revision_id is None:
        raise Refused("Find out first which board is to be replaced.")
    found, judged_on = found_of(job)
    candidate = catalogue.board_revision_id(part_number, job.depot_id)
    wishes = job.state.get("wishes", {})
    pair = compared(job.family_revision_id, job.original_revision_id, found, candidate, wishes=wishes)
    if pair.replacement.family != pair.family.id:
        raise Refused("This board is for another kind of machine.")
    record = pair.solved()
    if record is None:
        raise Refused(
            "There are no positions to judge: nobody knows what they mean on this board, or all are reserved."
        )
    positions = plain(written_positions(pair.replacement, record.points))
    return TwinShown(positions=positions, judged_on=judged_on, proof=explained(pair, record))


def _outline(document: Mapping[str, Any]) -> dict[str, Any]:
    found: dict[str, Any] = jsonable(
        {
            name: document[name]
            for name in ("part_number", "size_mm", "holes", "layout", "connectors")
            if name in document
        }
    )
    return found


def _pins(mine: choose.Fitting, its: choose.Fitting, words: FitWords) -> list[PinRow]:
    """Every pin of the original with where its signal is on the candidate."""
    by_place = {(pin.connector, pin.style, pin.pin): pin for pin in its.pins or ()}
    rows = []
    for pin in mine.pins or ():
        target = its.pin_of(pin.signal)
        same_place = by_place.get((pin.connector, pin.style, pin.pin))
        rows.append(
            PinRow(
                connector=pin.connector,
                pin=pin.pin,
                signal=words.signal(pin.signal),
                to=f"{target.connector} {target.pin}" if target else "no place",
                trap=same_place is not None and same_place.signal != pin.signal,
            )
        )
    return rows
