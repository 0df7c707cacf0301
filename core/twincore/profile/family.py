"""Family: what boards of one kind of machine share, so that two of them can be compared."""

from dataclasses import dataclass
from typing import TYPE_CHECKING, Any, cast

from twincore.profile.document import open_document
from twincore.profile.faults import FaultList, known
from twincore.profile.function_def import FunctionDef, build_functions
from twincore.profile.levels import Inputs, Level, build_inputs, check_change
from twincore.profile.scenario import Scenario, build_scenario
from twincore.profile.values import Number

if TYPE_CHECKING:  # types alone: a browser need not make them
    from twincore.profile.documents import FamilyDocument


@dataclass(frozen=True, slots=True)
class Family:
    """Inputs, outputs, functions and scenarios that the boards of a family share."""

    id: str
    title: str
    inputs: Inputs
    """By name in their order; each true or false, or a level."""
    outputs: tuple[str, ...]
    compared: frozenset[str]
    rest: dict[str, bool | Number]
    never_together: tuple[dict[str, bool], ...]
    functions: tuple[FunctionDef, ...]
    scenarios: tuple[Scenario, ...]
    titles: dict[str, str]
    document: "FamilyDocument"

    @property
    def flags(self) -> tuple[str, ...]:
        """The inputs that are true or false."""
        return tuple(name for name, level in self.inputs.items() if level is None)

    @property
    def levels(self) -> tuple[Level, ...]:
        """The inputs that have a value."""
        return tuple(level for level in self.inputs.values() if level is not None)

    def function(self, name: str) -> FunctionDef | None:
        """The definition of a function, or None."""
        return next((each for each in self.functions if each.id == name), None)


def parse_family(data: bytes) -> Family:
    """Read a family document. Raises DocumentError with every fault and its place."""
    root = open_document(data, "family").root
    faults = FaultList()
    names = [each["id"] for each in root["inputs"]]
    inputs = build_inputs(root["inputs"], faults)
    outputs = [each["id"] for each in root["outputs"]]
    faults.unique(names, "inputs[{}].id", "name")
    faults.unique(outputs, "outputs[{}].id", "name")
    for index, name in enumerate(outputs):
        if name in inputs:
            faults.add(f"outputs[{index}].id", f'expected a name that no input has, found "{name}"')
    rest: dict[str, bool | Number] = {
        name: name == "power" if each is None else each.low for name, each in inputs.items()
    }
    rest["power"] = True
    for name, value in root.get("rest", {}).items():
        check_change(name, value, inputs, f"rest.{name}", faults)
        rest[name] = value
    flags = [name for name, each in inputs.items() if each is None]
    never = tuple(root.get("never_together", ()))
    for index, combination in enumerate(never):
        for name in combination:
            if name not in flags:
                faults.add(
                    f"never_together[{index}].{name}", f"expected an input that is true or false ({known(flags)})"
                )
        if all(rest.get(name) == value for name, value in combination.items()):
            faults.add(f"never_together[{index}]", "expected a combination that the inputs do not have at rest")
    functions = build_functions(root["functions"], faults)
    faults.unique([each["id"] for each in root.get("signals", ())], "signals[{}].id", "name")
    scenarios = tuple(
        build_scenario(each, inputs, f"scenarios[{i}].", faults) for i, each in enumerate(root.get("scenarios", ()))
    )
    _check_proving(
        root.get("proving", {}), names, [each["id"] for each in root["outputs"]], root.get("scenarios", []), faults
    )
    faults.done()
    titled = [*root["inputs"], *root["outputs"], *root["functions"], *root.get("signals", ())]
    return Family(
        id=root["id"],
        title=root.get("title", root["id"]),
        inputs=inputs,
        outputs=tuple(outputs),
        compared=frozenset(each["id"] for each in root["outputs"] if each.get("compare", True)),
        rest=rest,
        never_together=never,
        functions=functions,
        scenarios=scenarios,
        titles={each["id"]: each.get("title") or each["id"] for each in titled},
        document=cast("FamilyDocument", root),
    )


def _check_proving(
    node: dict[str, Any], inputs: list[str], outputs: list[str], scenarios: list[dict[str, Any]], faults: FaultList
) -> None:
    """Names in what the family says of proving must be its own, and a way that cannot be must say why."""
    for index, each in enumerate(node.get("inputs", ())):
        if each["input"] not in inputs:
            faults.add(f"proving.inputs[{index}].input", f"expected an input of this family ({known(inputs)})")
        if each["way"] == "cannot" and not each.get("why"):
            faults.add(f"proving.inputs[{index}].why", "expected why this input cannot be made to happen")
        if each.get("with", outputs[0]) not in outputs:
            faults.add(f"proving.inputs[{index}].with", f"expected an output of this family ({known(outputs)})")
    names = [each["id"] for each in scenarios]
    for index, each in enumerate(node.get("runs", ())):
        if each["scenario"] not in names:
            faults.add(f"proving.runs[{index}].scenario", f"expected a scenario of this family ({known(names)})")
    for key in ("inputs", "runs", "readings", "overrides"):
        named = [each["input" if key == "inputs" else "id"] for each in node.get(key, ())]
        faults.unique(named, f"proving.{key}[{{}}]", "name")
    for index, each in enumerate(node.get("readings", ())):
        low, high = each["band"].get("from"), each["band"].get("to")
        if low is not None and high is not None and low > high:
            faults.add(f"proving.readings[{index}].band", 'expected "from" not above "to"')
