"""The pair that a job compares, as it stands."""

from twincore.carry_over import Comparison
from twincore.job.case import Case, new_board, original_of
from twincore.job.facts import fact_values


def comparison_of(case: Case) -> Comparison:
    """The job's pair, with what was found, decided and set by hand."""
    family, original = original_of(case)
    state = case.state
    return Comparison(
        family=family, original=original, replacement=new_board(case), found=state["found"], names=case.names, keep=case.keep,
        plan=state["overrides"], wishes=state["wishes"], facts=fact_values(case), school=state["school"],
        decisions=dict(state["decisions"]), angles=dict(state["angles"]),
    )  # fmt: skip
