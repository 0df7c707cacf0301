"""Which single setting of the replacement, if any, would bring two boards that part into register: each is tried, none is guessed."""

from collections.abc import Callable, Iterator
from dataclasses import dataclass, replace
from itertools import islice

from twincore.behaviour import CounterCase, Twin, prove
from twincore.behaviour.simulate import run_values
from twincore.errors import TwinError
from twincore.profile import Record, Value
from twincore.settings import decode

FEW = 16
"""Positions up to which all of a point are tried; of one that has more, those that give a function the original's value."""
MOST_TRIED = 40
LIMIT = 1_000
"""Arrivals after which one trial's twin check ends without an answer."""


@dataclass(frozen=True, slots=True)
class Single:
    """A point of the replacement, the position that brings the boards into register, and the verdict then."""

    point: str
    position: Value
    verdict: str


def single_settings(record: Record, case: CounterCase, twin_of: Callable[[Record], Twin]) -> list[Single]:
    """The single settings of a replacement, standing so, after which it is in register with the original."""
    now = twin_of(record)
    found = []
    for point, position in islice(positions_to_try(record, now), MOST_TRIED):
        changed = replace(record, points={**record.points, point: position})
        try:
            twin = twin_of(changed)
            if twin.undecided or still_part(twin, case):
                continue
            proof = prove(twin, LIMIT)
        except TwinError:
            continue
        if proof.verdict in ("identical", "within tolerance"):
            found.append(Single(point, position, proof.verdict))
    return found


def positions_to_try(record: Record, twin: Twin) -> Iterator[tuple[str, Value]]:
    """Other positions of the replacement, each by itself, that change a function by which the board behaves."""
    board, family = twin.replacement, twin.family
    used = set(board.behaviour.named_functions()) if board.behaviour else set()
    before = decode(board, record, family)
    for point in board.points.values():
        hanging = [f for f in board.functions.values() if f.id in used and point.id in f.scope]
        if point.locked or not hanging:
            continue
        for position in point.domain:
            if position == record.points.get(point.id):
                continue
            after = decode(board, replace(record, points={**record.points, point.id: position}), family)
            changed = [f.id for f in hanging if after[f.id] != before[f.id]]
            wanted = [name for name in changed if after[name].values == (twin.values[0].get(name),)]
            if not changed or (len(point.domain) > FEW and not wanted):
                continue
            yield point.id, position


def still_part(twin: Twin, case: CounterCase) -> bool:
    """Whether the same series of changes still makes them show something different at its end."""
    shown = [
        set(run_values(board, values, twin.family, case.scenario())[-1].on) & twin.family.compared
        for board, values in zip((twin.original, twin.replacement), twin.values, strict=True)
    ]
    return shown[0] != shown[1]
