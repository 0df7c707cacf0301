"""What to have at hand for the board that was chosen."""

from twincore.job.case import Case
from twincore.job.shared.taking import early_plan, to_take
from twinshown.refusals import Refused
from twinshown.steps.choose.schemas import AlternativeShown, TakeAlongShown, TakenShown
from twinshown.words.fit import FitWords

BASES = {
    "table": "by the leaflet’s row for this machine", "positions": "as the old one stands", "functions": "by its functions",
    "learning": "by learning",
}  # fmt: skip


def alternatives_shown(case: Case) -> list[AlternativeShown]:
    """The candidates as they stood when the choice was made."""
    choice = case.state["choice"]
    return [AlternativeShown.model_validate(each) for each in (choice["alternatives"] if choice else ())]


def take_along(case: Case) -> TakeAlongShown:
    """What to have at hand before the machine is opened, and how the board would be set."""
    early = early_plan(case)
    if case.family is None:
        raise Refused("Nobody has said yet which board comes out. Do that first, in Recognise.")
    words = FitWords(case.family, {})
    assumed = ", the old board at the positions its maker set" if early.assumed else ""
    return TakeAlongShown(
        lines=[
            TakenShown(
                what=each.line.item, count=each.line.count, why=each.why, needed=each.line.needed,
                unknown=[words.fact(name) for name in each.line.facts],
            )
            for each in to_take(case)
            if each.line.needed != "not needed"
        ],
        positions=early.positions,
        basis=BASES[early.school] + assumed,
    )  # fmt: skip
