"""Random pairs of small boards for tests: invented, shaped to reach every rule of the formats.

Everything that the published schemas allow is drawn sooner or later; `test_drawn` holds that it is.
"""

import json
from random import Random
from typing import Any

INPUTS = ["power", "a", "b", "c"]
OUTPUTS = ["x", "y", "z"]


def with_level(rng: Random, family: dict[str, Any]) -> dict[str, Any]:
    """The family with a level, and a function that thresholds may name."""
    level = {"id": "w", "level": True, "unit": "°C", "from": 0, "to": 10}
    setpoint = {"id": "set", "type": "number", "importance": "behaviour", "tolerance": {"below": 1, "above": 0}}
    return {
        **family, "inputs": [*family["inputs"], level],
        "rest": family.get("rest", {}) | rng.choice([{}, {"w": 0}, {"w": 3}, {"w": 10}]),
        "functions": [*family["functions"], setpoint],
    }  # fmt: skip


def reading_level(rng: Random, board: dict[str, Any]) -> dict[str, Any]:
    """The board with thresholds of the level in some of its guards."""
    copy: dict[str, Any] = json.loads(json.dumps(board))
    copy["functions"]["set"] = {"fixed": rng.choice([4, 5, 6])}
    behaviour = copy["behaviour"]
    for machine in behaviour.get("machines", [behaviour]):
        for state in machine["states"].values():
            guards = [*state["go"], *(out for out in state["on"] if isinstance(out, dict))]
            for guard in guards:
                if rng.random() < 0.45:
                    guard.setdefault("if", {})["w"] = _band(rng)
    return copy


def with_running_time(rng: Random, board: dict[str, Any]) -> dict[str, Any]:
    """The board with its named clock running only while a signal is on."""
    copy: dict[str, Any] = json.loads(json.dumps(board))
    copy["behaviour"]["clocks"][0]["runs_while"] = rng.choice([*OUTPUTS, "i"])
    return copy


def _band(rng: Random) -> dict[str, Any]:
    limits: list[Any] = [0, 2, 5, 10, 12, "set", {"function": "set", "plus": -2}, {"function": "set", "plus": 1}]
    band = {key: rng.choice(limits) for key in ("from", "below") if rng.random() < 0.6}
    return band or {"from": "set"}


def family_document(rng: Random) -> dict[str, Any]:
    """A family with up to three inputs besides power, or without power, at rest in any way, sometimes with combinations that
    cannot occur.
    """
    inputs = INPUTS[rng.random() < 0.08 : rng.choice([2, 3, 4])]
    document: dict[str, Any] = {
        "format": "worthy-twin/family", "version": 1, "id": "random",
        "inputs": [{"id": name} for name in inputs],
        "outputs": [{"id": name, "compare": name != "z" or rng.random() < 0.5} for name in OUTPUTS],
        "functions": [
            {"id": "t", "type": "duration", "importance": "safety", "tolerance": {"below": 0, "above": 1}},
            {"id": "n", "type": "count", "importance": "behaviour"},
            {"id": "mode", "type": "choice", "choices": ["p", "q"], "importance": "comfort", "if_absent": "p"},
        ],
    }  # fmt: skip
    if rng.random() < 0.8:
        document["rest"] = {name: _at_rest(rng, name) for name in inputs if rng.random() < 0.6}
    if len(inputs) > 2 and rng.random() < 0.4:
        document["never_together"] = never = []
        for _ in range(rng.choice([1, 1, 2])):
            combination = {name: rng.random() < 0.6 for name in rng.sample(inputs, 2)}
            rest = document.get("rest", {})
            if any(rest.get(name, name == "power") != value for name, value in combination.items()):
                never.append(combination)
    return document


def _at_rest(rng: Random, name: str) -> bool:
    return rng.random() < (0.7 if name == "power" else 0.3)


def board_document(rng: Random, family: dict[str, Any], number: str) -> dict[str, Any]:
    """A board with one or two machines, clocks and a counter."""
    behaviour: dict[str, Any] = {
        "clocks": [{"id": "k", "starts": rng.choice(["zero", "expired"]), "runs_without_power": rng.random() < 0.5}],
        "counters": [{"id": "m", "survives_power_loss": rng.random() < 0.5}],
        "internal": ["i"],
    }
    machines = [_machine(rng, family, count) for count in ([rng.choice([2, 3, 4])] if rng.random() < 0.6 else [2, 2])]
    if len(machines) == 1:
        behaviour |= machines[0]
    else:
        behaviour["machines"] = [machine | {"id": f"m{i}"} for i, machine in enumerate(machines)]
    return {
        "format": "worthy-twin/board", "version": 1, "part_number": number, "maker": "random", "title": "random",
        "family": "random", "status": "current",
        "settings": [{"id": "S", "kind": "dip", "positions": 2, "factory": "00"}],
        "functions": {
            "t": {"table": [{"when": {"S.1": "off"}, "value": 1}, {"when": {"S.1": "on"}, "value": 2}]},
            "n": {"fixed": rng.choice([1, 2])},
            "mode": {"table": [{"when": {"S.2": "off"}, "value": "p"}, {"when": {"S.2": "on"}, "value": "q"}]},
        },
        "behaviour": behaviour,
    }  # fmt: skip


def _machine(rng: Random, family: dict[str, Any], count: int) -> dict[str, Any]:
    names = [f"s{index}" for index in range(count)]
    return {
        "start": names[0],
        "survive_power_loss": [name for name in names if rng.random() < 0.25],
        "states": {name: _state(rng, family, names) for name in names},
    }


def _state(rng: Random, family: dict[str, Any], names: list[str]) -> dict[str, Any]:
    inputs = [each["id"] for each in family["inputs"] if each["id"] != "power"]
    on: list[Any] = [name for name in [*OUTPUTS, "i"] if rng.random() < 0.3]
    if rng.random() < 0.25:
        on.append({"output": "y", "if": {rng.choice(inputs): rng.random() < 0.5}})
    return {"on": on, "go": [_arrow(rng, inputs, names) for _ in range(rng.choice([1, 2, 2, 3]))]}


def _arrow(rng: Random, inputs: list[str], names: list[str]) -> dict[str, Any]:
    arrow: dict[str, Any] = {"to": rng.choice(names)}
    if rng.random() < 0.6:
        arrow["if"] = {rng.choice(inputs): rng.random() < 0.5}
    if rng.random() < 0.15:
        arrow.setdefault("if", {})[rng.choice(["x", "i"])] = rng.random() < 0.5
    if rng.random() < 0.85 or "if" not in arrow:
        arrow["after"] = rng.choice([1, 1, 2, 3, "t"])
        if rng.random() < 0.3:
            arrow["clock"] = "k"
    if rng.random() < 0.2:
        arrow["count"] = {"counter": "m", rng.choice(["reached", "below"]): rng.choice([1, 2, "n"])}
    if rng.random() < 0.2:
        arrow["when"] = {"mode": rng.choice(["p", "q"])}
    if rng.random() < 0.25:
        arrow["reset"] = ["k"]
    if rng.random() < 0.3:
        arrow[rng.choice(["add", "clear"])] = ["m"]
    return arrow


def changed_copy(rng: Random, board: dict[str, Any], number: str) -> dict[str, Any]:
    """The same board with one small thing changed somewhere, or nothing."""
    copy: dict[str, Any] = json.loads(json.dumps(board)) | {"part_number": number}
    behaviour = copy["behaviour"]
    states = [s for m in behaviour.get("machines", [behaviour]) for s in m["states"].values()]
    arrows = [arrow for state in states for arrow in state["go"]]
    match rng.randrange(6):
        case 0:
            timed = [arrow for arrow in arrows if "after" in arrow]
            if timed:
                rng.choice(timed)["after"] = rng.choice([1, 2, 3])
        case 1:
            rng.choice(arrows).pop("reset", None)
        case 2:
            rng.choice(states)["on"] = [name for name in OUTPUTS if rng.random() < 0.4]
        case 3:
            behaviour.get("machines", [behaviour])[0]["survive_power_loss"] = []
        case 4:
            behaviour["clocks"][0]["runs_without_power"] ^= True
    return copy
