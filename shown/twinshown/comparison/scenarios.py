"""A scenario that somebody keyed in, checked by the same rules as one from a file."""

from typing import Any

from twincore.profile import Family, Scenario
from twincore.profile.faults import FaultList
from twincore.profile.scenario import build_scenario
from twincore.profile.values import exact
from twinshown.comparison.schemas import ScenarioGiven
from twinshown.refusals import Faulty


def checked_scenario(given: ScenarioGiven, family: Family) -> Scenario:
    """The scenario in exact numbers. Raises Faulty with the places of what is wrong."""
    faults = FaultList()
    try:
        node: dict[str, Any] = {
            "title": "",
            "steps": [
                {
                    "at": exact(repr(step.at)),
                    "set": {n: v if isinstance(v, bool) else exact(repr(v)) for n, v in step.set.items()},
                }
                for step in given.steps
            ],
            "until": exact(repr(given.until)),
        }
    except ValueError as error:
        raise Faulty(f"A time is not usable: expected {error}.") from error
    scenario = build_scenario(node, family.inputs, "", faults)
    if faults.faults:
        raise Faulty("The scenario breaks a rule.", faults.faults)
    return scenario
