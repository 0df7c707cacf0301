"""The closest twin: where no setting is in register, those settings whose difference takes longest to meet, or is rarest."""

from collections.abc import Callable, Mapping
from dataclasses import dataclass, replace

from twincore.behaviour import CounterCase, Twin, prove
from twincore.carry_over.single import LIMIT, positions_to_try, still_part
from twincore.errors import TwinError
from twincore.profile import Family, Record, Value

MOST_TRIED = 60
"""Twin checks of one search."""


@dataclass(frozen=True, slots=True)
class Closest:
    """Positions that bring a replacement closer to the original than it stands, and what tells the two apart then."""

    positions: Mapping[str, Value]
    """The points that are set otherwise."""
    case: CounterCase | None
    """What still tells them apart; None where they are in register."""
    tried: int


def closest(
    record: Record, case: CounterCase, twin_of: Callable[[Record], Twin], missed: Callable[[Record], set[str]]
) -> Closest | None:
    """The settings to which single steps lead that each make the difference rarer, or longer to meet; None where no step does.

    Steepest ascent over single positions (Russell and Norvig, "Artificial Intelligence", 4.1), so it may end short of the best.
    `missed` says which safety functions a setting does not meet: a step that misses another one is not taken.
    """
    family = twin_of(record).family
    allowed = missed(record)
    now, tells, tried = record, case, 0
    while tried < MOST_TRIED:
        best: tuple[Record, CounterCase | None] | None = None
        for point, position in positions_to_try(now, twin_of(now)):
            if tried == MOST_TRIED:
                break
            changed = replace(now, points={**now.points, point: position})
            if missed(changed) - allowed:
                continue
            try:
                twin = twin_of(changed)
                if twin.undecided or still_part(twin, tells):
                    continue
                tried += 1
                proof = prove(twin, LIMIT)
            except TwinError:
                continue
            if proof.verdict in ("identical", "within tolerance"):
                return Closest(_moved(record, changed), None, tried)
            found = proof.counter_case
            if found and found.fewest and _farther(found, best[1] if best else tells, family):
                best = changed, found
        if best is None or best[1] is None:
            break
        now, tells = best[0], best[1]
    return None if now is record else Closest(_moved(record, now), tells, tried)


def rate(case: CounterCase, family: Family) -> float | None:
    """How often a day a counter-case can come up at most: as often as the rarest input that it needs; None where the family
    does not say how often one of them changes.
    """
    often = {each["id"]: each.get("often") for each in family.document["inputs"]}
    rates = [often[name] for step in case.steps for name, _ in step.set]
    known = [float(each) for each in rates if each is not None]
    return None if len(known) < len(rates) else min(known, default=None)


def _farther(one: CounterCase, other: CounterCase | None, family: Family) -> bool:
    """Whether a counter-case is rarer than another; where that is not known or equal, whether it takes more changes, or longer."""
    if other is None:
        return False
    mine, theirs = rate(one, family), rate(other, family)
    if mine is not None and theirs is not None and mine != theirs:
        return mine < theirs
    return (one.changes, one.at) > (other.changes, other.at)


def _moved(before: Record, after: Record) -> dict[str, Value]:
    return {
        name: value for name, value in after.points.items() if value is not None and value != before.points.get(name)
    }
