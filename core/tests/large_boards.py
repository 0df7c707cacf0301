"""Large invented boards for the bench and for tests of the hard cases: many states, ten inputs, clocks, a counter."""

import json
from random import Random
from typing import Any

OUTPUTS = [f"o{k}" for k in range(6)]


def family_document(inputs: int = 10) -> dict[str, Any]:
    """So many inputs besides power, six outputs, no functions."""
    return {
        "format": "worthy-twin/family", "version": 1, "id": "large",
        "inputs": [{"id": name} for name in ["power", *_named("i", inputs)]],
        "outputs": [{"id": name} for name in OUTPUTS], "functions": [],
    }  # fmt: skip


def _named(letter: str, count: int) -> list[str]:
    return [f"{letter}{k}" for k in range(count)]


def board_document(rng: Random, states: int, number: str, clocks: int = 4, inputs: int = 10) -> dict[str, Any]:
    """A board that always settles: arrows without time of their own lead on to later states only. With clocks it counts too."""
    read, named = _named("i", inputs), _named("k", clocks)
    behaviour: dict[str, Any] = {
        "start": "s0",
        "survive_power_loss": [f"s{states - 1}"],
        "states": {f"s{n}": _state(rng, n, states, read, named) for n in range(states)},
    }
    if clocks:
        behaviour["clocks"] = [
            {"id": name, "starts": rng.choice(["zero", "expired"]), "runs_without_power": rng.random() < 0.2}
            for name in named
        ]
        behaviour["counters"] = [{"id": "c"}]
    return {
        "format": "worthy-twin/board", "version": 1, "part_number": number, "maker": "large", "title": "large",
        "family": "large", "status": "current", "settings": [], "functions": {}, "behaviour": behaviour,
    }  # fmt: skip


def _state(rng: Random, n: int, states: int, inputs: list[str], clocks: list[str]) -> dict[str, Any]:
    go: list[dict[str, Any]] = [{"to": f"s{rng.randrange(states)}", "after": rng.choice([5, 30, 90, 300, 900])}]
    if rng.random() < 0.7:
        go[0]["if"] = {rng.choice(inputs): rng.random() < 0.5}
    for _ in range(rng.choice([1, 2, 3]) if n < states - 1 else 0):
        arrow: dict[str, Any] = {"to": f"s{min(n + 1 + int(rng.expovariate(0.3)), states - 1)}"}
        arrow["if"] = {rng.choice(inputs): rng.random() < 0.5 for _ in range(rng.choice([1, 2]))}
        if rng.random() < 0.3:
            arrow["after"] = rng.choice([10, 15, 60, 120])
            if clocks and rng.random() < 0.6:
                arrow["clock"] = rng.choice(clocks)
        if clocks and rng.random() < 0.25:
            arrow["reset"] = [rng.choice(clocks)]
        if clocks and rng.random() < 0.1:
            arrow["count"] = {"counter": "c", rng.choice(["reached", "below"]): rng.choice([2, 3, 5])}
        if clocks and rng.random() < 0.15:
            arrow[rng.choice(["add", "clear"])] = ["c"]
        go.append(arrow)
    return {"on": [name for name in OUTPUTS if rng.random() < 0.4], "go": go}


def changed_deep(rng: Random, board: dict[str, Any], number: str) -> dict[str, Any]:
    """The same board with one time a second longer, in a state that takes many arrows to reach."""
    copy: dict[str, Any] = json.loads(json.dumps(board)) | {"part_number": number}
    states = copy["behaviour"]["states"]
    steps = {"s0": 0}
    for name in (waiting := ["s0"]):
        for go in states[name]["go"]:
            if go["to"] not in steps:
                steps[go["to"]] = steps[name] + 1
                waiting.append(go["to"])
    deep = sorted(steps, key=lambda name: -steps[name])[:8]
    timed = [go for name in deep for go in states[name]["go"] if "after" in go]
    rng.choice(timed)["after"] += 1
    return copy
