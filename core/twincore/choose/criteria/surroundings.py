"""Heat, humidity and altitude."""

from twincore.choose.criteria.base import Context, Criterion
from twincore.choose.fitting import SURROUNDINGS
from twincore.choose.judged import Judged, Question, Reason
from twincore.profile.values import is_number

UNITS = {"temperature_c": "°C", "humidity_percent": "%", "altitude_m": "m"}


class Surroundings(Criterion):
    """Heat, humidity and altitude at the machine against what the candidate stands.

    What nobody measured is taken from what the original stood there; where that says nothing either, it is to be found out.
    What no maker says is not known, and no board fits by that.
    """

    id = "surroundings"

    def judge(self, at: Context) -> Judged:
        """Each by itself."""
        original, candidate, facts = at.original, at.candidate, at.facts
        reasons, questions = [], []
        for name, asked in SURROUNDINGS.items():
            band, mine = candidate.surroundings.get(name), original.surroundings.get(name)
            if band is None:
                if mine is not None:
                    reasons.append(Reason("surroundings unknown", "to check", {"what": name, "original": list(mine)}))
                continue
            data = {"what": name, "band": list(band)}
            unmeasured = [fact for fact in asked if not is_number(facts.get(fact))]
            for fact in asked:
                if fact not in unmeasured:
                    inside = band[0] <= facts[fact] <= band[1]
                    code = "surroundings measured" if inside else "surroundings refused"
                    more = {"fact": fact, "value": float(facts[fact])}
                    reasons.append(Reason(code, "fits" if inside else "no", data | more))
            if unmeasured and mine is not None and band[0] <= mine[0] and mine[1] <= band[1]:
                reasons.append(Reason("surroundings covered", "fits", data | {"original": list(mine)}))
                continue
            for fact in unmeasured:
                reasons.append(Reason("surroundings to measure", "to check", data | {"fact": fact}))
                questions.append(Question(fact, {"from": band[0], "to": band[1]}, UNITS[name]))
        return self.judged(reasons or [Reason("surroundings not said", "to check")], questions)
