"""Prove: do two boards show the same outputs for every series of input changes, or what tells them apart?"""

from collections.abc import Collection
from dataclasses import dataclass, replace

from twincore.behaviour.changes import changes_of
from twincore.behaviour.compiling import behaviour_times, compile_side
from twincore.behaviour.effort import Effort, Spent, effort_of
from twincore.behaviour.functions import Offset, function_values, offsets, undecided
from twincore.behaviour.heading import Heading, clocks_that_differ
from twincore.behaviour.lockstep import in_lockstep
from twincore.behaviour.machine import Side, time_unit, without_laps
from twincore.behaviour.nodes import Event, Found, Loop, Node, times_of, way_to
from twincore.behaviour.pair import Pair, build_pair
from twincore.behaviour.simulate import Shown, play
from twincore.behaviour.stepwise import may_go_round, step_for_step
from twincore.behaviour.zones import MOST_TIMED, Ahead, ExactSearch
from twincore.errors import TwinError
from twincore.profile import Board, Family, Number, Record, Scenario, Step, Value, written_positions
from twincore.profile.values import tidy
from twincore.settings import Decoded

PLAIN = 1_000
"""Arrivals up to which a search without a heading is the quicker one."""
LIGHT = 6_000
"""Arrivals for which the heading is tried that is quickly made."""
LIMIT = 40_000
"""Arrivals at a settled pair after which a search says `not proved`; and the effort of them (ten seconds) for the whole question."""
CHEAP, TABLES, FIRST, HEADED, ALONE = 0.2, 0.5, 0.25, 0.8, 0.2
"""The parts of what is left that a cheap proof may cost, that tables for looking ahead may cost, that the search with the first of them may, that with all of
them (the rest is for any difference at all), and that is kept for boards which may go round.
"""


@dataclass(frozen=True, slots=True)
class CounterCase:
    """A scenario at whose end (`at`, seconds) the two boards show different outputs."""

    changes: int
    fewest: bool
    steps: tuple[Step, ...]
    at: Number
    original: tuple[str, ...]
    replacement: tuple[str, ...]
    original_states: tuple[str, ...]
    replacement_states: tuple[str, ...]
    between: tuple[tuple[str, Number, Number], ...] = ()
    """Where each level stands at the end: between which thresholds, of either board."""

    def scenario(self) -> Scenario:
        """The counter-case as a scenario like any other."""
        return Scenario("", self.steps, self.at)


@dataclass(frozen=True, slots=True)
class Endless:
    """A board that goes round without end for certain inputs: through which states, and a shortest way there, at whose end
    (`at`, seconds) it does.
    """

    board: str
    states: tuple[str, ...]
    steps: tuple[Step, ...]
    at: Number = 0


@dataclass(frozen=True, slots=True)
class Proof:
    """The verdict of a twin check, with what it rests on."""

    verdict: str
    offsets: tuple[Offset, ...]
    counter_case: CounterCase | None = None
    functions: tuple[str, ...] = ()
    missing: tuple[str, ...] = ()
    explored: int = 0
    limit: int | None = None
    method: str = ""
    endless: tuple[Endless, ...] = ()
    symbols: int = 0
    """How many single changes can matter to either board."""
    least: int = 0
    """Where the search was broken off: no difference needs fewer input changes than so many."""
    covered: bool = False
    """Whether the boards part where a clock that stops and goes on is followed more widely than it runs, and no exact run shows it."""

    def answer(self) -> dict[str, object]:
        """As the command line writes it."""
        found: dict[str, object] = {
            "verdict": self.verdict,
            "offsets": [{"id": o.id, "original": o.original, "replacement": o.replacement} for o in self.offsets],
        }
        if case := self.counter_case:
            found["counter_case"] = {
                "changes": case.changes,
                "fewest": case.fewest,
                "steps": _written(case.steps),
                "at": case.at,
                "original": list(case.original),
                "replacement": list(case.replacement),
            }
        if self.functions:
            found["functions"] = list(self.functions)
        if self.missing:
            found["missing"] = list(self.missing)
        if self.endless:
            found["endless"] = [
                {"board": each.board, "states": list(each.states), "steps": _written(each.steps)}
                for each in self.endless
            ]
        if self.explored:
            found["explored"] = self.explored
        if self.limit is not None:
            found["limit"] = self.limit
        if self.least > 1:
            found["at_least"] = self.least
        return found


def _written(steps: tuple[Step, ...]) -> list[dict[str, object]]:
    return [{"at": step.at, "set": dict(step.set)} for step in steps]


@dataclass(frozen=True, slots=True)
class Twin:
    """Two boards with their settings, and the function values with which the twin check compares them."""

    original: Board
    replacement: Board
    family: Family
    values: tuple[dict[str, Value], dict[str, Value]]
    offsets: tuple[Offset, ...]
    undecided: tuple[str, ...]
    positions: tuple[dict[str, Value], dict[str, Value]]
    """How each board stands, as a record writes it."""
    wished: tuple[str, ...] = ()
    """The functions that are compared by what the original does, for they are wanted otherwise."""

    @property
    def missing(self) -> tuple[str, ...]:
        """The boards whose behaviour is not known."""
        return tuple(board.part_number for board in (self.original, self.replacement) if board.behaviour is None)

    def unit(self, scenario: Scenario | None = None) -> int:
        """Time units in a second, so that every time of both boards and the scenario is whole."""
        times: list[Number] = []
        for board, values in zip((self.original, self.replacement), self.values, strict=True):
            assert board.behaviour is not None  # callers look at `missing` first
            times += behaviour_times(board.behaviour, values)
        if scenario:
            times += [scenario.until, *(step.at for step in scenario.steps)]
        return time_unit(times)

    def pair(self, unit: int, laps: bool = False) -> Pair:
        """Both boards compiled for the searches; with `laps`, those arrows too that only start a clock anew which nothing reads."""
        one, other = (side if laps else without_laps(side) for side in self.sides(unit))
        return build_pair(one, other, self.family, one.changes.at_rest(self.family.rest))

    def sides(self, unit: int) -> list[Side]:
        """Both boards compiled as they stand in their profiles."""
        boards = list(zip((self.original, self.replacement), self.values, strict=True))
        changes = changes_of(self.family, [(board.behaviour, values) for board, values in boards if board.behaviour])
        return [compile_side(board, values, self.family, unit, changes) for board, values in boards]


def make_twin(
    original: Board,
    original_record: Record,
    replacement: Board,
    replacement_record: Record,
    family: Family,
    wished: Collection[str] = (),
) -> Twin:
    """Two boards as they stand; numbers of the replacement within tolerance are replaced by the original's.

    Functions that are `wished` otherwise take the original's value on both sides: what was wanted is no difference.
    """
    decoded = [
        function_values(original, original_record, family),
        function_values(replacement, replacement_record, family),
    ]
    wanted = tuple(sorted(name for name in wished if name in decoded[0]))
    decoded[1] |= {name: decoded[0][name] for name in wanted}
    shifted = offsets(decoded[0], decoded[1], family)
    open_functions = dict.fromkeys([*undecided(original, decoded[0]), *undecided(replacement, decoded[1])])
    values = [_decided(each) for each in decoded]
    values[1].update({offset.id: offset.original for offset in shifted})
    records = ((original, original_record), (replacement, replacement_record))
    positions = [written_positions(board, record.points) for board, record in records]
    return Twin(
        original, replacement, family, (values[0], values[1]), shifted, tuple(open_functions),
        (positions[0], positions[1]), wanted,
    )  # fmt: skip


def _decided(decoded: dict[str, Decoded]) -> dict[str, Value]:
    return {name: each.values[0] for name, each in decoded.items() if each.decided}


def prove(twin: Twin, limit: int = LIMIT, cheap: bool = True) -> Proof:
    """The verdict on two boards: identical, within tolerance, different, open or not proved.

    Exact over dense time. `limit` bounds each search in arrivals at a settled pair, and the whole question by their effort; beyond it the verdict is `not proved`, or `different`
    with a counter-case that may not be the shortest. Where a board goes round without end nothing is followed, and
    without a counter-case elsewhere the verdict is `not proved`. Where a difference is expected, `cheap` proofs of identity
    are left out. Raises EndlessLoopError where a board goes round at rest.
    """
    if twin.missing:
        return Proof("not proved", twin.offsets, missing=twin.missing)
    if twin.undecided:
        return Proof("open", twin.offsets, functions=twin.undecided)
    unit, effort = twin.unit(), effort_of(limit)
    pair = twin.pair(unit)
    alike = "within tolerance" if twin.offsets else "identical"
    for method, cheap_proof in (("stepwise", step_for_step), ("lockstep", in_lockstep)) if cheap else ():
        proved, looked_at = cheap_proof(pair, effort.share(CHEAP))
        if proved:
            return Proof(alike, twin.offsets, explored=looked_at, method=method, symbols=pair.symbols)
    # where a board may go round, some of the effort is left to look at it alone
    found, loops = _search(pair, limit, effort.share(1 - ALONE) if _may_go_round(pair) else effort)
    endless, every_loop = _endless(pair, loops, twin, unit, limit, effort)
    if found.nodes:
        case = _earliest_case(found.nodes, found.closed, pair, twin, unit)
        verdict = "different"
    else:
        case = None
        verdict = alike if found.closed and every_loop and not endless else "not proved"
    return Proof(
        verdict, twin.offsets, case, explored=found.explored, method="zones", endless=endless, symbols=pair.symbols,
        limit=None if found.nodes or found.covered or (found.closed and every_loop) else limit, covered=found.covered,
        least=0 if found.closed else found.least,
    )  # fmt: skip


def _may_go_round(pair: Pair) -> bool:
    return any(may_go_round(side, pair.forbidden) for side in pair.sides)


def _search(pair: Pair, limit: int, effort: Effort) -> tuple[Found, dict[int, Loop]]:
    """The exact search: plainly at first, then with headings, and where these meet the limit, for any difference at all.

    The first heading watches the clocks alone by which the boards differ; a second one, which takes longer to make, all of them.
    """
    search = ExactSearch(pair, min(limit, PLAIN), effort=effort.share(1))
    found, loops = search.run(), dict(search.loops)
    if found.closed or limit <= PLAIN:
        return found, loops
    if pair.watched:
        # headings know of no clock that stands still
        search = ExactSearch(pair, limit, effort=effort)
        return search.run(), search.loops | loops
    machines, slots = len(pair.sides[0].machines), len(pair.sides[0].named_clocks)
    ahead = None
    every_clock = list(range(machines, machines + slots))
    few = [clock for clock in clocks_that_differ(pair) if clock in every_clock]
    for clocks, most in ((few, min(limit, LIGHT)), (every_clock, limit)) if few != every_clock else ((few, limit),):
        better = _heading(pair, clocks, effort)
        if better is None and ahead is not None:
            break  # all clocks take too long: what the few found stands
        ahead = better
        part = 1 if ahead is None else HEADED if most == limit else FIRST
        search = ExactSearch(pair, most if ahead else limit, ahead, effort=effort.share(part))
        later, loops = search.run(), search.loops | loops
        found = later if later.closed or later.nodes else replace(later, least=max(found.least, later.least))
        if found.closed or ahead is None:
            break
    if found.nodes or found.closed or ahead is None:
        return found, loops
    hasty = ExactSearch(pair, limit // 2, ahead, weight=4, effort=effort).run()
    return (replace(hasty, least=found.least) if hasty.nodes else found), loops


def _heading(pair: Pair, clocks: Collection[int], effort: Effort) -> Ahead | None:
    """What looks ahead, watching these clocks; None where it is no help, or takes more than its part of the effort."""
    try:
        heading = Heading(pair, clocks, effort.share(TABLES))
    except Spent:
        return None
    return heading.ahead if heading.useful else None


def _endless(
    pair: Pair, met: dict[int, Loop], twin: Twin, unit: int, limit: int, effort: Effort
) -> tuple[tuple[Endless, ...], bool]:
    """Where each board goes round without end, and whether there is surely nowhere else.

    One that may is looked at by itself too: the search of the two stops at a difference, and does not go where they cannot part.
    """
    found, sure = [], True
    for index, side in enumerate(pair.sides):
        loop, sets = met.get(index), pair.sets
        if may_go_round(side, pair.forbidden):
            alone = ExactSearch(build_pair(side, side, twin.family, pair.rest), limit, effort=effort.share(1))
            closed = alone.run(until_loop=True).closed
            if 0 in alone.loops:
                loop, sets = alone.loops[0], alone.sets
            sure = sure and (closed or loop is not None)
        if loop is None:
            continue
        way = way_to(loop.node, sets)
        if times_of(way) is None:
            sure = False
        else:
            found.append(Endless(side.part_number, loop.states, *_timed(way, pair, unit)))
    return tuple(found), sure


def _earliest_case(nodes: list[Node], fewest: bool, pair: Pair, twin: Twin, unit: int) -> CounterCase:
    cases = (_counter_case(node, fewest, pair, twin, unit) for node in nodes[:MOST_TIMED])
    return min(cases, key=lambda case: case.at)


def _counter_case(node: Node, fewest: bool, pair: Pair, twin: Twin, unit: int) -> CounterCase:
    """The way to a node, checked by simulating both boards over it."""
    way = way_to(node, pair.sets)
    steps, at = _timed(way, pair, unit)
    shown = _shown_at_end(twin, Scenario("", steps, at))
    return CounterCase(
        node.changes, fewest, steps, at, shown[0].on, shown[1].on, shown[0].states, shown[1].states,
        pair.sides[0].changes.between(way[-1].inputs),
    )  # fmt: skip


def _timed(way: list[Event], pair: Pair, unit: int) -> tuple[tuple[Step, ...], Number]:
    """The input changes on a way at their earliest times, and the time of arrival, in seconds."""
    times = times_of(way)
    if times is None:
        raise TwinError("the search found a way that cannot be timed; this is a fault of the program")
    steps = []
    changes = pair.sides[0].changes
    for event, time in zip(way, times, strict=True):
        if event.changed:
            steps.append(Step(tidy(time / unit), (changes.said(event.changed, event.inputs),)))
    return tuple(steps), tidy(times[-1] / unit)


def _shown_at_end(twin: Twin, scenario: Scenario) -> tuple[Shown, Shown]:
    unit = twin.unit(scenario)
    sides = twin.sides(unit)
    rest = sides[0].changes.at_rest(twin.family.rest)
    ends = [play(side, rest, scenario, unit)[-1] for side in sides]
    compared = twin.family.compared
    if set(ends[0].on) & compared == set(ends[1].on) & compared:
        raise TwinError("the counter-case does not hold in the simulator; this is a fault of the program")
    return ends[0], ends[1]
