"""How far a job must have come before something of it is shown."""

from twincore.job import State, cleared, done
from twinshown.refusals import Refused


def kind_known(state: State) -> None:
    """Refuse where it is not known which kind of machine it is."""
    if state["family"] is None:
        raise Refused("Say first which kind of machine it is.")


def original_known(state: State) -> None:
    """Refuse where the original is not known."""
    if state["original"] is None:
        raise Refused("Find out first which board is to be replaced.")


def both_known(state: State) -> None:
    """Refuse where the boards are not both chosen."""
    original_known(state)
    if state["replacement"] is None:
        raise Refused("Choose the replacement first.")


def both_chosen(state: State) -> None:
    """Refuse where there is nothing to compare."""
    if state["original"] is None or state["replacement"] is None:
        raise Refused("Choose the original and the replacement first.")


def planned(state: State) -> None:
    """Refuse where the plan is not confirmed: before that there is nothing to fit, to prove or to hand over."""
    if state["replacement"] is None or not done(state, "carry_over"):
        raise Refused("Confirm the plan of carrying over first.")


def ending(state: State) -> None:
    """Refuse where a job is not proved and handed over: its plan is not confirmed, nor was its board cleared."""
    if not cleared(state):
        planned(state)
