"""What no run can prove, in words."""

from jobs.shown.schemas import UnprovedShown
from twincore.job.steps.prove import (
    Proving,
)

WHYS = {
    "counter-case": "The counter-case", "another way": "The counter-case, another way",
    "observed": "As the original was timed", "checkout": "Checkout",
}  # fmt: skip
"""Why a run stands in a proving plan."""


def unproved_shown(found: Proving) -> list[UnprovedShown]:
    """What no run on this machine shows, in words."""
    titles, behaviour = found.family.titles, found.replacement.behaviour
    shown = [
        UnprovedShown(
            what=run.title or WHYS[run.why], why=f"cannot be made here: {', '.join(titles[e] for e in run.cannot)}"
        )
        for run in found.plan.runs
        if run.cannot
    ]
    shown += [
        UnprovedShown(what=titles[name], why="no run makes it happen") for name in found.plan.unmade if name != "power"
    ]
    machines = {machine.id: machine for machine in behaviour.machines} if behaviour else {}
    states = [machines[machine].states[state].title for machine, state in found.plan.unreached]
    if states:
        shown.append(UnprovedShown(what=", ".join(states[:8]), why="states that no run goes through"))
    return shown
