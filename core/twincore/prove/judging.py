"""A measured run against what was due: each event in time, early, late, missing, extra, or not to be told.

A measurement that agrees with the very time at which an event is due is in time: nothing in it speaks for a difference. Else
it must lie inside the band by its uncertainty, or beyond it by its uncertainty; between the two it cannot tell.

Events of one output are paired in their order: as many as can be, and among those ways the one with the least total
difference. Uncertainties of the event and of the input that led to it add as squares (JCGM 100:2008, 5.1.2).
"""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from math import hypot

from twincore.measure import Band, judge
from twincore.profile import Board, Family, Number, Trace, Value
from twincore.profile.trace import BY_HAND_S
from twincore.prove.expected import Expected, expected_events

VERDICTS = ("in time", "early", "late", "missing", "extra", "cannot tell")
OFF = ("early", "late", "missing", "extra")


@dataclass(frozen=True, slots=True)
class Event:
    """One event: when it was seen, when it was due with the band that tolerances allow, and what that comes to.

    `margin` is the distance to the nearer end of the band in seconds, negative beyond it.
    """

    output: str
    on: bool
    seen_at: float | None
    due: Expected | None
    uncertainty_s: float
    verdict: str
    margin_s: float | None = None


@dataclass(frozen=True, slots=True)
class JudgedRun:
    """Every event of a measured run in order of time."""

    events: tuple[Event, ...]

    @property
    def verdict(self) -> str:
        """As the original, off, or cannot tell."""
        if any(event.verdict in OFF for event in self.events):
            return "off"
        return "cannot tell" if any(event.verdict == "cannot tell" for event in self.events) else "as the original"


def judge_run(board: Board, values: Mapping[str, Value], family: Family, trace: Trace) -> JudgedRun:
    """A run measured on the machine against the board that came out, its functions having these values.

    The inputs are those of the run as they were made. Only outputs that the family compares are looked at.
    """
    due = expected_events(board, values, family, trace.scenario)
    return compare_events(due, trace, family)


def compare_events(due: Sequence[Expected], trace: Trace, family: Family) -> JudgedRun:
    """Events that were due against those of a trace."""
    made_within = BY_HAND_S if trace.timed == "by hand" else max((float(s.within_s) for s in trace.seen), default=0.0)
    until = float(trace.scenario.until)
    events: list[Event] = []
    for output in sorted(family.compared):
        expected = [each for each in due if each.output == output]
        seen = [each for each in trace.seen if each.output == output]
        pairs = _paired([(e.on, e.at) for e in expected], [(s.on, float(s.at)) for s in seen])
        for mine, theirs in pairs:
            want = None if mine is None else expected[mine]
            got = None if theirs is None else seen[theirs]
            doubt = hypot(float(got.within_s) if got else made_within, made_within)
            if want is not None and got is not None:
                found = judge(float(got.at), Band(want.low, want.high), doubt)
                if found.verdict == "inside" or abs(float(got.at) - want.at) <= doubt:
                    verdict = "in time"
                elif found.verdict == "outside":
                    verdict = "early" if found.side == "below" else "late"
                else:
                    verdict = "cannot tell"
                events.append(Event(output, want.on, float(got.at), want, doubt, verdict, found.margin))
            elif want is not None:
                # what was hardly due when the run ended may still have come
                if want.high + doubt < until:
                    events.append(Event(output, want.on, None, want, doubt, "missing"))
                elif want.at + doubt < until:
                    events.append(Event(output, want.on, None, want, doubt, "cannot tell"))
            elif got is not None:
                events.append(Event(output, got.on, float(got.at), None, doubt, "extra"))
    return JudgedRun(tuple(sorted(events, key=_moment)))


def _moment(event: Event) -> tuple[float, str]:
    at = event.seen_at if event.seen_at is not None else event.due.at if event.due else 0.0
    return at, event.output


Moment = tuple[bool, float]
Pairs = list[tuple[int | None, int | None]]


def _paired(due: Sequence[Moment], seen: Sequence[Moment]) -> Pairs:
    """Pairs of indices in order, None where one side has no partner: the alignment with the most pairs, then the least
    total difference (dynamic programming, as for the longest common subsequence).
    """
    best: dict[tuple[int, int], tuple[int, float]] = {}
    for i in range(len(due), -1, -1):
        for j in range(len(seen), -1, -1):
            ways = [(0, 0.0)] if i == len(due) and j == len(seen) else []
            if i < len(due):
                ways.append(best[i + 1, j])
            if j < len(seen):
                ways.append(best[i, j + 1])
            if i < len(due) and j < len(seen) and due[i][0] == seen[j][0]:
                count, apart = best[i + 1, j + 1]
                ways.append((count - 1, apart + abs(due[i][1] - seen[j][1])))
            best[i, j] = min(ways)
    pairs: Pairs = []
    i = j = 0
    while i < len(due) or j < len(seen):
        if i < len(due) and j < len(seen) and due[i][0] == seen[j][0]:
            count, apart = best[i + 1, j + 1]
            if best[i, j] == (count - 1, apart + abs(due[i][1] - seen[j][1])):
                pairs.append((i, j))
                i, j = i + 1, j + 1
                continue
        if i < len(due) and best[i, j] == best[i + 1, j]:
            pairs.append((i, None))
            i += 1
        else:
            pairs.append((None, j))
            j += 1
    return pairs


def due_from_trace(trace: Trace, made: Trace) -> list[Expected]:
    """What was seen of a board, as due in another run: each event follows the input change before it, whenever that was made.

    For boards whose behaviour nobody wrote down. The n-th change of an input is taken for the n-th one there.
    """
    then, now = _moments_of(trace), _moments_of(made)
    found = []
    for seen in trace.seen:
        before = [key for key, at in then.items() if at <= float(seen.at) and key in now]
        led = max(before, key=lambda key: then[key], default=None)
        at = float(seen.at) + (0.0 if led is None else now[led] - then[led])
        within = float(seen.within_s)
        found.append(Expected(seen.output, seen.on, at, at - within, at + within))
    return found


def _moments_of(trace: Trace) -> dict[tuple[str, bool | Number, int], float]:
    found: dict[tuple[str, bool | Number, int], float] = {}
    counts: dict[tuple[str, bool | Number], int] = {}
    for step in trace.scenario.steps:
        for name, value in step.set:
            counts[name, value] = counts.get((name, value), 0) + 1
            found[name, value, counts[name, value]] = float(step.at)
    return found
