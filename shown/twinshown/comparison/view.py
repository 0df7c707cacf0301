"""Two boards side by side, for the screen: carry-over, schools and twin check together."""

from typing import Any

from twincore.behaviour import CounterCase, Proof
from twincore.carry_over import Comparison, Outcome, School, disagreements
from twincore.errors import TwinError
from twincore.profile import Board, Family, FunctionDef, Record, written_positions
from twincore.profile.values import plain
from twincore.settings import (
    CarriedFunction,
    Decoded,
    acting,
    decode,
    judge,
    off_own_table,
    same_functions,
    unreadable_points,
)
from twinshown.comparison import wording
from twinshown.comparison.playing import step_shown
from twinshown.comparison.schemas import (
    ActShown,
    BetweenShown,
    ComparisonShown,
    CounterCaseShown,
    DisagreementShown,
    EndlessShown,
    ExtraShown,
    OffsetShown,
    OffTableShown,
    PointShown,
    ProofShown,
    RowShown,
    SchoolRow,
    SchoolSays,
    SchoolShown,
    UnreadableShown,
)
from twinshown.comparison.why_words import closest_words, rests_words, single_words, why_words

APART = ("off", "not on this board")
"""Verdicts of a function in which the two boards differ, and nobody wished for it."""


def compare(comparison: Comparison, left: Record | None = None) -> ComparisonShown:
    """Everything about a pair on one page; the replacement as it was left, or as planned where that is not said."""
    family, original, replacement = comparison.family, comparison.original, comparison.replacement
    found = comparison.found_record()
    carried = comparison.carried()
    best = comparison.without_hands()
    as_found = comparison.undecided().wanted()
    record = left or comparison.plan_record()
    rows = [_row(each, comparison, found, record) for each in comparison.outcomes(record)] if record else []
    return ComparisonShown(
        original=original.part_number,
        replacement=replacement.part_number,
        found=plain(written_positions(original, found.points)),
        plan=plain(written_positions(replacement, record.points)) if record else None,
        best=plain(written_positions(replacement, best.points)) if best else None,
        why=[family.titles.get(name, name) for name in carried.why],
        rows=rows,
        extras=_extras(replacement, record, {row.id for row in rows}, family),
        proved=carried.proved,
        moved=sum(record.points[name] != point.factory for name, point in replacement.points.items()) if record else 0,
        safety_misses=sum(row.verdict in APART and row.importance == "safety" for row in rows),
        other_misses=sum(row.verdict in APART and row.importance != "safety" for row in rows),
        unreadable=[
            UnreadableShown(point=u.point, functions=[family.titles[f] for f in u.functions], decides=u.decides)
            for u in unreadable_points(original, found, family)
        ],
        meanings_known=replacement.meanings_known,
        read_known=original.meanings_known,
        same_layout=original.settings_layout is not None and original.settings_layout == replacement.settings_layout,
        proof=explained(comparison, record) if record else None,
        schools=[_school_shown(each, comparison, as_found) for each in comparison.schools()],
        disagreements=disagreements_shown(comparison, as_found),
        proposed=comparison.proposed,
        off_own_table=_off_table(comparison),
        acting=[ActShown(point=each.point, what=each.what, ends=each.ends) for each in acting(original, found)],
        between=_between(comparison),
        alternatives=[
            plain(written_positions(replacement, each.points)) for each in same_functions(replacement, record, family)
        ]
        if record
        else [],
        codes_to_read=[],
    )


def _school_shown(school: School, comparison: Comparison, as_found: dict[str, Decoded]) -> SchoolShown:
    family, replacement = comparison.family, comparison.replacement
    rows = judge(as_found, replacement, school.record, family) if school.record else ()
    return SchoolShown(
        id=school.id,
        counts=school.counts,
        positions=plain(written_positions(replacement, school.record.points)) if school.record else None,
        says=wording.school_words(school, family),
        functions=[
            SchoolRow(
                id=row.id,
                value=wording.value_words(row.got, definition) if row.verdict != "open" else "open",
                difference=wording.difference_words(row, definition),
                missed=row.missed,
            )
            for row in rows
            if (definition := family.function(row.id))
        ],
        proof=explained(comparison, school.record) if school.record else None,
    )


def disagreements_shown(comparison: Comparison, as_found: dict[str, Decoded]) -> list[DisagreementShown]:
    """What somebody has to decide, with each school's value and what the machine would do otherwise."""
    family = comparison.family
    found = disagreements(comparison.schools(), as_found, comparison.replacement, family)
    shown = []
    effects = {
        each.id: {row.id: row for row in judge(as_found, comparison.replacement, each.record, family)}
        for each in comparison.schools()
        if each.record and found
    }
    for name, said in found.items():
        definition = family.function(name)
        assert definition is not None  # disagreements go over the family's functions
        shown.append(
            DisagreementShown(
                id=name,
                title=definition.title,
                found=wording.decoded_words(as_found[name], definition) if name in as_found else "",
                says=[
                    SchoolSays(
                        school=school,
                        value=wording.value_words(value, definition),
                        difference=_effect(effects[school], name, definition),
                    )
                    for school, value in said.items()
                ],
                decided=comparison.decisions.get(name, comparison.school or ""),
            )
        )
    return shown


def _effect(rows: dict[str, CarriedFunction], name: str, definition: FunctionDef) -> str:
    """What a school makes otherwise of a function that somebody wants to be something."""
    return wording.difference_words(rows[name], definition) if name in rows else ""


def _off_table(comparison: Comparison) -> list[OffTableShown]:
    found = comparison.found_record()
    return [
        OffTableShown(
            point=point, found=wording.position_words(found.points[point]), table=wording.position_words(value)
        )
        for point, value in off_own_table(comparison.original, found, comparison.facts).items()
    ]


def _between(comparison: Comparison) -> list[BetweenShown]:
    shown = []
    for name, each in comparison.between_marks().items():
        definition = comparison.family.function(name)
        assert definition is not None  # checked when the board was loaded
        shown.append(
            BetweenShown(
                id=name,
                title=definition.title,
                value=wording.value_words(each.value, definition),
                low=wording.value_words(each.low, definition),
                high=wording.value_words(each.high, definition),
            )
        )
    return shown


def _row(outcome: Outcome, comparison: Comparison, found: Record, record: Record) -> RowShown:
    definition = comparison.family.function(outcome.id)
    assert definition is not None  # outcomes go over the family's functions
    unknown = comparison.answered_for
    difference = wording.difference_words(outcome.compared, definition) if outcome.compared else ""
    return RowShown(
        id=outcome.id,
        title=definition.title,
        importance=definition.importance,
        found=wording.decoded_words(outcome.found, definition) if outcome.found else "not there",
        wanted=wording.decoded_words(outcome.wanted.value, definition),
        wanted_by=wording.WORDS[outcome.wanted.word] if outcome.otherwise else "",
        on_original=outcome.id in comparison.original.functions,
        on_replacement=outcome.id in comparison.replacement.functions,
        got="not known" if unknown else wording.value_words(outcome.asked.got, definition),
        verdict="not known" if unknown else outcome.verdict,
        met=unknown or outcome.asked.met,
        missed=not unknown and outcome.asked.missed,
        assumed=outcome.assumed,
        difference="" if unknown else difference,
        tolerance=wording.tolerance_words(definition),
        original_points=_points(comparison.original, outcome.id, found),
        replacement_points=_points(comparison.replacement, outcome.id, record),
    )


def _points(board: Board, function: str, record: Record) -> list[PointShown]:
    scope = board.functions[function].scope if function in board.functions else ()
    return [PointShown(point=name, value=wording.position_words(record.points[name])) for name in scope]


def _extras(replacement: Board, record: Record | None, wanted: Any, family: Family) -> list[ExtraShown]:
    """Functions that only the replacement has: nobody said what they should be."""
    if record is None:
        return []
    decoded = decode(replacement, record, family)
    return [
        ExtraShown(
            title=definition.title,
            value=wording.decoded_words(decoded[definition.id], definition),
            points=_points(replacement, definition.id, record),
        )
        for definition in family.functions
        if definition.id in decoded and definition.id not in wanted
    ]


def _better(comparison: Comparison, record: Record, case: CounterCase) -> list[str]:
    """Which single setting would bring the boards into register; where none does, which settings come closer."""
    told = single_words(comparison.singles(record, case))
    told = told or closest_words(comparison.closest(record, case), case, comparison.family)
    return [told] if told else []


ALIKE = ("identical", "within tolerance")
COMPARED = (*ALIKE, "different")
"""Verdicts that say something of how both boards behave."""


def explained(comparison: Comparison, record: Record) -> ProofShown:
    """The proof of the replacement standing so, with why the two part, and which settings bring them together, or closer."""
    try:
        proof = comparison.proof(record)
        shown = proof_shown(proof, comparison)
        if proof.verdict in COMPARED:
            left_out = [comparison.family.titles[name] for name in comparison.left_out(record)]
            shown.words += wording.apart_words(left_out, comparison.assumed)
        if proof.counter_case:
            shown.why = why_words(comparison.twin(record), proof.counter_case) + _better(
                comparison, record, proof.counter_case
            )
        return shown
    except TwinError as error:
        return ProofShown(
            verdict="not proved", words=f"Not proved: {error}", offsets=[], told=[], endless=[], explored=0, why=[]
        )


def proof_shown(proof: Proof, comparison: Comparison) -> ProofShown:
    """A proof for the screen and the job sheet."""
    family = comparison.family
    offsets = []
    for each in proof.offsets:
        definition = family.function(each.id)
        assert definition is not None  # offsets are of the family's functions
        offsets.append(
            OffsetShown(
                title=definition.title,
                original=wording.value_words(each.original, definition),
                replacement=wording.value_words(each.replacement, definition),
            )
        )
    case = proof.counter_case
    return ProofShown(
        verdict=proof.verdict,
        words=wording.verdict_words(proof, family, (comparison.original, comparison.replacement)),
        offsets=offsets,
        told=wording.counter_case_words(case, family, comparison.original, comparison.replacement) if case else [],
        endless=[
            EndlessShown(
                board=each.board,
                told=wording.endless_words(each, family, board),
                steps=[step_shown(step) for step in each.steps],
                at=float(each.at),
            )
            for each in proof.endless
            for board in [
                comparison.original if each.board == comparison.original.part_number else comparison.replacement
            ]
        ],
        explored=proof.explored,
        why=rests_words(proof, family) if proof.verdict in ALIKE else [],
        counter_case=_case_shown(case, family) if case else None,
    )


def _case_shown(case: CounterCase, family: Family) -> CounterCaseShown:
    differing = [
        name
        for name in family.outputs
        if name in family.compared and (name in case.original) != (name in case.replacement)
    ]
    return CounterCaseShown(
        changes=case.changes,
        fewest=case.fewest,
        steps=[step_shown(step) for step in case.steps],
        at=float(case.at),
        differing=differing,
    )
