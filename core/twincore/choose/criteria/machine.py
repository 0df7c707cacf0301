"""What a maker says that a board is for."""

from twincore.choose.criteria.base import Context, Criterion
from twincore.choose.judged import Judged, Question, Reason
from twincore.profile.facts import fact_agrees


class AcceptedMachine(Criterion):
    """What the candidate's maker says it accepts, against the facts of the machine: stages, motor, sensors, options."""

    id = "machine"

    def judge(self, at: Context) -> Judged:
        """Fact by fact."""
        candidate, facts = at.candidate, at.facts
        reasons, questions = [], []
        for each in candidate.accepts:
            name = each["fact"]
            condition = each.get("one_of") or {"from": each["between"][0], "to": each["between"][1]}
            if name not in facts:
                reasons.append(Reason("fact unknown", "to check", {"fact": name, "wanted": condition}))
                questions.append(Question(name, condition, each.get("unit", "")))
            elif fact_agrees(facts[name], condition):
                reasons.append(Reason("fact accepted", "fits", {"fact": name, "value": facts[name]}))
            else:
                reasons.append(Reason("fact refused", "no", {"fact": name, "value": facts[name], "wanted": condition}))
        return self.judged(reasons or [Reason("nothing asked", "fits")], questions)
