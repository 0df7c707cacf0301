"""Set packing by branch and bound over the sets themselves, exact: for the few plugs that boards have, and where no solver is."""

from collections.abc import Mapping, Sequence

MOST_STEPS = 20_000


def pack_by_branching(
    takes: Sequence[frozenset[str]], most: Mapping[str, int], criteria: Sequence[Sequence[int]]
) -> list[int] | None:
    """The indices taken: of each thing at most so many, each criterion least in its order, the earliest indices where all
    are alike. None where more than MOST_STEPS would be looked at.
    """
    costs = list(zip(*criteria, strict=True))
    # what the rest could lower each criterion by at best: a bound, for no thing is counted twice by it
    rest = [tuple(0 for _ in criteria)]
    for cost in reversed(costs):
        rest.append(tuple(left + min(own, 0) for left, own in zip(rest[-1], cost, strict=True)))
    rest.reverse()
    left = dict(most)
    best: tuple[tuple[int, ...], list[int]] = (tuple(0 for _ in criteria), [])
    taken: list[int] = []
    # (where it goes on, what it costs so far, whether the set before it is given back first)
    open_ends: list[tuple[int, tuple[int, ...], bool]] = [(0, best[0], False)]
    steps = 0
    while open_ends:
        index, cost, gives_back = open_ends.pop()
        if gives_back:
            for name in takes[taken.pop()]:
                left[name] += 1
        steps += 1
        if steps > MOST_STEPS:
            return None
        if (cost, taken) < best:
            best = (cost, list(taken))
        bound = tuple(now + lower for now, lower in zip(cost, rest[index], strict=True))
        if index == len(takes) or bound > best[0]:
            continue
        open_ends.append((index + 1, cost, False))
        if all(left[name] for name in takes[index]):
            open_ends[-1] = (index + 1, cost, True)
            for name in takes[index]:
                left[name] -= 1
            taken.append(index)
            with_it = tuple(now + own for now, own in zip(cost, costs[index], strict=True))
            open_ends.append((index + 1, with_it, False))
    return best[1]
