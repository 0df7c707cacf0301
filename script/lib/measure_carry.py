"""Measurements of carrying over: the settings solver, the wiring plan, the presses; general solvers beside them."""

from collections.abc import Callable
from random import Random
from typing import Any

import networkx
from ortools.sat.python import cp_model

from tests.builders import encoded, small_board, small_family
from tests.test_programming import PANELS, graph
from twincore import profile, programming, settings, wiring
from twincore.settings import cpsat, eliminate
from twincore.settings.problem import build_problem
from twincore.wiring.choosing import choose, seats
from twincore.wiring.plan import carried

Row = Callable[[str, str, str], None]
Median = Callable[..., float]


def measure(row: Row, median_ms: Median) -> None:
    """Every figure of the middle of a job."""
    measure_settings(row, median_ms)
    measure_wiring(row, median_ms)
    measure_presses(row, median_ms)


def coupled(points: int, scope: int, shift: int) -> tuple[Any, Any, Any, Any]:
    """Two boards with banks of sixteen, coupled through tables of `scope` switches that overlap in a chain."""
    rng = Random(7)
    names = [f"f{number}" for number in range((points - scope) // shift + 1)]
    family = small_family(
        functions=[
            {"id": name, "type": "number", "unit": "x", "importance": "behaviour", "if_absent": 0} for name in names
        ]
    )
    switches = [f"S{n // 16 + 1}.{n % 16 + 1}" for n in range(points)]
    boards = []
    for side in range(2):
        functions = {}
        for index, name in enumerate(names):
            used = [switches[index * shift + place] for place in range(scope)]
            rows = [
                {"when": dict(zip(used, (("on" if combination >> k & 1 else "off") for k in range(scope)), strict=True)),
                 "value": rng.randrange(60)}
                for combination in range(2**scope)
            ]  # fmt: skip
            functions[name] = {"table": rows}
        banks = [{"id": f"S{n + 1}", "kind": "dip", "positions": 16, "factory": "0" * 16} for n in range(points // 16)]
        document = small_board(None, f"B-{side}", settings=banks, functions=functions)
        boards.append(profile.parse_board(encoded(document)))
    parsed = profile.parse_family(encoded(family))
    found = profile.Record("B-0", {name: rng.choice(("on", "off")) for name in boards[0].points})
    return parsed, boards[0], found, boards[1]


def measure_settings(row: Row, median_ms: Median) -> None:
    """64 switches, all coupled through tables; the general solver on a part of them, for on all it proves nothing in time."""
    family, original, found, replacement = coupled(64, 4, 2)
    row(
        "carry-over, 64 switches coupled through 31 tables",
        f"{median_ms(lambda: settings.carry(original, found, replacement, family), 20):.0f} ms", "at most 200 ms",
    )  # fmt: skip
    family, original, found, replacement = coupled(16, 4, 2)
    wanted = settings.wanted_functions(original, found, family)
    problem = build_problem(replacement, family, wanted)
    mine = median_ms(lambda: eliminate.solve(problem), 20)
    assert (eliminate.solve(problem), True) == cpsat.solve(problem)
    general = median_ms(lambda: cpsat.solve(problem), 3)
    row("  16 of them: elimination", f"{mine:.1f} ms", "")
    row(
        "16 of the coupled switches by a general constraint solver (CP-SAT)",
        f"{general:.0f} ms",
        f"{general / mine:.0f} × longer",
    )


def large_wiring() -> tuple[Any, Any, Any, Any, list[wiring.Adapter]]:
    """120 wires on 15 plugs, 15 sockets, 20 adapters; three plugs and sockets at a time compete for the same signals."""
    groups, pins = 5, 8
    signals = [{"id": f"g{g}s{p}", "title": f"g{g}s{p}"} for g in range(groups) for p in range(pins)]
    family = profile.parse_family(encoded(small_family(signals=signals)))

    def board(number: str, style: str, order: Callable[[int], int]) -> profile.Board:
        connectors = [
            {"id": f"{style}{g}{k}", "style": f"{style}{k}", "keyed": True,
             "pins": [{"pin": p + 1, "signal": f"g{g}s{order(p)}"} for p in range(pins)]}
            for g in range(groups) for k in range(3)
        ]  # fmt: skip
        return profile.parse_board(encoded(small_board(None, number, connectors=connectors)))

    old, new = board("OLD", "a", lambda p: p), board("NEW", "b", lambda p: pins - 1 - p)
    leads = tuple(wiring.Lead("x", str(p + 1), "y", str(pins - p)) for p in range(pins))
    rng = Random(3)
    adapters = [
        wiring.Adapter(f"E{n}", "", rng.randint(1, 2), rng.randint(5, 15), {"x": f"a{rng.randrange(3)}"},
                       {"y": f"b{rng.randrange(3)}"}, leads[: rng.randint(4, pins)])
        for n in range(20)
    ]  # fmt: skip
    wires = tuple(
        wiring.Wire(f"{plug}.{pin}", plug, pin)
        for plug, each in wiring.plugs_of(old, family).items()
        for pin in each.pins
    )
    return family, old, new, wiring.WiringRecord("OLD", wires, ()), adapters


def measure_wiring(row: Row, median_ms: Median) -> None:
    """The whole plan, and the choice of seats against a general solver."""
    family, old, new, record, adapters = large_wiring()
    plan = wiring.carry_wires(old, record, new, family, adapters)
    mine = median_ms(lambda: wiring.carry_wires(old, record, new, family, adapters), 10)
    olds, news = wiring.plugs_of(old, family), wiring.plugs_of(new, family)
    on: dict[str, Any] = {}
    for wire in record.wires:
        on.setdefault(wire.connector, []).append((wire, carried(wire, olds[wire.connector].pins[wire.pin])))
    options = seats(olds, news, on, adapters)
    stock = {each.id: each.count for each in adapters}
    chosen = choose(options, stock)
    score = [sum(each.score[k] for each in chosen) for k in range(3)]
    assert score == general_choice(options, stock), "the general solver says otherwise"
    served = plan.counts()["adapter"]
    choosing = median_ms(lambda: choose(options, stock), 10)
    general = median_ms(lambda: general_choice(options, stock), 5)
    row(
        f"wiring plan, {len(record.wires)} wires, 20 adapters ({served} wires served)",
        f"{mine:.0f} ms",
        "at most 500 ms",
    )
    row("  of which the choice of plugs and adapters", f"{choosing:.0f} ms", "")
    row(
        "its choice of plugs and adapters by a general constraint solver (CP-SAT)",
        f"{general:.0f} ms",
        f"{general / choosing:.1f} × longer",
    )


def general_choice(options: list[Any], stock: dict[str, int]) -> list[float]:
    """The best score by a general constraint solver (CP-SAT), all criteria in one sum."""
    model = cp_model.CpModel()
    taken = [model.new_bool_var(str(number)) for number in range(len(options))]
    names = {("plug", n) for o in options for n in o.plugs} | {("socket", n) for o in options for n in o.sockets}
    for kind, name in sorted(names):
        using = [t for t, o in zip(taken, options, strict=True) if name in (o.plugs if kind == "plug" else o.sockets)]
        model.add_at_most_one(using)
    for name, count in stock.items():
        using = [t for t, o in zip(taken, options, strict=True) if o.adapter is not None and o.adapter.id == name]
        model.add(sum(using) <= count)
    weights = [o.score[0] * 1_000_000 + o.score[1] * 10_000 + round(o.score[2]) for o in options]
    model.maximize(sum(w * t for w, t in zip(weights, taken, strict=True)))
    solver = cp_model.CpSolver()
    assert solver.solve(model) == cp_model.OPTIMAL
    chosen = [o for o, t in zip(options, taken, strict=True) if solver.value(t)]
    return [sum(o.score[k] for o in chosen) for k in range(3)]


def measure_presses(row: Row, median_ms: Median) -> None:
    """The shortest presses of a menu with fast keys, against search over all its states."""
    panel = PANELS["menu with fast keys and a way out"]
    start = panel.at_rest(((0,), (0,), (0,)))
    goals = {0: (6,), 1: (3,), 2: (2,)}
    mine = median_ms(lambda: programming.shortest(panel, start, goals), 50)
    states = graph(panel, start)
    end = next(s for s in states if s.values == ((6,), (3,), (2,)) and not s.editing)
    lengths = {
        s: networkx.shortest_path_length(states, start, s) for s in states if s.values == end.values and not s.editing
    }
    assert min(lengths.values()) == len(programming.shortest(panel, start, goals))
    general = median_ms(lambda: networkx.single_source_shortest_path_length(graph(panel, start), start), 3)
    row("shortest presses of a small menu", f"{mine:.2f} ms", "")
    row(
        "shortest presses of a small menu, breadth first by a graph library",
        f"{general:.0f} ms",
        f"{general / mine:.0f} × longer",
    )
