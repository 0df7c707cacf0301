"""The pair that a job compares, as it stands."""

from typing import Any

from twincore.carry_over import Comparison
from twincore.job.case import Case, new_board, original_of
from twincore.job.rules.state import State
from twincore.job.shared.facts import codes_told, fact_values
from twincore.job.shared.telling import learned_positions
from twincore.profile.record import UNREADABLE


def believed(state: State) -> dict[str, Any]:
    """How the original is taken to stand: as found, and where that could not be read as somebody assumed."""
    found = dict(state["found"])
    for name, each in state["assumed"].items():
        if name in found:
            found[name] = _completed(found[name], each["value"])
    return found


def _completed(read: Any, assumed: Any) -> Any:
    """What was read, its unreadable places as assumed."""
    if not isinstance(read, str) or UNREADABLE not in read:
        return read
    if isinstance(assumed, str) and len(assumed) == len(read):
        return "".join(guess if mark == UNREADABLE else mark for mark, guess in zip(read, assumed, strict=True))
    return assumed


def comparison_of(case: Case) -> Comparison:
    """The job's pair, with what was found, decided and set by hand, and what a learning run found."""
    family, original = original_of(case)
    state = case.state
    return Comparison(
        family=family, original=original, replacement=new_board(case), found=believed(state), names=case.names, keep=case.keep,
        plan={**state["overrides"], **learned_positions(case)}, wishes=state["wishes"], facts=fact_values(case), school=state["school"],
        decisions=dict(state["decisions"]), angles=dict(state["angles"]), told=codes_told(case), read=state["found"] if state["assumed"] else None,
    )  # fmt: skip
