"""What is compared: two boards, how the original stood, and whose school is followed; with a job and without one."""

import json
from collections.abc import Callable
from dataclasses import dataclass, field, replace
from hashlib import sha256
from typing import Any, Protocol, TypeVar

from twincore.behaviour import CounterCase, Proof, Twin, make_twin, prove
from twincore.carry_over.closest import Closest, closest
from twincore.carry_over.outcome import Outcome, Wanted, outcomes
from twincore.carry_over.schools import School, schools_of, values_of
from twincore.carry_over.single import Single, single_settings
from twincore.choose import TwinChecked, check_twin
from twincore.errors import WrongValue
from twincore.profile import Board, Family, Record, Value, written_positions
from twincore.profile.faults import FaultList
from twincore.profile.record import build_record
from twincore.profile.values import exact, plain
from twincore.settings import (
    ByTable,
    Carried,
    Decoded,
    Interpolated,
    TrimmerReading,
    at_rest,
    carry,
    interpolate,
    judge,
    met_wishes,
    read_angle,
    wanted_functions,
)
from twincore.settings import School as SchoolName

Answer = TypeVar("Answer")


class Keep(Protocol):
    """Somewhere to keep answers by a key that names all they hang on."""

    def __call__(self, key: str, work: Callable[[], Answer]) -> Answer:
        """The answer kept under a key, or a new one."""


def work_out(key: str, work: Callable[[], Answer]) -> Answer:
    """Keeps nothing: every answer is worked out anew."""
    return work()


def _key_of(names: tuple[object, object, object], found: Any, plan: Any, wishes: Any, more: list[Any]) -> str:
    family, original, replacement = names
    parts: list[Any] = [family, original, found, replacement, plan, wishes, *more]
    return sha256(json.dumps(parts, sort_keys=True).encode()).hexdigest()


def twin_key(
    names: tuple[object, object, object],
    found: dict[str, Any],
    wishes: dict[str, Any],
    plan: dict[str, Any] | None = None,
) -> str:
    """The name under which the quick twin check of a candidate is kept, told without its boards."""
    return f"twin-{_key_of(names, found, None, wishes, [])}"


@dataclass(frozen=True, slots=True)
class Comparison:
    """What is compared: a family and two boards, the original's positions, the replacement's or None.

    `names` name the revisions of the three, which never change, so that an answer kept under them stays true.
    """

    family: Family
    original: Board
    replacement: Board
    found: dict[str, Any]
    names: tuple[object, object, object] = ("", "", "")
    keep: Keep = work_out
    plan: dict[str, Any] | None = None
    wishes: dict[str, Any] = field(default_factory=dict)
    facts: dict[str, Any] = field(default_factory=dict)
    school: SchoolName | None = None
    decisions: dict[str, SchoolName] = field(default_factory=dict)
    """Which school a person follows for a function."""
    angles: dict[str, Any] = field(default_factory=dict)
    """Trimmers read by angle: degrees, and how well."""
    told: dict[str, Any] = field(default_factory=dict)
    """Codes of the replacement that stand on the machine's plate: nobody solves for them."""
    read: dict[str, Any] | None = None
    """The original's positions as they were read, where `found` has some that somebody assumed."""

    @property
    def key(self) -> str:
        """Names this comparison."""
        more = [self.school, self.decisions, self.angles, plain(self.facts)]
        told = more if self.school or self.decisions or self.angles else []
        return _key_of(self.names, self.found, self.plan, self.wishes, told)

    @property
    def same_board(self) -> bool:
        """Whether the very same number goes in again: then it is set as the old one stood."""
        return self.original.part_number == self.replacement.part_number

    @property
    def assumed(self) -> list[str]:
        """The elements of the original that somebody assumed to stand as `found` has them."""
        return [name for name, value in (self.read or {}).items() if value != self.found.get(name)]

    def found_record(self) -> Record:
        """The original as found."""
        return record_of(self.original, self.found)

    def settled_record(self) -> Record:
        """The original as found, with what only acted for a while put to rest."""
        return at_rest(self.original, self.found_record())

    def carried(self) -> Carried:
        """The best positions for the replacement."""
        return self.keep(
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
        return self.undecided().carried().record if self.replacement.meanings_known else None

    def undecided(self) -> "Comparison":
        """The same before anybody decided for a school or set a position by hand."""
        return replace(self, plan=None, school=None, decisions={})

    @property
    def proposed(self) -> SchoolName:
        """The school that is followed where nobody says otherwise.

        The same board again is set as the old one stood. Where nobody knows what positions mean, or nothing of the original
        could be read, the leaflet's row, if one holds. Else by functions.
        """
        if self.same_board and not self.found_record().unreadable:
            return "positions"
        known = self.replacement.meanings_known and self.original.meanings_known and self._anything_read
        if not known and (table := self.by_table()) is not None and table.settled:
            return "table"
        return "positions" if self.same_board else "functions"

    def by_table(self) -> ByTable | None:
        """What the replacement's leaflet says for this machine."""
        return next(each.table for each in self.schools() if each.id == "table")

    @property
    def _anything_read(self) -> bool:
        return any(value is not None for value in self.found_record().points.values())

    def schools(self) -> list[School]:
        """What each school would set."""
        return schools_of(self.original, self.found_record(), self.replacement, self.facts, self.solved())

    def wished(self) -> dict[str, Value]:
        """Functions that are wanted otherwise than the positions of the original say, with exact values: read between marks,
        decided for another school, or wished for by the owner.
        """
        return self._between() | {name: each.value.values[0] for name, each in self._otherwise().items()}

    def _between(self) -> dict[str, Value]:
        return {name: each.value for name, each in self.between_marks().items()}

    def _otherwise(self) -> dict[str, Wanted]:
        """Functions that are wanted otherwise than they were found; the owner's word stands before a school's."""
        wanted: dict[str, Wanted] = {}
        if self.school or self.decisions:
            followed = {school.id: values_of(school, self.replacement, self.family) for school in self.schools()}
            for definition in self.family.functions:
                name = self.decisions.get(definition.id, self.school or "functions")
                value = followed[name].get(definition.id) if name != "functions" else None
                if value is not None and value.decided:
                    wanted[definition.id] = Wanted(value, name)
        return wanted | {name: Wanted(Decoded((exactly(value),)), "owner") for name, value in self.wishes.items()}

    def as_found(self) -> dict[str, Decoded]:
        """What the original did: by its positions, and by its trimmers between two marks."""
        return wanted_functions(self.original, self.found_record(), self.family, self._between())

    def wanted(self) -> dict[str, Decoded]:
        """What the replacement should do."""
        return wanted_functions(self.original, self.found_record(), self.family, self.wished())

    def outcomes(self, record: Record) -> tuple[Outcome, ...]:
        """Every function as found, as wanted, and as the replacement gives it that stands so."""
        found, otherwise = self.as_found(), self._otherwise()
        wanted = {name: otherwise.get(name) or Wanted(value) for name, value in found.items()}
        wanted |= {name: each for name, each in otherwise.items() if each.word == "owner"}
        read = found
        if self.read is not None:
            read = wanted_functions(self.original, record_of(self.original, self.read), self.family, self._between())
        return outcomes(found, wanted, read, self.replacement, record, self.family)

    def plan_record(self) -> Record | None:
        """The replacement as planned: the best positions, with what a person set otherwise on top.

        None where nothing can be set; where nobody knows what positions mean, until a person set every one of them.
        """
        best = self.without_hands()
        if not self.plan and not self.told:
            return best
        written = written_positions(self.replacement, best.points) if best else {}
        made = record_of(self.replacement, {**written, **self.told, **(self.plan or {})})
        return None if made.unreadable and not self.replacement.meanings_known else made

    def without_hands(self) -> Record | None:
        """The replacement as it would be set if nobody set a position by hand; None where nothing says how."""
        return self.followed() or (self.carried().record if self.replacement.meanings_known else None)

    def followed(self) -> Record | None:
        """The very positions of the school that is followed in everything; None where there is none such.

        The same board again is set as the old one stood, unless somebody says otherwise or not all of it could be read.
        """
        followed = self.school or self.proposed
        if followed == "functions" or self.decisions or self.wishes:
            return None
        record = next(school.record for school in self.schools() if school.id == followed)
        return record if record is not None and not record.unreadable else None

    @property
    def answered_for(self) -> bool:
        """Whether positions of which nobody knows what they mean are answered for all the same: by the same board as it
        stood, or by the school that is followed.
        """
        return not self.replacement.meanings_known and not self.plan and self.followed() is not None

    def unmet(self) -> list[str]:
        """Functions that the plan does not meet, or that are open: somebody has to decide about each."""
        if self.answered_for:
            return []
        record = self.plan_record()
        return [each.id for each in self.outcomes(record) if not each.asked.met] if record else []

    def proof(self, record: Record, limit: int | None = None) -> Proof:
        """The twin check of the original as found against the replacement standing so."""
        positions = written_positions(self.replacement, record.points)
        key = sha256(f"{self.key}-{json.dumps(plain(positions))}-{limit}".encode()).hexdigest()
        twin = self.twin(record)
        return self.keep(f"prove-{key}", lambda: prove(twin, limit) if limit else prove(twin))

    def singles(self, record: Record, case: CounterCase) -> list[Single]:
        """The single settings that would bring the replacement, standing so, into register."""
        return self.keep(f"single-{self._key_of(record)}", lambda: single_settings(record, case, self.twin))

    def closest(self, record: Record, case: CounterCase) -> Closest | None:
        """Settings with which it takes longer to meet a difference than with the replacement standing so."""
        return self.keep(
            f"closest-{self._key_of(record)}", lambda: closest(record, case, self.twin, self._missed_safety)
        )

    def second_key(self, record: Record) -> str:
        """The name under which it is kept whether a second program agrees with the twin check of the replacement standing so."""
        return f"second-{self._key_of(record)}"

    def _missed_safety(self, record: Record) -> set[str]:
        rows = judge(self.wanted(), self.replacement, record, self.family)
        return {row.id for row in rows if row.importance == "safety" and not row.met}

    def _key_of(self, record: Record) -> str:
        positions = written_positions(self.replacement, record.points)
        return sha256(f"{self.key}-{json.dumps(plain(positions))}".encode()).hexdigest()

    def twin(self, record: Record) -> Twin:
        """Both boards as they are compared: the original as found, the replacement standing so."""
        met = self.left_out(record)
        return make_twin(self.original, self.settled_record(), self.replacement, record, self.family, met)

    def left_out(self, record: Record) -> list[str]:
        """The functions that the owner wants otherwise and has on the replacement standing so: the twin check leaves them out."""
        rows = judge(self.wanted(), self.replacement, record, self.family) if self.wishes else ()
        return met_wishes(rows, self.wishes)

    @property
    def twin_key(self) -> str:
        """The name under which the quick twin check of a candidate is kept."""
        return f"twin-{self.key}"

    def quick_twin(self) -> TwinChecked:
        """Carry-over and twin check with a limit that suits many candidates."""
        return self.keep(
            self.twin_key,
            lambda: check_twin(self.original, self.settled_record(), self.replacement, self.family, self.wished()),
        )


def trimmer_reading(board: Board, name: str, given: dict[str, Any]) -> TrimmerReading:
    """The reading of a trimmer by angle. Raises WrongValue for what is none, or lies beyond its turn."""
    element = next((each for each in board.elements if each.id == name and each.rules.turned), None)
    if element is None:
        raise WrongValue(f"{name} is no trimmer of {board.part_number}.")
    turn = next(each for each in board.document["settings"] if each["id"] == name).get("angles")
    angles = None if turn is None else {key: float(turn[key]) for key in ("from", "to")}
    try:
        return read_angle(element, angles, float(given["degrees"]), float(given["within"]))
    except ValueError as error:
        raise WrongValue(f"{name}: {error}.") from error


def exactly(value: Any) -> Any:
    """A value as it came in, its numbers exact. Raises WrongValue where it is larger or finer than numbers are here."""
    if not isinstance(value, float):
        return value
    try:
        return exact(repr(value))
    except ValueError as error:
        raise WrongValue(f"Expected {error}, found {value:g}.") from error


def record_of(board: Board, positions: dict[str, Any]) -> Record:
    """A record from positions as written. Raises WrongValue with the element and what was expected."""
    faults = FaultList()
    record = build_record({name: exactly(value) for name, value in positions.items()}, board, "positions", faults)
    if faults.faults:
        raise WrongValue("A position is not one that this board has.", faults.faults)
    return record
