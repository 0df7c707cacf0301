"""Vans that lend to each other: what they can serve at most, by two plans that are found sooner than theirs."""

from dataclasses import replace

from twincore.stock.wanted import Kind, Van, Wanted

ALL = "all vans as one"


def as_one_van(wanted: Wanted) -> Wanted:
    """All vans as one that holds what they hold together; kinds that the same pieces serve are one."""
    failures: dict[tuple[tuple[str, float], ...], float] = {}
    for kind in wanted.kinds:
        served_by = tuple(sorted(kind.ways.items()))
        failures[served_by] = failures.get(served_by, 0.0) + kind.failures
    kinds = [Kind(str(number), ALL, each, dict(by)) for number, (by, each) in enumerate(failures.items())]
    pieces = [replace(piece, most=piece.most * len(wanted.vans)) for piece in wanted.pieces]
    van = Van(ALL, _together(wanted, "budget"), _together(wanted, "shelf"))
    return Wanted(kinds, pieces, [van], budget=wanted.budget)


def _together(wanted: Wanted, what: str) -> float | None:
    each = [getattr(van, what) for van in wanted.vans]
    return None if None in each else sum(each)


def served_at_most(wanted: Wanted, alone: float, as_one: float) -> float:
    """What vans that lend serve at most, by bounds on what they serve alone, and as one van.

    Of a plan let Σ be what its pieces serve, s what of it is served with another's piece, L what that counts at most. With one's
    own pieces at least Σ - s are served, which is at most what vans serve alone; Σ is at most what they serve as one. What counts
    is at most Σ - (1 - L)s = LΣ + (1 - L)(Σ - s).
    """
    most = max(wanted.lending.values())
    return most * as_one + (1 - most) * alone
