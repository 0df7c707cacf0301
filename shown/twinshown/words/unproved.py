"""What no run can prove, in words."""

from collections.abc import Mapping

from twincore.job.shared.assuming import assumed_words
from twincore.job.steps.prove import Proving
from twincore.job.targets.record import AssumedKept
from twinshown.words.schemas import UnprovedShown

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
    if not found.timed:
        shown.append(
            UnprovedShown(what="That it works as before, to the second", why="nothing was timed on the machine")
        )
    return [*assumed_shown(found.assumed), *shown]


def assumed_shown(assumed: Mapping[str, AssumedKept]) -> list[UnprovedShown]:
    """What the whole comparison rests on that nobody could read."""
    return [
        UnprovedShown(what=f"{name} of the old board", why=assumed_words(name, each)) for name, each in assumed.items()
    ]
