"""Work a plan out: who serves whom first, then what each van should carry; it tells how far it is, and stops when it is told to."""

import logging
from collections.abc import Callable, Mapping, Sequence
from datetime import datetime, timedelta
from time import monotonic
from typing import Any
from uuid import UUID

from catalogue.models import Board
from parts.models import Offer
from stock.judging import judge_all, kind_of
from stock.models import Apart, Held, Judged, Plan, Priced, Served, Van
from twincore import stock
from twincore.stock import Kind, Piece, Wanted

logger = logging.getLogger(__name__)
Clock = Callable[[], datetime]
TELL_EVERY = timedelta(seconds=0.4)
GAP, SECONDS, CURVE_S, NEXT_S = 0.002, 10.0, 9.0, 6.0
CURVE = (0.25, 0.5, 0.75, 1.0, 1.25, 1.5)
"""What is looked at besides, in shares of what the plan costs."""
HOURS_A_DAY = 8.0
MOST_NEXT, MOST_UNCOVERED, MOST_CHANGES = 12, 200, 500


class Stopped(Exception):
    """Somebody does not want the plan any more."""


class NothingToPlan(Exception):
    """What is missing before there is anything to plan; says what."""


def run_plan(id: UUID, clock: Clock) -> None:
    """Work out a plan that waits. Whatever happens, it ends, and says how."""
    plan = Plan.objects.select_related("depot").get(pk=id)
    if plan.ended:
        return
    telling = _Telling(id, clock)
    try:
        ended: dict[str, Any] = {"state": Plan.State.DONE, "found": _found(plan, telling, clock), "share": 1.0}
    except Stopped:
        ended = {"state": Plan.State.STOPPED}
    except NothingToPlan as error:
        ended = {"state": Plan.State.FAILED, "fault": str(error)}
    except Exception:
        logger.exception("a plan broke off")
        ended = {"state": Plan.State.FAILED, "fault": "The plan broke off. Ask for it again; if it stays, tell us."}
    Plan.objects.filter(pk=id).update(ended_at=clock(), **ended)


class _Telling:
    """Says how far a plan is, not too often; and hears whether it is wanted yet."""

    def __init__(self, id: UUID, clock: Clock) -> None:
        self.id, self.clock = id, clock
        self.state = Plan.State.WAITING
        self.told: datetime | None = None

    def tell(self, state: Plan.State, share: float) -> None:
        """So much of this part of the work is done. Raises Stopped."""
        now = self.clock()
        if state == self.state and self.told is not None and now - self.told < TELL_EVERY:
            return
        self.state, self.told = state, now
        Plan.objects.filter(pk=self.id).update(state=state, share=share)
        if Plan.objects.filter(pk=self.id, stop_wanted=True).exists():
            raise Stopped


def _found(plan: Plan, telling: _Telling, clock: Clock) -> dict[str, Any]:
    rows = list(Served.objects.filter(van__depot=plan.depot).select_related("van"))
    if not rows:
        raise NothingToPlan("No machines are listed yet. Bring in the list of the machines that the vans look after.")
    judged = judge_all(plan.depot, rows, clock, lambda share: telling.tell(Plan.State.JUDGING, share))
    asked = Asked(plan, rows, [judged[kind_of(row)] for row in rows])
    begun = monotonic()

    def stop() -> bool:
        telling.tell(Plan.State.PLANNING, min(1.0, (monotonic() - begun) / (SECONDS + CURVE_S)))
        return False

    best = stock.plan(asked.wanted, GAP, SECONDS, stop)
    took = monotonic() - begun
    spent = sum(asked.costs[piece] * count for held in best.counts.values() for piece, count in held.items())
    free = Wanted(
        asked.wanted.kinds, asked.wanted.pieces, [stock.Van(each.id, None, each.shelf) for each in asked.wanted.vans],
        asked.wanted.lending,
    )  # fmt: skip
    budgets = [round(spent * share) for share in CURVE] if spent else []
    curve = stock.curve(free, budgets, seconds=CURVE_S, stop=stop) if budgets else []
    looked = monotonic()
    following = stock.next_pieces(asked.wanted, best, lambda: stop() or monotonic() - looked > NEXT_S)
    return {
        "expected": {"failures": asked.wanted.failures, "served": best.served, "at_most": best.bound},
        "gap": best.gap,
        "seconds": took,
        "cost": spent,
        "vans": asked.vans(best),
        "uncovered": asked.uncovered(best),
        "next": [
            {"van": van, "piece": piece, "served": more, "cost": asked.costs[piece]}
            for van, piece, more in following[:MOST_NEXT]
            if more > 1e-6
        ],
        "changes": [
            {"piece": each.piece, "count": each.count, "source": each.source, "target": each.target}
            for each in stock.changes(asked.held, best.counts)[:MOST_CHANGES]
        ],
        "curve": [{"budget": budget, "served": each.served, "at_most": each.bound} for budget, each in curve],
        "left_out": asked.left_out,
    }


class Asked:
    """What a plan is made of: machines with their failures, pieces with their prices, vans."""

    def __init__(self, plan: Plan, rows: Sequence[Served], judged: Sequence[Judged]) -> None:
        vans = list(Van.objects.filter(depot=plan.depot))
        self.names = {str(van.pk): van.name for van in vans}
        self.rows = rows
        self.known = [each.known for each in judged]
        served = [
            stock.Served(str(row.van_id), row.board, row.machines, row.failed, row.years, row.facts) for row in rows
        ]
        # boards that nobody has entered have no family to be drawn towards but themselves
        self.failures = stock.failures_of(served, families_of(plan.depot_id, rows), plan.asked["days"])
        kinds = stock.kinds_of(served, self.failures, [each.grades for each in judged], plan.asked["grade"])
        names = {piece for kind in kinds for piece in kind.ways}
        priced = {each.piece: each for each in Priced.objects.filter(depot=plan.depot, piece__in=names)}
        offers = Offer.objects.filter(part_number__in=names, price__isnull=False)
        prices = {each.part_number: float(each.price or 0) for each in offers}
        prices |= {name: each.cost for name, each in priced.items()}
        money = plan.asked["budget"] is not None or any(van.budget is not None for van in vans)
        self.left_out = sorted(names - set(prices)) if money else []
        planned = sorted(names - set(self.left_out))
        self.costs = {name: prices.get(name, 0.0) for name in planned}
        pieces = [
            Piece(name, self.costs[name], priced[name].size, priced[name].most) if name in priced
            else Piece(name, self.costs[name], 1.0)
            for name in planned
        ]  # fmt: skip
        self.sizes = {each.id: each.size for each in pieces}
        kinds = [Kind(each.id, each.van, each.failures, _only(each.ways, self.costs)) for each in kinds]
        lending = lending_between(vans) if plan.asked["lend"] else {}
        self.wanted = Wanted(
            kinds,
            pieces,
            [stock.Van(str(van.pk), van.budget, van.shelf) for van in vans],
            lending,
            plan.asked["budget"],
        )
        self.held: dict[str, dict[str, int]] = {str(van.pk): {} for van in vans}
        for each in Held.objects.filter(van__depot=plan.depot, count__gt=0):
            self.held[str(each.van_id)][each.piece] = each.count

    def vans(self, best: stock.Plan) -> list[dict[str, Any]]:
        """What each van carries, what it costs and takes, and how many of its failures are put right."""
        expected: dict[str, float] = dict.fromkeys(self.names, 0.0)
        right: dict[str, float] = dict.fromkeys(self.names, 0.0)
        of_kind = {kind.id: kind for kind in self.wanted.kinds}
        for kind in self.wanted.kinds:
            expected[kind.van] += kind.failures
        for share in best.shares:
            right[of_kind[share.kind].van] += of_kind[share.kind].failures * share.share
        return [
            {
                "van": van, "name": name, "failures": expected[van],
                "planned": min(right[van], expected[van]),
                "cost": sum(self.costs[piece] * count for piece, count in best.counts.get(van, {}).items()),
                "size": sum(self.sizes[piece] * count for piece, count in best.counts.get(van, {}).items()),
                "pieces": [
                    {"piece": piece, "count": count, "held": self.held[van].get(piece, 0)}
                    for piece, count in sorted(best.counts.get(van, {}).items())
                ],
            }
            for van, name in self.names.items()
        ]  # fmt: skip

    def uncovered(self, best: stock.Plan) -> list[dict[str, Any]]:
        """The machines that no carried piece serves, those that fail most first."""
        names = set(best.uncovered)
        found: list[dict[str, Any]] = [
            {
                "van": str(row.van_id), "board": row.board, "machines": row.machines, "failures": failures,
                "known": known, "served_by": len(kind.ways),
            }
            for row, failures, known, kind in zip(self.rows, self.failures, self.known, self.wanted.kinds, strict=True)
            if kind.id in names and row.machines
        ]  # fmt: skip
        return sorted(found, key=lambda each: (-each["failures"], each["board"]))[:MOST_UNCOVERED]


def _only(ways: Mapping[str, float], pieces: Mapping[str, float]) -> dict[str, float]:
    return {piece: worth for piece, worth in ways.items() if piece in pieces}


def families_of(depot: int, rows: Sequence[Served]) -> dict[str, str]:
    """The kind of machine of each board, where one is known."""
    boards = Board.objects.seen_by(depot).filter(part_number__in={row.board for row in rows})
    return dict(boards.values_list("part_number", "family_id"))


def lending_between(vans: Sequence[Van]) -> dict[tuple[str, str], float]:
    """What a failure counts that one van puts right with a piece of another: less by the share of a working day that it takes."""
    found = {}
    for each in Apart.objects.filter(van__in=vans):
        counts = 1 - each.minutes / 60 / HOURS_A_DAY
        if counts > 0:
            one, other = str(each.van_id), str(each.other_id)
            found[one, other] = found[other, one] = counts
    return found
