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
    limits: list[Any] = [
        0,
        2,
        5,
        10,
        12,
        -3,
        "set",
        {"function": "set"},
        {"function": "set", "plus": -2},
        {"function": "set", "plus": 1},
    ]
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
            {"id": "flow", "type": "flag", "importance": "behaviour", "if_absent": False},
        ],
    }  # fmt: skip
    if rng.random() < 0.8:
        document["rest"] = {name: _at_rest(rng, name) for name in inputs if rng.random() < 0.6}
    if len(inputs) > 1 and rng.random() < 0.4:
        never = document["never_together"] = []
        for _ in range(rng.choice([1, 1, 2])):
            combination = {
                name: rng.random() < 0.6 for name in rng.sample(inputs, min(len(inputs), rng.choice([1, 2, 2, 2, 3])))
            }
            rest = document.get("rest", {})
            if any(rest.get(name, name == "power") != value for name, value in combination.items()):
                never.append(combination)
    return document


def _at_rest(rng: Random, name: str) -> bool:
    return rng.random() < (0.7 if name == "power" else 0.3)


def board_document(rng: Random, family: dict[str, Any], number: str) -> dict[str, Any]:
    """A board with one or two machines, clocks and a counter."""
    settings, functions = _settings(rng)
    machines = [_machine(rng, family, count) for count in ([rng.choice([2, 3, 4])] if rng.random() < 0.6 else [2, 2])]
    behaviour: dict[str, Any] = {
        "clocks": [{"id": "k", "starts": rng.choice(["zero", "expired"]), "runs_without_power": rng.random() < 0.5}],
        "counters": [{"id": "m", "survives_power_loss": rng.random() < 0.5}],
        "internal": ["i"],
    }
    if len(machines) == 1:
        behaviour |= machines[0]
    else:
        behaviour["machines"] = [machine | {"id": f"m{i}"} for i, machine in enumerate(machines)]
    return {
        "format": "worthy-twin/board", "version": 1, "part_number": number, "maker": "random", "title": "random",
        "family": "random", "status": rng.choice(["current", "discontinued"]), "settings": settings,
        "functions": functions, "behaviour": behaviour,
    }  # fmt: skip


def _settings(rng: Random) -> tuple[list[dict[str, Any]], dict[str, Any]]:
    """The elements of a board and what they mean: always a bank of two, now and then one more of any kind."""
    elements = [{"id": "S", "kind": "dip", "positions": 2, "factory": rng.choice(["00", "10"])}]
    functions: dict[str, Any] = {
        "t": {"table": [{"when": {"S.1": "off"}, "value": 1}, {"when": {"S.1": "on"}, "value": 2}]},
        "n": {"fixed": rng.choice([1, 2])},
        "mode": {"table": [{"when": {"S.2": "off"}, "value": "p"}, {"when": {"S.2": "on"}, "value": "q"}]},
        "flow": {"table": [{"when": {"S.1": "off", "S.2": "on"}, "value": True}, {"when": {"S.1": "on"}, "value": False},
                           {"when": {"S.1": "off", "S.2": "off"}, "value": False}]},
    }  # fmt: skip
    if rng.random() < 0.3:
        del functions[rng.choice(["mode", "flow"])]
    if rng.random() < 0.6:
        kind = rng.choice(ELEMENTS)
        elements.append(element(rng, kind))
        match kind:
            case "parameter":
                functions["t"] = {"from": "E", "scale": 0.5} if rng.random() < 0.5 else {"from": "E", "offset": 1}
            case "thumbwheel":
                functions["n"] = {"from": "E"}
            case "rotary":
                functions["n"] = {"from": "E"} if set("0123") >= set(elements[-1]["values"]) else functions["n"]
            case "program":
                functions["mode"] = {"from": "E"}
    return elements, functions


ELEMENTS = ("dip", "rotary", "jumper", "program", "trimmer", "link", "memory", "parameter", "code", "thumbwheel")


def element(rng: Random, kind: str) -> dict[str, Any]:
    """An element of a kind, as small or as large as it may be."""
    node: dict[str, Any] = {"id": "E", "kind": kind}
    match kind:
        case "dip":
            count = rng.choice([1, 3, 32])
            node |= {"positions": count, "factory": "".join(rng.choice("01") for _ in range(count))}
        case "code":
            count = rng.choice([1, 4, 32])
            node |= {"places": count, "symbols": (symbols := rng.choice(["01", "AB9"])), "factory": symbols[0] * count}
            node |= rng.choice([{}, {"fact": "serial"}])
        case "thumbwheel":
            count = rng.choice([1, 2, 3, 4])
            node |= {"wheels": count, "factory": "0" * (count - 1) + "2"}
            node |= rng.choice([{}, {"coding": "bcd"}, {"coding": "complement"}])
        case "parameter":
            node |= {"min": 0, "max": 4, "step": 2, "factory": 2} | rng.choice([{}, {"unit": "s"}])
        case _:
            values = ["p", "q"] if kind == "program" else rng.choice([["0", "1", "2"], ["open", "1-2"], ["one"]])
            node |= {"values": values, "factory": values[0]}
            node |= {"angles": {"from": -150, "to": 150}} if rng.random() < 0.3 and kind == "trimmer" else {}
    if rng.random() < 0.3:
        node["locked"] = rng.choice([True, False, [1]]) if kind in ("dip", "code", "thumbwheel") else rng.random() < 0.5
    return node


def positions(rng: Random, board: dict[str, Any], unreadable: float = 0.0) -> dict[str, Any]:
    """How the elements of a board stand, as a record writes it; some of them unreadable."""
    found: dict[str, Any] = {}
    for node in board["settings"]:
        match node["kind"]:
            case "dip" | "code" | "thumbwheel" as kind:
                symbols = {"dip": "01", "thumbwheel": "0123"}.get(kind) or node["symbols"]
                marks = [rng.choice(symbols) for _ in node["factory"]]
                if kind == "thumbwheel":
                    marks[:-1] = "0" * (len(marks) - 1)  # counts stay as small as the searches of the tests need
                found[node["id"]] = "".join("?" if rng.random() < unreadable else mark for mark in marks)
            case "parameter":
                found[node["id"]] = rng.choice([0, 2, 4])
            case _:
                found[node["id"]] = rng.choice(node["values"])
        if rng.random() < unreadable:
            found[node["id"]] = "?" * len(node["factory"]) if isinstance(found[node["id"]], str) and node["kind"] in ("dip", "code", "thumbwheel") else "?"  # fmt: skip
    return found


def _machine(rng: Random, family: dict[str, Any], count: int) -> dict[str, Any]:
    names = [f"s{index}" for index in range(count)]
    machine: dict[str, Any] = {"start": names[0], "states": {name: _state(rng, family, names) for name in names}}
    return machine | ({"survive_power_loss": kept} if (kept := [n for n in names if rng.random() < 0.25]) else {})


def _state(rng: Random, family: dict[str, Any], names: list[str]) -> dict[str, Any]:
    inputs = [each["id"] for each in family["inputs"] if not each.get("level") and each["id"] != "power"]
    on: list[Any] = [name for name in [*OUTPUTS, "i"] if rng.random() < 0.3]
    if rng.random() < 0.25:
        on.append({"output": "y", "if": {rng.choice(inputs): rng.random() < 0.5}})
    if rng.random() < 0.1:
        on.append({"output": rng.choice(OUTPUTS), "when": _when(rng)})
    return {"on": on, "go": [_arrow(rng, family, inputs, names) for _ in range(rng.choice([1, 2, 2, 3]))]}


def _when(rng: Random) -> dict[str, Any]:
    return {"mode": rng.choice(["p", "q"])} if rng.random() < 0.7 else {"flow": rng.random() < 0.5}


def _arrow(rng: Random, family: dict[str, Any], inputs: list[str], names: list[str]) -> dict[str, Any]:
    arrow: dict[str, Any] = {"to": rng.choice(names)}
    if rng.random() < 0.6:
        arrow["if"] = {rng.choice(inputs): rng.random() < 0.5}
    if rng.random() < 0.15:
        arrow.setdefault("if", {})[rng.choice(["x", "i"])] = rng.random() < 0.5
    if rng.random() < 0.04 and family["inputs"][0]["id"] == "power":
        arrow.setdefault("if", {})["power"] = rng.random() < 0.7
    if rng.random() < 0.85 or "if" not in arrow:
        arrow["after"] = rng.choice([1, 1, 2, 3, "t", "t", 0]) if "if" in arrow else rng.choice([1, 1, 2, 3, "t"])
        if rng.random() < 0.3:
            arrow["clock"] = "k"
    if rng.random() < 0.2:
        arrow["count"] = {"counter": "m", rng.choice(["reached", "below"]): rng.choice([1, 1, 2, 2, "n", 0])}
    if rng.random() < 0.2:
        arrow["when"] = _when(rng)
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
