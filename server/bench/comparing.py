"""Two boards side by side: carry-over, copying and twin check together, for the bench and for jobs alike."""

import json
from dataclasses import dataclass, field, replace
from hashlib import sha256
from typing import Any

from bench import wording
from bench.kept import kept
from bench.schemas import (
    ActShown,
    BetweenShown,
    ComparisonShown,
    CopiedShown,
    CounterCaseShown,
    DisagreementShown,
    ExtraShown,
    OffsetShown,
    OffTableShown,
    PlayShown,
    PointShown,
    ProofShown,
    RowShown,
    SchoolRow,
    SchoolShown,
    ShownAt,
    StepShown,
    UnreadableShown,
)
from bench.schools import School, disagreements, schools_of, values_of
from catalogue.profiles import board_profile, family_profile
from config.errors import Faulty
from twincore.behaviour import CounterCase, Proof, make_twin, prove, run_board
from twincore.errors import TwinError
from twincore.match import TwinChecked, check_twin
from twincore.profile import Board, Family, Record, Scenario, Value, written_positions
from twincore.profile.faults import FaultList
from twincore.profile.record import build_record
from twincore.profile.values import exact, plain
from twincore.settings import (
    Carried,
    CarriedFunction,
    Decoded,
    Interpolated,
    TrimmerReading,
    acting,
    at_rest,
    carry,
    copy_positions,
    decode,
    interpolate,
    judge,
    met_wishes,
    off_own_table,
    read_angle,
    same_functions,
    unreadable_points,
    wanted_functions,
)


@dataclass(frozen=True, slots=True)
class Comparison:
    """What is compared: revisions of a family and two boards, the original's positions, the replacement's or None."""

    family_id: int
    original_id: int
    found: dict[str, Any]
    replacement_id: int
    plan: dict[str, Any] | None = None
    wishes: dict[str, Any] = field(default_factory=dict)
    facts: dict[str, Any] = field(default_factory=dict)
    school: str | None = None
    decisions: dict[str, str] = field(default_factory=dict)
    """Which school a person follows for a function."""
    angles: dict[str, Any] = field(default_factory=dict)
    """Trimmers read by angle: degrees, and how well."""

    @property
    def key(self) -> str:
        """Names this comparison; revisions never change, so an answer kept under it stays true."""
        parts: list[Any] = [self.family_id, self.original_id, self.found, self.replacement_id, self.plan, self.wishes]
        if self.school or self.decisions or self.angles:
            parts += [self.school, self.decisions, self.angles, plain(self.facts)]
        return sha256(json.dumps(parts, sort_keys=True).encode()).hexdigest()

    @property
    def family(self) -> Family:
        """The family in common."""
        return family_profile(self.family_id)

    @property
    def original(self) -> Board:
        """The board coming out."""
        return board_profile(self.original_id)

    @property
    def replacement(self) -> Board:
        """The board going in."""
        return board_profile(self.replacement_id)

    def found_record(self) -> Record:
        """The original as found."""
        return record_of(self.original, self.found)

    def settled_record(self) -> Record:
        """The original as found, with what only acted for a while put to rest."""
        return at_rest(self.original, self.found_record())

    def carried(self) -> Carried:
        """The best positions for the replacement."""
        return kept(
            f"carry-{self.key}",
            lambda: carry(self.original, self.found_record(), self.replacement, self.family, self.wished()),
        )

    def between_marks(self) -> dict[str, Interpolated]:
        """Functions whose trimmer points between two marks, with the range that the reading allows."""
        found = {}
        for name, given in self.angles.items():
            reading = trimmer_reading(self.original, name, given)
            for function in self.original.functions.values():
                value = None if reading.on_mark else interpolate(self.original, function, reading)
                if value is not None:
                    found[function.id] = value
        return found

    def solved(self) -> Record | None:
        """The positions that come closest to the functions as found: what the school of functions sets."""
        own = {name: each.value for name, each in self.between_marks().items()} | self._owners()
        words = json.dumps(plain(own), sort_keys=True, default=str)
        return kept(
            f"carry-{sha256(f'{self._plain().key}-{words}'.encode()).hexdigest()}",
            lambda: carry(self.original, self.found_record(), self.replacement, self.family, own),
        ).record

    def _plain(self) -> "Comparison":
        return replace(self, plan=None, school=None, decisions={})

    def schools(self) -> list[School]:
        """What each school would set."""
        return schools_of(self.original, self.found_record(), self.replacement, self.facts, self.solved())

    def _owners(self) -> dict[str, Value]:
        return {name: exactly(value) for name, value in self.wishes.items()}

    def wished(self) -> dict[str, Value]:
        """Functions that are wanted otherwise than the original has them, with exact values: read between marks, decided
        for another school, or wished for by the owner.
        """
        wanted: dict[str, Value] = {name: each.value for name, each in self.between_marks().items()}
        if self.school or self.decisions:
            followed = {school.id: values_of(school, self.replacement, self.family) for school in self.schools()}
            for definition in self.family.functions:
                name = self.decisions.get(definition.id, self.school or "functions")
                value = followed[name].get(definition.id) if name != "functions" else None
                if value is not None and value.decided:
                    wanted[definition.id] = value.values[0]
        return wanted | self._owners()

    def wanted(self) -> dict[str, Decoded]:
        """What the replacement should do."""
        return wanted_functions(self.original, self.found_record(), self.family, self.wished())

    def plan_record(self) -> Record | None:
        """The replacement as planned: the best positions, with what a person set otherwise on top."""
        best = self._followed() or self.carried().record
        if not self.plan:
            return best
        written = written_positions(self.replacement, best.points) if best else {}
        return record_of(self.replacement, {**written, **self.plan})

    def _followed(self) -> Record | None:
        """The very positions of the school that is followed in everything; None where there is none such."""
        if self.school in (None, "functions") or self.decisions or self.wishes:
            return None
        record = next(school.record for school in self.schools() if school.id == self.school)
        return record if record is not None and not record.unreadable else None

    def unmet(self) -> list[str]:
        """Functions that the plan does not meet, or that are open: somebody has to decide about each."""
        record = self.plan_record()
        rows = judge(self.wanted(), self.replacement, record, self.family) if record else ()
        return [row.id for row in rows if row.verdict not in ("same", "within tolerance")]

    def proof(self, record: Record, limit: int | None = None) -> Proof:
        """The twin check of the original as found against the replacement standing so."""
        positions = written_positions(self.replacement, record.points)
        key = sha256(f"{self.key}-{json.dumps(plain(positions))}-{limit}".encode()).hexdigest()
        rows = judge(self.wanted(), self.replacement, record, self.family) if self.wishes else ()
        met = met_wishes(rows, self.wishes)
        twin = make_twin(self.original, self.settled_record(), self.replacement, record, self.family, met)
        return kept(f"prove-{key}", lambda: prove(twin, limit) if limit else prove(twin))

    @property
    def twin_key(self) -> str:
        """The name under which the quick twin check of a candidate is kept."""
        return f"twin-{self.key}"

    def quick_twin(self) -> TwinChecked:
        """Carry-over and twin check with a limit that suits many candidates."""
        return kept(
            self.twin_key,
            lambda: check_twin(self.original, self.settled_record(), self.replacement, self.family, self.wished()),
        )


def trimmer_reading(board: Board, name: str, given: dict[str, Any]) -> TrimmerReading:
    """The reading of a trimmer by angle. Raises Faulty for what is none, or lies beyond its turn."""
    element = next((each for each in board.elements if each.id == name and each.kind == "trimmer"), None)
    if element is None:
        raise Faulty(f"{name} is no trimmer of {board.part_number}.")
    turn = next(each for each in board.document["settings"] if each["id"] == name).get("angles")
    angles = None if turn is None else {key: float(turn[key]) for key in ("from", "to")}
    try:
        return read_angle(element, angles, float(given["degrees"]), float(given["within"]))
    except ValueError as error:
        raise Faulty(f"{name}: {error}.") from error


def exactly(value: Any) -> Any:
    """A value as it came over HTTP, its numbers exact. Raises Faulty where it is larger or finer than numbers are here."""
    if not isinstance(value, float):
        return value
    try:
        return exact(repr(value))
    except ValueError as error:
        raise Faulty(f"Expected {error}, found {value:g}.") from error


def record_of(board: Board, positions: dict[str, Any]) -> Record:
    """A record from positions as written. Raises Faulty with the element and what was expected."""
    faults = FaultList()
    record = build_record({name: exactly(value) for name, value in positions.items()}, board, "positions", faults)
    if faults.faults:
        raise Faulty("A position is not one that this board has.", faults.faults)
    return record


def compare(comparison: Comparison) -> ComparisonShown:
    """Everything about a pair on one page."""
    family, original, replacement = comparison.family, comparison.original, comparison.replacement
    found = comparison.found_record()
    carried = comparison.carried()
    record = comparison.plan_record()
    wanted = comparison.wanted()
    copied = copy_positions(original, found, replacement)
    as_copied = {row.id: row for row in judge(wanted, replacement, copied.record, family)}
    functions = judge(wanted, replacement, record, family) if record else ()
    rows = [_row(each, as_copied[each.id], comparison, found, record) for each in functions]
    return ComparisonShown(
        original=original.part_number,
        replacement=replacement.part_number,
        found=plain(written_positions(original, found.points)),
        plan=plain(written_positions(replacement, record.points)) if record else None,
        best=plain(written_positions(replacement, carried.record.points)) if carried.record else None,
        why=[family.titles.get(name, name) for name in carried.why],
        rows=rows,
        extras=_extras(replacement, record, wanted.keys(), family),
        moved=sum(record.points[name] != point.factory for name, point in replacement.points.items()) if record else 0,
        safety_misses=sum(row.missed and row.importance == "safety" for row in rows),
        other_misses=sum(row.missed and row.importance != "safety" for row in rows),
        unreadable=[
            UnreadableShown(point=u.point, functions=[family.titles[f] for f in u.functions], decides=u.decides)
            for u in unreadable_points(original, found, family)
        ],
        same_layout=original.settings_layout is not None and original.settings_layout == replacement.settings_layout,
        proof=_proof_shown(comparison, record) if record else None,
        schools=[_school_shown(each, comparison, wanted) for each in comparison.schools()],
        disagreements=disagreements_shown(comparison),
        proposed="functions",
        off_own_table=_off_table(comparison),
        acting=[ActShown(point=each.point, what=each.what, ends=each.ends) for each in acting(original, found)],
        between=_between(comparison),
        alternatives=[
            plain(written_positions(replacement, each.points)) for each in same_functions(replacement, record, family)
        ]
        if record
        else [],
        copied=CopiedShown(
            positions=plain(written_positions(replacement, copied.record.points)),
            without_place=list(copied.without_place),
            proof=_proof_shown(comparison, copied.record),
        ),
    )


def _school_shown(school: School, comparison: Comparison, wanted: dict[str, Decoded]) -> SchoolShown:
    family, replacement = comparison.family, comparison.replacement
    rows = judge(wanted, replacement, school.record, family) if school.record else ()
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
                missed=row.verdict in ("off", "not on this board"),
            )
            for row in rows
            if (definition := family.function(row.id))
        ],
        proof=_proof_shown(comparison, school.record) if school.record else None,
    )


def disagreements_shown(comparison: Comparison) -> list[DisagreementShown]:
    """What somebody has to decide, with each school's value and what the machine would do otherwise."""
    family = comparison.family
    as_found = replace(comparison, school=None, decisions={}).wanted()
    found = disagreements(comparison.schools(), as_found, comparison.replacement, family)
    shown = []
    for name, said in found.items():
        definition = family.function(name)
        assert definition is not None  # disagreements go over the family's functions
        shown.append(
            DisagreementShown(
                id=name,
                title=definition.title,
                found=wording.decoded_words(as_found[name], definition) if name in as_found else "",
                says={school: wording.value_words(value, definition) for school, value in said.items()},
                decided=comparison.decisions.get(name, comparison.school or ""),
            )
        )
    return shown


def _off_table(comparison: Comparison) -> list[OffTableShown]:
    found = comparison.found_record()
    return [
        OffTableShown(point=point, found=_point_words(found.points[point]), table=_point_words(value))
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


def _row(
    row: CarriedFunction, copied: CarriedFunction, comparison: Comparison, found: Record, record: Record | None
) -> RowShown:
    family = comparison.family
    definition = family.function(row.id)
    assert definition is not None  # judge goes over the family's functions
    return RowShown(
        id=row.id,
        title=definition.title,
        importance=definition.importance,
        wanted=wording.decoded_words(row.wanted, definition),
        on_original=row.id in comparison.original.functions,
        on_replacement=row.id in comparison.replacement.functions,
        got=wording.value_words(row.got, definition),
        verdict=row.verdict,
        missed=row.verdict in ("off", "not on this board"),
        difference=wording.difference_words(row, definition),
        tolerance=wording.tolerance_words(definition),
        original_points=_points(comparison.original, row.id, found),
        replacement_points=_points(comparison.replacement, row.id, record) if record else [],
        copied=wording.value_words(copied.got, definition) if copied.verdict != "open" else "open",
        copied_difference=wording.difference_words(copied, definition),
        copied_missed=copied.verdict in ("off", "not on this board"),
    )


def _points(board: Board, function: str, record: Record) -> list[PointShown]:
    scope = board.functions[function].scope if function in board.functions else ()
    return [PointShown(point=name, value=_point_words(record.points[name])) for name in scope]


def _point_words(value: Value | None) -> str:
    return "?" if value is None else value if isinstance(value, str) else wording.number(value)


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


def _proof_shown(comparison: Comparison, record: Record) -> ProofShown:
    try:
        return proof_shown(comparison.proof(record), comparison)
    except TwinError as error:
        return ProofShown(verdict="not proved", words=f"Not proved: {error}", offsets=[], told=[], explored=0)


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
        words=wording.verdict_words(proof, family),
        offsets=offsets,
        told=wording.counter_case_words(case, family, comparison.original, comparison.replacement) if case else [],
        explored=proof.explored,
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
        steps=[StepShown(at=float(step.at), set=dict(step.set)) for step in case.steps],
        at=float(case.at),
        differing=differing,
    )


def play(comparison: Comparison, scenario: Scenario) -> PlayShown:
    """A scenario on both boards; numbers as they are set, not as the twin check evens them out."""
    record = comparison.plan_record()
    if record is None:
        raise Faulty("There are no positions to play: every choice on this board is reserved.")
    sides = []
    for board, positions in ((comparison.original, comparison.settled_record()), (comparison.replacement, record)):
        shown = run_board(board, positions, comparison.family, scenario)
        sides.append([ShownAt(at=float(e.at), on=list(e.on), states=list(e.states)) for e in shown])
    return PlayShown(original=sides[0], replacement=sides[1], until=float(scenario.until))
