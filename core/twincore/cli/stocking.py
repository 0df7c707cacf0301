"""The call on a list of machines served: which boards to carry."""

import argparse
import json
from collections import defaultdict
from collections.abc import Sequence
from functools import partial
from math import inf
from typing import Any

from twincore import choose, profile, stock
from twincore.behaviour import make_twin
from twincore.certificate import accepted
from twincore.cli.catalogue import Catalogue
from twincore.cli.files import named, read
from twincore.cli.wrong import InputError
from twincore.profile import Board, Family, Record

MOST_NEXT = 5
HOURS_A_DAY = 8.0
MOST_DAYS, MOST_SECONDS = 3_660.0, 3_600.0


def add_calls(calls: Any) -> None:
    """Add this call to the command line."""
    sub = calls.add_parser("stock")
    sub.add_argument("--catalogue", required=True, metavar="DIR")
    sub.add_argument("--served", required=True, metavar="CSV", help="van, board, machines, failed, years, fact.NAME …")
    sub.add_argument("--pieces", metavar="CSV", help="piece, cost, size, most; each costs and takes 1 without it")
    sub.add_argument("--there", metavar="CSV", help="van, piece, count: what is in the vans now")
    sub.add_argument("--grade", choices=stock.GRADES, default="work", help="what is enough to serve a machine")
    sub.add_argument("--days", type=float, default=14.0, help="until the vans are filled again")
    sub.add_argument("--budget", type=float, help="the value in each van at most")
    sub.add_argument("--shelf", type=float, help="the size of what is in each van at most")
    sub.add_argument("--lend", type=float, metavar="HOURS", help="vans lend to each other within so many hours")
    sub.add_argument("--gap", type=float, default=0.005, help="within what share of the best is good enough")
    sub.add_argument("--seconds", type=float, default=10.0)
    sub.set_defaults(call=_stock)


def _stock(args: argparse.Namespace) -> dict[str, Any]:
    catalogue = Catalogue(args.catalogue)
    served = named(args.served, partial(stock.parse_served, read(args.served)))
    if not (0 < args.days <= MOST_DAYS and 0 <= args.gap < 1 and 0 < args.seconds <= MOST_SECONDS):
        raise InputError(
            f"--days, --gap, --seconds: expected days above 0 to {MOST_DAYS:g}, a gap from 0 to below 1, and seconds above 0 to {MOST_SECONDS:g}"
        )
    for name in ("budget", "shelf", "lend"):
        if (given := getattr(args, name)) is not None and not 0 <= given < inf:
            raise InputError(f"--{name}: expected a number of at least 0, found {given:g}")
    priced = named(args.pieces, partial(stock.parse_pieces, read(args.pieces))) if args.pieces else []
    costs = {each.piece: each for each in priced}
    for number, row in enumerate(served, start=1):
        if row.board not in catalogue.boards:
            raise InputError(f"{args.served}: row {number}: expected a board of {args.catalogue}, found {row.board}")
    families = {number: board.family for number, board in catalogue.boards.items()}
    grades = _grades_of(catalogue, served)
    failures = stock.failures_of(served, families, args.days)
    kinds = stock.kinds_of(served, failures, grades, args.grade)
    names = sorted({piece for kind in kinds for piece in kind.ways})
    pieces = [
        stock.Piece(name, costs[name].cost, costs[name].size, costs[name].most) if name in costs else stock.Piece(name, 1, 1)
        for name in names
    ]  # fmt: skip
    vans = [stock.Van(van, args.budget, args.shelf) for van in sorted({row.van for row in served})]
    counts_for = max(0.0, 1 - args.lend / HOURS_A_DAY) if args.lend is not None else 0.0
    lending = {(a.id, b.id): counts_for for a in vans for b in vans if a != b} if counts_for else {}
    wanted = stock.Wanted(kinds, pieces, vans, lending)
    plan = stock.plan(wanted, args.gap, args.seconds)
    return {
        "plan": {van: dict(sorted(counts.items())) for van, counts in plan.counts.items()},
        "expected": {"failures": _round(wanted.failures), "served": _round(plan.served), "at_most": _round(plan.bound)},
        "gap": _round(plan.gap),
        "uncovered": list(plan.uncovered),
        "next": [
            {"van": van, "piece": piece, "served": _round(more)}
            for van, piece, more in stock.next_pieces(wanted, plan)[:MOST_NEXT]
        ],
        "changes": _changes(args, plan),
    }


def _grades_of(catalogue: Catalogue, served: Sequence[stock.Served]) -> list[dict[str, stock.Grade]]:
    """Of each row which boards serve it; machines that are alike are judged once."""
    known: dict[str, dict[str, stock.Grade]] = {}
    found = []
    for row in served:
        alike = json.dumps([row.board, row.facts], sort_keys=True)
        if alike not in known:
            known[alike] = _grades(catalogue, catalogue.boards[row.board], dict(row.facts))
        found.append(known[alike])
    return found


def _grades(catalogue: Catalogue, original: Board, facts: dict[str, Any]) -> dict[str, stock.Grade]:
    """Which boards of the catalogue serve a machine, and how well; as it left the maker where nobody read it."""
    family = catalogue.families.get(original.family)
    if family is None:
        raise InputError(f"expected a family {original.family}, of {original.part_number}")
    found = profile.as_shipped(original)
    ways = choose.find_ways(original.part_number, catalogue.about, facts)
    machine = choose.Machine(choose.fitting_of(original.document), family, facts)
    return stock.pieces_that_serve(
        machine,
        [
            stock.Considered(
                choose.fitting_of(board.document), ways.to.get(number),
                partial(choose.check_twin, original, found, board, family, {}),
                partial(_again, original, found, board, family), ways.elsewhere_of(number),
            )
            for number, board in catalogue.boards.items()
            if board.family == family.id
        ],
    )  # fmt: skip


def _again(original: Board, found: Record, board: Board, family: Family, checked: choose.TwinChecked) -> bool:
    """Whether a second program agrees with a twin check."""
    record = checked.carried.record if checked.carried else None
    return record is not None and bool(accepted(make_twin(original, found, board, record, family)))


def _changes(args: argparse.Namespace, plan: stock.Plan) -> list[dict[str, Any]] | None:
    if not args.there:
        return None
    there: dict[str, dict[str, int]] = defaultdict(dict)
    for each in named(args.there, partial(stock.parse_stock, read(args.there))):
        there[each.van][each.piece] = there[each.van].get(each.piece, 0) + each.count
    return [
        {"piece": each.piece, "count": each.count, "from": each.source, "to": each.target}
        for each in stock.changes(there, plan.counts)
    ]


def _round(number: float) -> float:
    return round(number, 6)
