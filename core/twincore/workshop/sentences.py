"""Behaviour as tables of cells: what is on in a state, and a row for every arrow out of it.

A cell is a list of short sayings with commas between them: "call on, limit_ok off"; "purge.pre" or "12 s of since_stop";
"restart manual, n reaches tries"; "reset since_stop, clear n, add n". What a cell says that cannot be read stays in it.
"""

import re
from collections.abc import Mapping
from dataclasses import dataclass
from typing import Any

from twincore.profile import Family
from twincore.profile.values import exact, stands
from twincore.workshop.values import read_flag, read_seconds, read_value, value_text

OF_CLOCK = re.compile(r"(.+?)\s+of\s+(\S+)")
COUNTED = re.compile(r"(\S+)\s+(reaches|below)\s+(\S+)")
DONE = {"reset": "reset", "clear": "clear", "add": "add"}


@dataclass(frozen=True, slots=True)
class Arrow:
    """A row of the table: where it goes, and the cells that say when and what it does besides."""

    to: str
    inputs: str = ""
    after: str = ""
    settings: str = ""
    does: str = ""


@dataclass(frozen=True, slots=True)
class StateCells:
    """A state as cells: its name and title, what is on in it, and its arrows in the order in which they are looked at."""

    name: str
    title: str
    on: str
    arrows: tuple[Arrow, ...]


@dataclass(frozen=True, slots=True)
class Names:
    """What cells may name, by what people write: ids and titles."""

    inputs: Mapping[str, str]
    outputs: Mapping[str, str]
    functions: Mapping[str, str]
    family: Family


def names_of(family: Family, internal: tuple[str, ...] = ()) -> Names:
    """The names that the cells of a board's behaviour may use."""

    def written(names: tuple[str, ...]) -> dict[str, str]:
        return {family.titles[name].lower(): name for name in names} | {name.lower(): name for name in names}

    functions = tuple(each.id for each in family.functions)
    own = {name.lower(): name for name in internal}
    outputs = written(family.outputs) | own
    return Names(outputs | written(tuple(family.inputs)), outputs, written(functions), family)


def state_cells(name: str, node: Mapping[str, Any]) -> StateCells:
    """A state of a board document as cells."""
    arrows = tuple(_arrow_cells(each) for each in node.get("go", ()))
    on = node.get("on", [])
    return StateCells(name, node.get("title", ""), on if isinstance(on, str) else _joined(map(_on_text, on)), arrows)


def state_node(cells: StateCells, before: Mapping[str, Any], names: Names) -> dict[str, Any]:
    """What cells are in a board document; `before` is what the state was, for all that has no cell."""
    node = {key: value for key, value in before.items() if key not in ("on", "go", "title")}
    if cells.title.strip():
        node["title"] = cells.title.strip()
    on = _read_list(cells.on, lambda said: _on(said, names))
    node["on"] = cells.on if on is None else on
    rows = [
        each for each in cells.arrows if any(part.strip() for part in (each.to, each.inputs, each.after, each.does))
    ]
    node["go"] = [_arrow(each, names) for each in rows]
    return node


def renamed(machine: Mapping[str, Any], old: str, new: str) -> dict[str, Any]:
    """A machine with another name for a state, also where arrows lead to it; order is kept."""
    states = {}
    for name, state in machine["states"].items():
        arrows = [{**each, "to": new if each.get("to") == old else each.get("to")} for each in state.get("go", ())]
        states[new if name == old else name] = {**state, "go": arrows}
    result = {**machine, "states": states}
    if machine.get("start") == old:
        result["start"] = new
    if "survive_power_loss" in machine:
        result["survive_power_loss"] = [new if each == old else each for each in machine["survive_power_loss"]]
    return result


def _arrow_cells(node: Mapping[str, Any]) -> Arrow:
    inputs, when = node.get("if", {}), node.get("when", {})
    after: Any = node.get("after", "")
    count = node.get("count", {})
    said = f"{value_text(after)}{_unit(after)}" if after != "" else ""
    if "clock" in node:
        said += f" of {node['clock']}"
    settings = [when] if isinstance(when, str) else [f"{name} {value_text(value)}" for name, value in when.items()]
    if isinstance(count, dict) and count:
        how = "reaches" if "reached" in count else "below"
        settings.append(f"{count.get('counter')} {how} {value_text(count.get('reached') or count.get('below') or 0)}")
    does = [f"{word} {each}" for word in DONE for each in node.get(word, ()) if not isinstance(node.get(word), str)]
    if isinstance(node.get("reset"), str):
        does.append(node["reset"])
    shown = inputs if isinstance(inputs, str) else _joined(condition_text(n, v) for n, v in inputs.items())
    return Arrow(str(node.get("to", "")), shown, said, _joined(settings), _joined(does))


def _unit(after: Any) -> str:
    return "" if isinstance(after, str) else " s"


def _arrow(cells: Arrow, names: Names) -> dict[str, Any]:
    node: dict[str, Any] = {"to": cells.to.strip()}
    inputs = _read_list(cells.inputs, lambda said: _input(said, names))
    if inputs is None:
        node["if"] = cells.inputs
    elif inputs:
        node["if"] = dict(inputs)
    if cells.after.strip():
        node |= _after(cells.after.strip(), names)
    node |= _settings(cells.settings, names)
    does = _read_list(cells.does, _done)
    if does is None:
        node["reset"] = cells.does
    else:
        for word in DONE:
            if named := [name for verb, name in does if verb == word]:
                node[word] = named
    return node


def _after(text: str, names: Names) -> dict[str, Any]:
    clock = OF_CLOCK.fullmatch(text)
    said = clock.group(1).strip() if clock else text
    seconds = read_seconds(said)
    amount: Any = names.functions.get(said.lower(), said) if seconds is None else seconds
    return {"after": amount, **({"clock": clock.group(2)} if clock else {})}


def _settings(text: str, names: Names) -> dict[str, Any]:
    when: dict[str, Any] = {}
    count: dict[str, Any] = {}
    for said in _parts(text):
        counted = COUNTED.fullmatch(said)
        if counted:
            seconds = read_seconds(counted.group(3))
            amount: Any = (
                names.functions.get(counted.group(3).lower(), counted.group(3)) if seconds is None else seconds
            )
            count = {"counter": counted.group(1), "reached" if counted.group(2) == "reaches" else "below": amount}
            continue
        setting = _setting(said, names)
        if setting is None:
            return {"when": text}
        when[setting[0]] = setting[1]
    return {**({"when": when} if when else {}), **({"count": count} if count else {})}


def _setting(said: str, names: Names) -> tuple[str, Any] | None:
    name, value = _named(said, names.functions)
    definition = names.family.function(name) if name else None
    if definition is None or name is None:
        return None
    read = read_value(value, definition)
    return None if read is None else (name, read)


OF_LEVEL = re.compile(r"(?P<name>.+?)(?:\s+from\s+(?P<low>.+?))?(?:\s+below\s+(?P<high>.+))?")
"""A level as a guard says it: "chamber from 20 below set - 5"."""
LIMIT = re.compile(r"(?P<of>.*?)\s*(?P<sign>[-+−])?\s*(?P<by>[0-9]+(?:\.[0-9]+)?)?")


def _input(said: str, names: Names) -> tuple[str, Any] | None:
    level = OF_LEVEL.fullmatch(said.strip())
    if level is not None and (level["low"] or level["high"]):
        return _of_level(level, names)
    name, value = _named(said, names.inputs)
    flag = read_flag(value) if value else True
    return None if name is None or flag is None else (name, flag)


def _of_level(said: re.Match[str], names: Names) -> tuple[str, Any] | None:
    name = names.inputs.get(said["name"].strip().lower())
    limits = {key: _limit(said[part], names) for key, part in (("from", "low"), ("below", "high")) if said[part]}
    return None if name is None or None in limits.values() else (name, limits)


def _limit(said: str, names: Names) -> Any:
    """A threshold: a number, a function, or a function and what is added to it; None for anything else."""
    if re.fullmatch(r"[-−]?[0-9]{1,9}(\.[0-9]{1,9})?", said.strip()):
        return exact(said.strip().replace("−", "-"))
    match = LIMIT.fullmatch(said.strip())
    function = names.functions.get(match["of"].strip().lower()) if match else None
    if match is None or function is None or bool(match["sign"]) != bool(match["by"]):
        return None
    return (
        {"function": function, "plus": exact(("" if match["sign"] == "+" else "-") + match["by"])}
        if match["by"]
        else function
    )


def condition_text(name: str, value: Any) -> str:
    """What a guard asks of an input, as its cell says it."""
    if not isinstance(value, dict):
        return f"{name} {stands(value)}"
    return name + "".join(f" {key} {_limit_text(value[key])}" for key in ("from", "below") if key in value)


def _limit_text(node: Any) -> str:
    if not isinstance(node, dict):
        return value_text(node)
    plus = node.get("plus", 0)
    return str(node.get("function", "")) + (f" {'-' if plus < 0 else '+'} {value_text(abs(plus))}" if plus else "")


def _on(said: str, names: Names) -> Any:
    """An output with its conditions: "lamp if door off and call on when restart manual"."""
    output, _, conditions = said.partition(" if ")
    (output, _, when), conditions = (output.partition(" when "), conditions)
    if " when " in conditions:
        conditions, _, when = conditions.partition(" when ")
    name = names.outputs.get(output.strip().lower())
    if name is None:
        return None
    node: dict[str, Any] = {"output": name}
    for key, text, read in (("if", conditions, _input), ("when", when, _setting)):
        for each in filter(None, (part.strip() for part in text.split(" and "))):
            found: Any = read(each, names)
            if found is None:
                return None
            node.setdefault(key, {})[found[0]] = found[1]
    return node if len(node) > 1 else name


def _on_text(node: Any) -> str:
    if isinstance(node, str):
        return node
    text = str(node.get("output", ""))
    if node.get("if"):
        text += " if " + " and ".join(condition_text(name, value) for name, value in node["if"].items())
    if node.get("when"):
        text += " when " + " and ".join(f"{name} {value_text(value)}" for name, value in node["when"].items())
    return text


def _done(said: str) -> tuple[str, str] | None:
    verb, _, name = said.partition(" ")
    return (verb, name.strip()) if verb in DONE and name.strip() else None


def _named(said: str, names: Mapping[str, str]) -> tuple[str | None, str]:
    """The name with which a saying begins, and what follows; the longest name that fits."""
    small = said.lower()
    fits = [each for each in names if small == each or small.startswith(each + " ")]
    best = max(fits, key=len, default=None)
    return (None, said) if best is None else (names[best], said[len(best) :].strip())


def _read_list(text: str, read: Any) -> list[Any] | None:
    found = [read(each) for each in _parts(text)]
    return None if None in found else found


def _parts(text: str) -> list[str]:
    return [part.strip() for part in text.split(",") if part.strip()]


def _joined(parts: Any) -> str:
    return ", ".join(part for part in parts if part)
