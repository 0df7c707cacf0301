"""The job's boards side by side, as its pages show them."""

from twincore.job.case import Case
from twincore.job.shared.comparison import comparison_of
from twincore.job.shared.facts import codes_to_read, told_of_plate
from twincore.profile.record import UNREADABLE
from twinshown.comparison import view
from twinshown.comparison.schemas import CodeToRead, ComparisonShown
from twinshown.sheet.head import Rules


def comparison_shown(case: Case, rules: Rules) -> ComparisonShown:
    """Carry-over, copying and twin check, with the codes that are still to be read off the machine and what the depot proposes."""
    shown = view.compare(comparison_of(case))
    shown.codes_to_read = [
        CodeToRead(
            element=node["id"], title=node.get("title", node["id"]), fact=node["fact"], places=node["places"],
            plate=told_of_plate(case, node["fact"]),
        )
        for node in codes_to_read(case)
    ]  # fmt: skip
    if shown.plan is not None:
        shown.plan = {**shown.plan, **{each.element: UNREADABLE * each.places for each in shown.codes_to_read}}
    # what the depot proposes where functions would be followed; a school that says nothing here is not proposed
    policy = rules.school_when_not if shown.disagreements else rules.school_when_agreed
    if shown.proposed == "functions" and any(
        school.id == policy and school.positions is not None and school.counts for school in shown.schools
    ):
        shown.proposed = policy
    return shown
