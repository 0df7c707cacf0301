"""A proving plan from data: the counter-case first, then what the original was seen to do, then the family's checkout."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from typing import Any

from twincore.behaviour import CounterCase, Twin, prove
from twincore.behaviour.simulate import Shown, run_values
from twincore.errors import TwinError
from twincore.profile import Board, Family, Scenario, Trace, Value
from twincore.prove.data import Forcing, forcing_of, runs_of
from twincore.prove.making import Kept, PlannedStep, steps_made

OTHER_WAY_LIMIT = 20_000
"""Arrivals that the search for another counter-case may take (a few seconds)."""


@dataclass(frozen=True, slots=True)
class PlannedRun:
    """One run on the machine. `why` is counter-case, another way, observed or checkout; `trace` names what was observed.

    `cannot` are the inputs that nobody can make here: such a run is not made, and what it would show stays unproved.
    """

    id: str
    title: str
    why: str
    kind: str
    scenario: Scenario
    steps: tuple[PlannedStep, ...]
    kept: tuple[Kept, ...] = ()
    watch: tuple[str, ...] = ()
    hands_off: tuple[str, ...] = ()
    cannot: tuple[str, ...] = ()
    trace: str = ""


@dataclass(frozen=True, slots=True)
class ProvingPlan:
    """The runs in their order, and what of the replacement stays unproved on the machine.

    `unmade` are inputs that no run makes; `unreached` the states (machine, state) of the replacement that no run reaches.
    """

    runs: tuple[PlannedRun, ...]
    unmade: tuple[str, ...]
    unreached: tuple[tuple[str, str], ...]
    impossible: tuple[str, ...]


@dataclass(frozen=True, slots=True)
class Does:
    """What is known of the machine for every run: how inputs are made, and what the new board does."""

    forcing: Mapping[str, Forcing]
    board: Board
    values: Mapping[str, Value]

    def shown(self, scenario: Scenario, family: Family) -> list[Shown] | None:
        """What the new board shows over a scenario; None where nobody knows how it behaves."""
        if self.board.behaviour is None:
            return None
        try:
            return run_values(self.board, dict(self.values), family, scenario)
        except (TwinError, KeyError):
            return None


def plan_proving(
    family: Family, twin: Twin | None, counter_case: CounterCase | None, traces: Mapping[str, Trace],
    replacement: Board, values: Mapping[str, Value], facts: Mapping[str, Any],
) -> ProvingPlan:  # fmt: skip
    """The runs that show on the machine what the twin check says.

    `values` are the replacement's functions; `twin` is None where a behaviour is not known. A counter-case that needs an
    input which cannot be made is looked for anew without it.
    """
    does = Does(forcing_of(family), replacement, values)
    runs: list[PlannedRun] = []
    if counter_case is not None:
        runs += _counter_cases(family, twin, counter_case, does)
    for name, trace in traces.items():
        runs.append(_run(f"trace-{name}", trace.scenario, "observed", "", family, does, trace=name))
    by_id = {node["id"]: scenario for node, scenario in zip(_scenario_nodes(family), family.scenarios, strict=True)}
    for node in runs_of(family, facts):
        if node["scenario"] in by_id:
            run = _run(node["id"], by_id[node["scenario"]], "checkout", node["kind"], family, does)
            runs.append(
                replace(
                    run, title=node.get("title") or run.title, watch=tuple(node.get("watch", ())),
                    hands_off=tuple(node.get("hands_off", ())),
                )
            )  # fmt: skip
    made = [run for run in runs if not run.cannot]
    used = {step.input for run in made for step in run.steps}
    return ProvingPlan(
        tuple(runs),
        tuple(name for name in family.inputs if name not in used),
        tuple(_unreached(replacement, values, family, [run.scenario for run in made])),
        tuple(name for name, each in does.forcing.items() if each.way == "cannot"),
    )


def _counter_cases(family: Family, twin: Twin | None, case: CounterCase, does: Does) -> list[PlannedRun]:
    """The counter-case, held a little beyond where the boards part; where it cannot be made, another that can, if any."""
    found = [_of_case("counter-case", case, "counter-case", family, does)]
    if twin is None or not found[0].cannot:
        return found
    # a level that cannot be made is not kept away so: a way around it may need it too
    held = tuple(
        {name: not family.rest[name]}
        for name, each in does.forcing.items()
        if each.way == "cannot" and name in family.flags
    )
    narrower = replace(family, never_together=(*family.never_together, *held))
    try:
        other = prove(replace(twin, family=narrower), OTHER_WAY_LIMIT)
    except TwinError:
        return found
    if other.counter_case is not None:
        found.append(_of_case("another-way", other.counter_case, "another way", family, does))
    return found


def _of_case(name: str, case: CounterCase, why: str, family: Family, does: Does) -> PlannedRun:
    margin = max(5, float(case.at) / 4)
    scenario = Scenario("", case.steps, round(float(case.at) + margin))
    return _run(name, scenario, why, "", family, does)


def _run(name: str, scenario: Scenario, why: str, kind: str, family: Family, does: Does, trace: str = "") -> PlannedRun:
    steps, kept = steps_made(
        scenario, does.forcing, does.shown(scenario, family), exact=why in ("counter-case", "another way")
    )
    cannot = dict.fromkeys(s.input for s in steps if s.way == "cannot" and s.value != family.rest[s.input])
    return PlannedRun(name, scenario.title, why, kind, scenario, steps, kept, cannot=tuple(cannot), trace=trace)


def _scenario_nodes(family: Family) -> list[dict[str, Any]]:
    nodes: list[dict[str, Any]] = family.document.get("scenarios", [])
    return nodes


def _unreached(
    board: Board, values: Mapping[str, Value], family: Family, scenarios: Sequence[Scenario]
) -> list[tuple[str, str]]:
    """The states that no run takes the board through, by machine."""
    if board.behaviour is None:
        return []
    machines = board.behaviour.machines
    reached = {(machine.id, machine.start) for machine in machines}
    for scenario in scenarios:
        try:
            shown: list[Shown] = run_values(board, dict(values), family, scenario)
        except TwinError:
            continue
        for entry in shown:
            # without power no machine is in any state
            reached |= {(machine.id, state) for machine, state in zip(machines, entry.states, strict=False)}
    return [
        (machine.id, state) for machine in machines for state in machine.states if (machine.id, state) not in reached
    ]
