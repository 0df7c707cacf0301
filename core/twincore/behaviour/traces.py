"""Compare a board with what another was seen to do: evidence for those scenarios, not a proof."""

from collections.abc import Mapping
from dataclasses import dataclass
from fractions import Fraction

from twincore.behaviour.functions import function_values, offsets, undecided
from twincore.behaviour.simulate import Shown, run_values
from twincore.errors import TwinError, UndecidedError
from twincore.profile import Board, Family, Number, Record, Trace, Value
from twincore.settings import Decoded

VERDICTS = ("in time", "late", "early", "missing", "extra")


@dataclass(frozen=True, slots=True)
class TraceEvent:
    """One change of an output: when it was seen, when this board makes it, and what that is called."""

    output: str
    on: bool
    seen_at: Number | None
    at: Number | None
    within_s: Number
    verdict: str


@dataclass(frozen=True, slots=True)
class TraceChecked:
    """Every event of one trace; `agrees` when all are in time."""

    events: tuple[TraceEvent, ...]

    @property
    def agrees(self) -> bool:
        """Whether the board makes this trace."""
        return all(event.verdict == "in time" for event in self.events)


def check_trace(
    board: Board, record: Record, family: Family, trace: Trace, wanted: Mapping[str, Decoded] | None = None
) -> TraceChecked:
    """Whether a board standing so would have been seen to do what the trace has.

    `wanted` are the functions of the board that was observed: numbers within tolerance of them count as theirs, as in
    the twin check. Only outputs that the family compares are looked at. Raises TwinError where the behaviour is not
    known, UndecidedError where positions leave it open.
    """
    if board.behaviour is None:
        raise TwinError(f"behaviour: expected a behaviour, but that of {board.part_number} is not known")
    decoded = function_values(board, record, family)
    if open_functions := undecided(board, decoded):
        raise UndecidedError(open_functions)
    values: dict[str, Value] = {name: each.values[0] for name, each in decoded.items() if each.decided}
    for offset in offsets(dict(wanted or {}), decoded, family):
        values[offset.id] = offset.original
    return compared(run_values(board, values, family, trace.scenario), trace, family)


def compared(shown: list[Shown], trace: Trace, family: Family) -> TraceChecked:
    """A run against a trace, output by output: the first change to on with the first, and so on."""
    made: dict[tuple[str, bool], list[Number]] = {}
    before: set[str] = set()
    for entry in shown:
        for output in set(entry.on) ^ before:
            made.setdefault((output, output in entry.on), []).append(entry.at)
        before = set(entry.on)
    events = []
    for seen in trace.seen:
        if seen.output not in family.compared:
            continue
        waiting = made.get((seen.output, seen.on), [])
        at = waiting.pop(0) if waiting else None
        events.append(
            TraceEvent(seen.output, seen.on, seen.at, at, seen.within_s, _verdict(seen.at, at, seen.within_s))
        )
    extra = [
        TraceEvent(output, on, None, at, 0, "extra")
        for (output, on), times in made.items()
        if output in family.compared
        for at in times
    ]
    return TraceChecked(tuple(sorted([*events, *extra], key=_moment)))


def _moment(event: TraceEvent) -> tuple[Number, str]:
    seen = event.seen_at if event.seen_at is not None else event.at
    assert seen is not None  # an event was seen, or is made, or both
    return seen, event.output


def _verdict(seen: Number, at: Number | None, within: Number) -> str:
    if at is None:
        return "missing"
    if abs(Fraction(at) - Fraction(seen)) <= within:
        return "in time"
    return "late" if at > seen else "early"
