"""Measure at the pins of a machine that is powered and does not do what it should: whose fault is it, the supply's, a missing
input's, the board's, or that of what hangs on it? Voltages follow from the machine as it is simulated with its fault.
"""

from collections.abc import Mapping
from dataclasses import dataclass, replace
from random import Random
from typing import Any, Literal

from twincore.behaviour import simulate
from twincore.errors import TwinError
from twincore.practice.outcome import Outcome, Row
from twincore.practice.signals import input_of, kind_of, output_of, pins_of
from twincore.practice.task import Boards, Meter, NoTask, Task
from twincore.profile import Record, Scenario, Step

Blamed = Literal["supply", "input", "board", "load"]
BLAMED: tuple[Blamed, ...] = ("supply", "input", "board", "load")
VOLTS = {"mains": 230.0, "24ac": 24.0, "24dc": 24.0, "12dc": 12.0, "5dc": 5.0}
"""What is there at a pin that carries something (nominal values, common practice)."""
FEW = 4
"""So many measurements are enough (our choice): supply, output, and the inputs it waits for."""
JUST_BEFORE_S = 1


@dataclass(frozen=True, slots=True)
class Measured:
    """The pins that were measured one after another, and who is blamed."""

    places: tuple[str, ...] = ()
    named: str = ""


def drawn_meter(boards: Boards, stood: Record, rng: Random) -> Meter:
    """A moment of a run at which an output should be on, and what keeps it off. Raises NoTask."""
    moments = _moments(boards, stood)
    if not moments:
        raise NoTask(f"no run of {boards.family.title} shows an output that can be measured at a pin")
    scenario, at, output = rng.choice(moments)
    for blamed in rng.sample(BLAMED, len(BLAMED)):
        if blamed != "input":
            return Meter(scenario, at, output, blamed)
        # what came and went before the moment is not there then either way: no meter tells whether it came
        standing = (name for name in _measurable_inputs(boards) if _stands(boards, scenario, at, name))
        inputs = [name for name in standing if _keeps_off(boards, stood, scenario, at, output, name)]
        if inputs:
            return Meter(scenario, at, output, blamed, rng.choice(inputs))
    raise NoTask("nothing keeps it off")


def _moments(boards: Boards, stood: Record) -> list[tuple[Scenario, float, str]]:
    """Where in the family's runs an output is on that has a pin."""
    outputs = {name for name in boards.family.compared if places_of_output(boards, name)}
    found: list[tuple[Scenario, float, str]] = []
    for scenario in boards.family.scenarios:
        try:
            entries = simulate(boards.original, stood, boards.family, scenario)
        except TwinError:
            continue
        ends = [float(each.at) for each in entries[1:]] + [float(scenario.until)]
        found += [
            (scenario, end - JUST_BEFORE_S, output)
            for output in sorted(outputs)
            for entry, end in zip(entries, ends, strict=True)
            if output in entry.on and end - float(entry.at) > 2 * JUST_BEFORE_S
        ]
    return found


def places_of_output(boards: Boards, output: str) -> list[str]:
    """The pins at which an output's voltage stands."""
    return [place for place, signal in _signals(boards).items() if output_of(boards.family, signal) == output]


def _signals(boards: Boards) -> dict[str, str]:
    """What every pin of the original carries, where that has a voltage to measure."""
    volts = {each["id"]: each["volts_class"] for each in boards.family.document.get("signals", ())}
    return {
        pin.place: pin.carries
        for pin in pins_of(boards.original, boards.family)
        if pin.carries is not None and volts.get(pin.carries) in VOLTS
    }


def _is_return(boards: Boards, signal: str) -> bool:
    """Whether it is what others are measured against: of two supplies of one class the family names the live one first."""
    volts = kind_of(boards.family, signal)["volts_class"]
    of_class = [each["id"] for each in boards.family.document["signals"]
                if (each["kind"], each["volts_class"]) == ("supply", volts)]  # fmt: skip
    return bool(signal != of_class[0])


def _places_of_input(boards: Boards, name: str) -> list[str]:
    return [place for place, signal in _signals(boards).items() if input_of(boards.family, signal) == name]


def _measurable_inputs(boards: Boards) -> list[str]:
    signals = _signals(boards).values()
    return sorted({name for signal in signals if (name := input_of(boards.family, signal)) and name != "power"})


def _without(scenario: Scenario, name: str) -> Scenario:
    """The same run with an input that never comes."""
    steps = [Step(0, ((name, False),))]
    for step in scenario.steps:
        left = tuple(change for change in step.set if change[0] != name)
        steps += [replace(step, set=left)] if left else []
    return replace(scenario, steps=tuple(sorted(steps, key=lambda each: each.at)))


def _on_at(boards: Boards, stood: Record, scenario: Scenario, at: float) -> tuple[str, ...]:
    entries = simulate(boards.original, stood, boards.family, scenario)
    return next((each.on for each in reversed(entries) if float(each.at) <= at), ())


def _keeps_off(boards: Boards, stood: Record, scenario: Scenario, at: float, output: str, name: str) -> bool:
    try:
        return output not in _on_at(boards, stood, _without(scenario, name), at)
    except TwinError:
        return False


def volts_at(task: Task, place: str) -> float:
    """What a meter shows between a pin and its return, at the moment of the task. Raises ValueError for no pin of it."""
    boards, meter = task.boards, meter_of(task)
    signal = _signals(boards).get(place)
    if signal is None:
        raise ValueError(f'expected a pin of {boards.original.part_number} that has a voltage, found "{place}"')
    kind = kind_of(boards.family, signal)
    full = VOLTS[kind["volts_class"]]
    if kind["kind"] == "supply":
        return 0.0 if meter.blamed == "supply" or _is_return(boards, signal) else full
    if meter.blamed == "supply":
        return 0.0
    scenario = _without(meter.scenario, meter.missing) if meter.missing else meter.scenario
    if (output := output_of(boards.family, signal)) is not None:
        closed = output in _on_at(boards, task.stood, scenario, meter.at)
        return full if closed and not (meter.blamed == "board" and output == meter.output) else 0.0
    name = input_of(boards.family, signal)
    return full if name is not None and _stands(boards, scenario, meter.at, name) else 0.0


def _stands(boards: Boards, scenario: Scenario, at: float, name: str) -> bool:
    now = bool(boards.family.rest.get(name, name == "power"))
    for step in scenario.steps:
        if float(step.at) <= at:
            now = bool(dict(step.set).get(name, now))
    return now


def meter_of(task: Task) -> Meter:
    """The moment and the fault."""
    assert task.meter is not None  # drawn when the task was made
    return task.meter


def telling_places(task: Task) -> list[str]:
    """Where it shows whose fault it is: the supply, the output, and the input that is missing, or any."""
    boards, meter = task.boards, meter_of(task)
    signals = _signals(boards)
    supply = next(
        (place for place, signal in signals.items()
         if kind_of(boards.family, signal)["kind"] == "supply" and not _is_return(boards, signal)), None,
    )  # fmt: skip
    inputs = (
        _places_of_input(boards, meter.missing)
        if meter.missing
        else [place for place, signal in signals.items() if input_of(boards.family, signal)]
    )
    found = [supply, places_of_output(boards, meter.output)[0], *inputs[:1]]
    return [each for each in found if each is not None]


def begin(task: Task) -> Measured:
    """Nothing was measured yet."""
    return Measured()


def act(task: Task, state: Measured, action: Mapping[str, Any]) -> Measured:
    """Measure at a pin, or say whose fault it is. Raises ValueError for a pin or a fault that is not there."""
    match action["do"]:
        case "measure":
            volts_at(task, action["place"])
            known = action["place"] in state.places
            return state if known else replace(state, places=(*state.places, action["place"]))
        case "blame":
            if action["what"] not in BLAMED:
                raise ValueError(f'expected one of {", ".join(BLAMED)}, found "{action["what"]}"')
            return replace(state, named=action["what"])
    raise ValueError(f'expected "measure", "blame" or "done", found "{action["do"]}"')


def shown(task: Task, state: Measured) -> dict[str, Any]:
    """What the machine was made to do and does not, its pins with what is printed there, and what the meter showed."""
    boards, meter = task.boards, meter_of(task)
    marks = {pin.place: (pin.mark, pin.title) for pin in pins_of(boards.original, boards.family)}
    return {
        "doing": meter.scenario.title, "at": meter.at, "missing": boards.family.titles.get(meter.output, meter.output),
        "pins": [
            {
                "place": place, "mark": marks[place][0], "title": marks[place][1],
                "volts": volts_at(task, place) if place in state.places else None,
            }
            for place in _signals(boards)
        ],
        "named": state.named,
    }  # fmt: skip


def outcome(task: Task, state: Measured) -> Outcome:
    """Whose fault it is, and whether what was measured could show it."""
    boards, meter = task.boards, meter_of(task)
    signals = _signals(boards)
    kinds = [kind_of(boards.family, signals[place])["kind"] for place in state.places]
    at_output = any(output_of(boards.family, signals[place]) == meter.output for place in state.places)
    needed = {
        "supply": "supply" in kinds,
        "load": at_output,
        "board": at_output and ("input" in kinds or "supply" in kinds),
        "input": any(input_of(boards.family, signals[place]) == meter.missing for place in state.places),
    }[meter.blamed]
    rows = (
        Row("whose fault it is", meter.blamed, state.named or "nobody's", state.named == meter.blamed, "meter"),
        Row("measured where it shows", "yes", "yes" if needed else "no", needed, "meter"),
    )
    told: list[tuple[str, dict[str, Any]]] = [
        ("fault", {"blamed": meter.blamed, "output": boards.family.titles.get(meter.output, meter.output),
                   "input": boards.family.titles.get(meter.missing, meter.missing),
                   "places": _places_of_input(boards, meter.missing) or places_of_output(boards, meter.output)})
    ]  # fmt: skip
    if len(state.places) > FEW:
        told.append(("many measurements", {"count": len(state.places)}))
    return Outcome(rows, told=tuple(told))
