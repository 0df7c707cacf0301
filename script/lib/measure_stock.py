"""Measurements of van stock: plans for many kinds of machine, boards and vans, made up from a seed."""

import json
import time
from collections.abc import Callable
from functools import partial
from random import Random

import scale

from twincore.choose import Machine, check_twin, fitting_of
from twincore.profile import factory_record, parse_board, parse_family
from twincore.stock import Considered, Kind, Piece, Van, Wanted, pieces_that_serve, plan

KINDS, PIECES, VANS, FAMILIES = 300, 200, 5, 12
SECONDS, GAP = 10.0, 0.01
BREADTHS = (0.08, 0.15, 0.3, 0.6)
"""What share of its family's kinds a board serves."""


def measure(row: Callable[..., None]) -> None:
    """How long it takes to judge who serves whom, and how near to the best a plan is within the time; on one core."""
    begun = time.monotonic()
    pairs = _judged(Random(2))
    what = f"who serves whom: {KINDS} kinds × {PIECES} boards of {FAMILIES} kinds of machine ({pairs:,} pairs, twin checks included)"
    row(what, f"{time.monotonic() - begun:.0f} s", "at most 60 s")
    for words, wanted in _asked(1):
        begun = time.monotonic()
        found = plan(wanted, GAP, SECONDS)
        took = time.monotonic() - begun
        what = f"van stock: {PIECES} boards, {VANS} vans, {words}"
        row(f"{what}: time", f"{took:.1f} s", "at most 10 s")
        row(f"{what}: at most so far from the best", f"{100 * found.gap:.2f} %", "at most 1 %")


def _judged(rng: Random) -> int:
    """Judge machines of many kinds against every board of their kind of machine; how many pairs that were."""
    pairs = 0
    families = [parse_family(json.dumps(scale.family_document(number)).encode()) for number in range(FAMILIES)]
    for number, family in enumerate(families):
        index = number * scale.BOARDS_EACH
        boards, kinds = (
            [parse_board(json.dumps(scale.board_document(index + each, rng)).encode()) for each in range(first, last)]
            for first, last in ((0, PIECES // FAMILIES + 1), (PIECES // FAMILIES + 1, (PIECES + KINDS) // FAMILIES + 1))
        )
        for original in kinds:
            found = factory_record(original)
            considered = [
                Considered(fitting_of(board.document), None, partial(check_twin, original, found, board, family, {}))
                for board in boards
            ]
            pieces_that_serve(Machine(fitting_of(original.document), family, {}), considered)
            pairs += len(boards)
    return pairs


def _asked(seed: int) -> list[tuple[str, Wanted]]:
    chance = Random(seed)
    of_kind = [chance.randrange(FAMILIES) for _ in range(KINDS)]
    of_piece = [chance.randrange(FAMILIES) for _ in range(PIECES)]
    breadth = [chance.choice(BREADTHS) for _ in range(PIECES)]
    pieces = [
        Piece(f"b{index}", int(chance.uniform(60, 140) * (1 + 3 * breadth[index])), chance.choice((1, 1, 2, 3)))
        for index in range(PIECES)
    ]
    ways = [
        {
            piece.id: chance.choice((1.0, 1.0, 0.8))
            for index, piece in enumerate(pieces)
            if of_piece[index] == family and chance.random() < breadth[index]
        }
        for family in of_kind
    ]
    names = [f"v{index}" for index in range(VANS)]
    kinds = [
        Kind(f"k{index} of {van}", van, chance.expovariate(50), ways[index]) for van in names for index in range(KINDS)
    ]
    lending = {(lender, borrower): 0.7 for lender in names for borrower in names if lender != borrower}
    each = [Van(name, 2500, 24) for name in names]
    apart = [kinds[chance.randrange(VANS) * KINDS + index] for index in range(KINDS)]
    return [
        (f"{KINDS} kinds in each van", Wanted(kinds, pieces, each)),
        (
            f"{KINDS} kinds in each van, one budget",
            Wanted(kinds, pieces, [Van(name, None, 24) for name in names], budget=10_000),
        ),
        (f"{KINDS} kinds, each with one van, lent to each other", Wanted(apart, pieces, each, lending)),
        (f"{KINDS} kinds in each van, lent to each other", Wanted(kinds, pieces, each, lending)),
    ]
