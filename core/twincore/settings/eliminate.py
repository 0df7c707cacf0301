"""Bucket elimination: exact least cost by removing one point after another.

R. Dechter, "Bucket elimination: a unifying framework for reasoning", Artificial Intelligence 113 (1999).
All criteria and the tie-break are packed into one big integer, so that adding costs keeps the order of the criteria.
"""

from itertools import product
from math import prod

from twincore.profile import Value
from twincore.settings.problem import FREE, Problem

Assignment = dict[str, Value]
Factor = tuple[tuple[str, ...], dict[tuple[int, ...], int]]


def width_product(problem: Problem) -> int:
    """The largest table that elimination would build (entries), by the order that it would take."""
    scopes = [set(term.scope) for term in problem.terms]
    largest = 1
    for point in _order(problem):
        joined = set().union(*(scope for scope in scopes if point in scope), {point})
        largest = max(largest, prod(len(problem.domains[name]) for name in joined))
        scopes = [scope for scope in scopes if point not in scope] + [joined - {point}]
    return largest


def solve(problem: Problem) -> Assignment | None:
    """The best positions, or None where every choice is reserved."""
    factors = _factors(problem)
    decisions: list[tuple[str, tuple[str, ...], dict[tuple[int, ...], int]]] = []
    for point in _order(problem):
        bucket = [factor for factor in factors if point in factor[0]]
        rest = tuple(dict.fromkeys(name for scope, _ in bucket for name in scope if name != point))
        table, choice = _eliminate(point, rest, bucket, problem)
        if not table:
            return None
        factors = [factor for factor in factors if point not in factor[0]] + [(rest, table)]
        decisions.append((point, rest, choice))
    chosen: dict[str, int] = {}
    for point, rest, choice in reversed(decisions):
        chosen[point] = choice[tuple(chosen[name] for name in rest)]
    return {name: problem.domains[name][index] for name, index in sorted(chosen.items())}


def _eliminate(
    point: str, rest: tuple[str, ...], bucket: list[Factor], problem: Problem
) -> tuple[dict[tuple[int, ...], int], dict[tuple[int, ...], int]]:
    names = (*rest, point)
    getters = [(tuple(names.index(name) for name in scope), table) for scope, table in bucket]
    best: dict[tuple[int, ...], int] = {}
    choice: dict[tuple[int, ...], int] = {}
    indices = range(len(problem.domains[point]))
    for key in product(*(range(len(problem.domains[name])) for name in rest)):
        least = None
        for index in indices:
            full = (*key, index)
            total = 0
            for positions, table in getters:
                cost = table.get(tuple([full[p] for p in positions]))
                if cost is None:
                    break
                total += cost
            else:
                if least is None or total < least:
                    least, choice[key] = total, index
        if least is not None:
            best[key] = least
    return best, choice


def _factors(problem: Problem) -> list[Factor]:
    names = list(problem.domains)
    tie_weight: dict[str, int] = {}
    weight = 1
    for name in reversed(names):
        tie_weight[name] = weight
        weight *= len(problem.domains[name])
    moved = weight
    weights = _weights(problem, moved * (len(names) + 1))
    factors: list[Factor] = [
        (
            (name,),
            {
                (i,): tie_weight[name] * i + (moved if value != problem.factory[name] else 0)
                for i, value in enumerate(domain)
            },
        )
        for name, domain in problem.domains.items()
    ]
    index = {name: {value: i for i, value in enumerate(domain)} for name, domain in problem.domains.items()}
    for term in problem.terms:
        table: dict[tuple[int, ...], int] = {}
        for when, cost in term.cases:
            packed = sum(each * weight for each, weight in zip(cost, weights, strict=True))
            choices = [
                range(len(problem.domains[name]))
                if name not in when
                else [index[name][when[name]]]
                if when[name] in index[name]
                else []
                for name in term.scope
            ]
            for key in product(*choices):
                table[key] = packed
        factors.append((term.scope, table))
    return factors


def _weights(problem: Problem, least: int) -> list[int]:
    """What one unit of each criterion weighs: more than all that comes after it can add up to."""
    weights: list[int] = []
    for index in reversed(range(len(FREE))):
        weights.append(least)
        least *= sum(max((cost[index] for _, cost in term.cases), default=0) for term in problem.terms) + 1
    return weights[::-1]


def _order(problem: Problem) -> list[str]:
    """Points by fewest new couplings first (min-fill, then min-degree), deterministic."""
    neighbours: dict[str, set[str]] = {name: set() for name in problem.domains}
    for term in problem.terms:
        for name in term.scope:
            neighbours[name].update(term.scope)
    for name, near in neighbours.items():
        near.discard(name)
    position = {name: i for i, name in enumerate(problem.domains)}

    def cost(name: str) -> tuple[int, int, int]:
        near = neighbours[name]
        return sum(len(near - neighbours[other]) - 1 for other in near), len(near), position[name]

    costs = {name: cost(name) for name in neighbours}
    order = []
    while costs:
        point = min(costs, key=costs.__getitem__)
        del costs[point]
        near = neighbours.pop(point)
        for name in near:
            neighbours[name] |= near
            neighbours[name] -= {name, point}
        for name in near.union(*(neighbours[each] for each in near)):
            costs[name] = cost(name)
        order.append(point)
    return order
