"""A separate, plain judge of two boards: explicit search in small ticks, straight from the documents.

Shares no code with the product. Time is counted in quarters of a second, which is fine enough for the small boards of
the tests; what this search finds is real, and what it does not find may still be found by finer timing.
"""

from collections import deque
from typing import Any

TICKS = 4
OLD = 10**9


class Settles(Exception):
    """A board that never settles was met."""


def amount_of(amount: Any, values: dict[str, Any]) -> Any:
    return values[amount] if isinstance(amount, str) else amount


def threshold(limit: Any, values: dict[str, Any]) -> Any:
    """A threshold of a level as a number; None where there is none."""
    if isinstance(limit, dict):
        return values[limit["function"]] + limit.get("plus", 0)
    return None if limit is None else amount_of(limit, values)


def floors(family: dict[str, Any], boards: list[dict[str, Any]], values: list[dict[str, Any]]) -> dict[str, list[Any]]:
    """Of each level the lowest value of every cell into which both boards' thresholds cut it, from below."""
    found = {each["id"]: {each["from"]} for each in family["inputs"] if each.get("level")}
    bounds = {each["id"]: (each["from"], each["to"]) for each in family["inputs"] if each.get("level")}
    for board, known in zip(boards, values, strict=True):
        for machine in board["behaviour"].get("machines", [board["behaviour"]]):
            for state in machine["states"].values():
                for guard in [*state.get("go", []), *(out for out in state.get("on", []) if isinstance(out, dict))]:
                    for name, wanted in guard.get("if", {}).items():
                        for key in ("from", "below") if isinstance(wanted, dict) else ():
                            at = threshold(wanted.get(key), known)
                            if at is not None and bounds[name][0] < at <= bounds[name][1]:
                                found[name].add(at)
    return {name: sorted(each) for name, each in found.items()}


class Plain:
    """One board, its configuration a tuple: (states, state ages, clock ages, counters), ages in ticks, OLD is expired."""

    def __init__(self, board: dict[str, Any], values: dict[str, Any], ticks: int = TICKS) -> None:
        self.ticks = ticks
        times = [
            g.get("after", 0)
            for m in board["behaviour"].get("machines", [board["behaviour"]])
            for s in m["states"].values()
            for g in s.get("go", [])
        ]
        self.oldest = ticks * max([amount_of(t, values) for t in times], default=0) + 1
        self.b = board["behaviour"]
        self.machines = self.b.get("machines", [self.b])
        self.values = values
        self.clocks = self.b.get("clocks", [])
        self.counters = self.b.get("counters", [])

    def amount(self, x: Any) -> Any:
        return amount_of(x, self.values)

    def met(self, wanted: Any, stands: Any) -> bool:
        """Whether what a guard asks of an input holds; of a level that it stands at `from` or above, and below `below`."""
        if not isinstance(wanted, dict):
            return bool(stands == wanted)
        low, high = (threshold(wanted.get(key), self.values) for key in ("from", "below"))
        return (low is None or stands >= low) and (high is None or stands < high)

    def first_age(self, clock: dict[str, Any]) -> int:
        return OLD if clock.get("starts") == "expired" else 0

    def start(self) -> tuple[Any, ...]:
        return (
            tuple(m["start"] for m in self.machines), (0,) * len(self.machines),
            tuple(self.first_age(c) for c in self.clocks), (0,) * len(self.counters),
        )  # fmt: skip

    def on(self, config: tuple[Any, ...], inputs: dict[str, bool]) -> set[str]:
        if not inputs.get("power", True):
            return set()
        found = set()
        for machine, state in zip(self.machines, config[0], strict=True):
            for out in machine["states"][state].get("on", []):
                if isinstance(out, str):
                    found.add(out)
                elif all(self.met(v, inputs[k]) for k, v in out.get("if", {}).items()) and all(
                    self.values[k] == v for k, v in out.get("when", {}).items()
                ):
                    found.add(out["output"])
        return found

    def enabled(
        self, go: dict[str, Any], m: int, config: tuple[Any, ...], inputs: dict[str, bool], on: set[str]
    ) -> bool:
        _states, ages, clocks, counters = config
        for name, wanted in go.get("if", {}).items():
            if not self.met(wanted, inputs.get(name, name in on)):
                return False
        if any(self.values[k] != v for k, v in go.get("when", {}).items()):
            return False
        if "count" in go:
            n = counters[[c["id"] for c in self.counters].index(go["count"]["counter"])]
            if "reached" in go["count"] and n < self.amount(go["count"]["reached"]):
                return False
            if "below" in go["count"] and n >= self.amount(go["count"]["below"]):
                return False
        if "after" in go:
            age = clocks[[c["id"] for c in self.clocks].index(go["clock"])] if "clock" in go else ages[m]
            return bool(age >= self.amount(go["after"]) * self.ticks)
        return True

    def settle(self, config: tuple[Any, ...], inputs: dict[str, bool]) -> tuple[Any, ...]:
        if not inputs.get("power", True):
            return config
        for _ in range(33):
            step = self.first(config, inputs)
            if step is None:
                return config
            m, go = step
            states, ages, clocks, counters = (list(part) for part in config)
            states[m], ages[m] = go["to"], 0
            for i, c in enumerate(self.clocks):
                if c["id"] in go.get("reset", []):
                    clocks[i] = 0
            for i, c in enumerate(self.counters):
                if c["id"] in go.get("clear", []):
                    counters[i] = 0
                if c["id"] in go.get("add", []):
                    counters[i] = min(counters[i] + 1, 9)
            config = (tuple(states), tuple(ages), tuple(clocks), tuple(counters))
        raise Settles

    def first(self, config: tuple[Any, ...], inputs: dict[str, bool]) -> tuple[int, dict[str, Any]] | None:
        on = self.on(config, inputs)
        for m, machine in enumerate(self.machines):
            for go in machine["states"][config[0][m]].get("go", []):
                if self.enabled(go, m, config, inputs, on):
                    return m, go
        return None

    def tick(self, config: tuple[Any, ...], inputs: dict[str, bool]) -> tuple[Any, ...]:
        states, ages, clocks, counters = config
        powered, on = inputs.get("power", True), self.on(config, inputs)
        older = tuple(a + 1 if a < self.oldest else OLD for a in ages) if powered else ages
        named = tuple(
            (a + 1 if a < self.oldest else OLD) if self.runs(c, powered, on) else a
            for a, c in zip(clocks, self.clocks, strict=True)
        )
        return self.settle((states, older, named, counters), inputs)

    def runs(self, clock: dict[str, Any], powered: bool, on: set[str]) -> bool:
        """Whether a named clock runs: with power, or where it runs without; one of running time only while its signal is on."""
        if "runs_while" in clock:
            return clock["runs_while"] in on
        return bool(powered or clock.get("runs_without_power"))

    def power(self, config: tuple[Any, ...], inputs: dict[str, bool]) -> tuple[Any, ...]:
        states, ages, clocks, counters = config
        if not inputs.get("power", True):
            states = tuple(
                s if s in m.get("survive_power_loss", []) else m["start"]
                for s, m in zip(states, self.machines, strict=True)
            )
            counters = tuple(
                n if c.get("survives_power_loss") else 0 for n, c in zip(counters, self.counters, strict=True)
            )
        clocks = tuple(
            a if c.get("runs_without_power") else self.first_age(c) for a, c in zip(clocks, self.clocks, strict=True)
        )
        return (states, (0,) * len(ages), clocks, counters)


def at_rest(family: dict[str, Any]) -> dict[str, Any]:
    """How the inputs stand at rest: off, the power on, a level at its lowest, unless the family says otherwise."""
    usual = {each["id"]: each["from"] if each.get("level") else each["id"] == "power" for each in family["inputs"]}
    return {name: family.get("rest", {}).get(name, value) for name, value in usual.items()}


def changes_from(inputs: dict[str, Any], cells: dict[str, list[Any]]) -> list[tuple[str, Any]]:
    """Every single input change: one turned over, or a level gone into the cell above or below."""
    found = []
    for name, stands in inputs.items():
        if name not in cells:
            found.append((name, not stands))
            continue
        at = cells[name].index(stands)
        found += [(name, cells[name][other]) for other in (at - 1, at + 1) if 0 <= other < len(cells[name])]
    return found


def fewest_changes(
    family: dict[str, Any], boards: list[dict[str, Any]], values: list[dict[str, Any]], most: int = 200_000
) -> int | str | None:
    """The fewest input changes to a difference, None where the boards are alike, "large" past `most` configurations.

    Nothing is followed from where a board never settles; "endless" where one was met and no difference.
    """
    one, two = (Plain(b, v) for b, v in zip(boards, values, strict=True))
    compared = {o["id"] for o in family["outputs"] if o.get("compare", True)}
    cells = floors(family, boards, values)
    rest = at_rest(family)
    rest |= {name: max(floor for floor in each if floor <= rest[name]) for name, each in cells.items()}
    never = family.get("never_together", [])
    first = (tuple(rest.values()), one.settle(one.start(), rest), two.settle(two.start(), rest))
    seen = {first: 0}
    queue = deque([(0, first)])
    endless = False
    while queue:
        cost, here = queue.popleft()
        if seen[here] < cost:
            continue
        inputs = dict(zip(rest, here[0], strict=True))
        if one.on(here[1], inputs) & compared != two.on(here[2], inputs) & compared:
            return cost
        if len(seen) > most:
            return "large"
        try:
            later = (here[0], one.tick(here[1], inputs), two.tick(here[2], inputs))
            if seen.get(later, 10**9) > cost:
                seen[later] = cost
                queue.appendleft((cost, later))
        except Settles:
            endless = True
        for name, value in changes_from(inputs, cells):
            changed = inputs | {name: value}
            if any(all(changed[k] == v for k, v in combination.items()) for combination in never):
                continue
            a, b = here[1], here[2]
            if name == "power":
                a, b = one.power(a, changed), two.power(b, changed)
            try:
                new = (tuple(changed.values()), one.settle(a, changed), two.settle(b, changed))
            except Settles:
                endless = True
                continue
            if seen.get(new, 10**9) > cost + 1:
                seen[new] = cost + 1
                queue.append((cost + 1, new))
    return "endless" if endless else None
