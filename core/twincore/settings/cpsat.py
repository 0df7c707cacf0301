"""The same problem by a constraint solver, for boards whose tables couple too many points for elimination.

Criteria are minimised in stages, each fixed before the next. The scaled deviations may not fit the solver's 64 bits:
their sum is written in digits of 40 bits with carries, and minimised from the highest digit down.
"""

from typing import Any

from ortools.sat.python import cp_model

from twincore.errors import LimitError
from twincore.profile import Value
from twincore.settings.problem import DEVIATION, Cost, Problem

DIGIT = 2**40
TIE_BITS = 32
SECONDS = 60.0
"""For all stages together."""


def solve(problem: Problem, seconds: float = SECONDS) -> tuple[dict[str, Value] | None, bool]:
    """The best positions, or None where every choice is reserved; and whether they are proved to be the best.

    One deadline holds for all criteria together. Where it comes before the last of them was proved, the best positions found by then
    are the answer. Raises LimitError where none were found.
    """
    model = cp_model.CpModel()
    at = {
        name: [model.new_bool_var(f"{name}={index}") for index in range(len(domain))]
        for name, domain in problem.domains.items()
    }
    for literals in at.values():
        model.add_exactly_one(literals)
    position = {name: {value: i for i, value in enumerate(domain)} for name, domain in problem.domains.items()}
    costs: list[tuple[cp_model.IntVar, Cost]] = []
    for term in problem.terms:
        holding = []
        for when, cost in term.cases:
            if any(value not in position[name] for name, value in when.items()):
                continue
            holds = model.new_bool_var("")
            for name, value in when.items():
                model.add_implication(holds, at[name][position[name][value]])
            holding.append(holds)
            costs.append((holds, cost))
        model.add_exactly_one(holding)
    moved = [
        literal
        for name, literals in at.items()
        for literal, value in zip(literals, problem.domains[name], strict=True)
        if value != problem.factory[name]
    ]
    stages = [
        *(sum(holds * cost[index] for holds, cost in costs) for index in range(DEVIATION)),
        *_digits(model, [(holds, cost[DEVIATION]) for holds, cost in costs]),
        sum(holds * cost[DEVIATION + 1] for holds, cost in costs),
        sum(moved),
        *_tie_stages(at),
    ]
    solver = cp_model.CpSolver()
    solver.parameters.num_workers = 2
    best: dict[str, Value] | None = None
    for stage in stages:
        model.minimize(stage)
        solver.parameters.max_time_in_seconds = seconds
        status = solver.solve(model)
        seconds -= solver.wall_time
        if status == cp_model.INFEASIBLE:
            return None, True
        if status in (cp_model.OPTIMAL, cp_model.FEASIBLE):
            best = {
                name: next(
                    v for v, literal in zip(problem.domains[name], literals, strict=True) if solver.value(literal)
                )
                for name, literals in at.items()
            }
        if status != cp_model.OPTIMAL or (seconds <= 0 and stage is not stages[-1]):
            if best is None:
                raise LimitError("no setting was found in the time that a carry-over has")
            return best, False
        model.add(stage == solver.value(stage))
        model.clear_hints()  # type: ignore[no-untyped-call]  # the library does not type it
        for literals in at.values():
            for literal in literals:
                model.add_hint(literal, solver.value(literal))
    return best, True


def _digits(model: cp_model.CpModel, terms: list[tuple[cp_model.IntVar, int]]) -> list[Any]:
    """The sum of the terms that hold, in digits of 40 bits, the highest first."""
    digits: list[Any] = []
    carry: Any = 0
    weights = [weight for _, weight in terms]
    while any(weight >= DIGIT for weight in weights):
        total = sum(holds * (weight % DIGIT) for (holds, _), weight in zip(terms, weights, strict=True)) + carry
        digit = model.new_int_var(0, DIGIT - 1, "")
        carry = model.new_int_var(0, len(terms) + 1, "")
        model.add(total == carry * DIGIT + digit)
        digits.append(digit)
        weights = [weight // DIGIT for weight in weights]
    digits.append(sum(holds * weight for (holds, _), weight in zip(terms, weights, strict=True)) + carry)
    return digits[::-1]


def _tie_stages(at: dict[str, list[cp_model.IntVar]]) -> list[Any]:
    """First in order, as a few weighted sums that each fit the solver's numbers."""
    stages: list[Any] = []
    chunk: list[str] = []
    weight = 1
    for name in at:
        if weight * len(at[name]) > 2**TIE_BITS:
            stages.append(_weighted(chunk, at))
            chunk, weight = [], 1
        chunk.append(name)
        weight *= len(at[name])
    return [*stages, _weighted(chunk, at)]


def _weighted(names: list[str], at: dict[str, list[cp_model.IntVar]]) -> cp_model.LinearExpr:
    total: cp_model.LinearExpr = cp_model.LinearExpr.sum([])
    weight = 1
    for name in reversed(names):
        total += sum(literal * (weight * index) for index, literal in enumerate(at[name]))
        weight *= len(at[name])
    return total
