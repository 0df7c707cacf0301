"""A pin for every signal."""

from twincore.choose.criteria.base import Context, Criterion
from twincore.choose.judged import Judged, Question, Reason


class Signals(Criterion):
    """Whether everything that the machine uses exists on the candidate."""

    id = "signals"
    same_again = True

    def judge(self, at: Context) -> Judged:
        """Of the pins that the machine uses."""
        original, candidate, facts = at.original, at.candidate, at.facts
        if original.pins is None or candidate.pins is None:
            unknown = original if original.pins is None else candidate
            return self.judged([Reason("pins unknown", "to check", {"board": unknown.part_number})])
        reasons, questions = [], []
        used = dict.fromkeys([each.signal for each in original.used_pins(facts)])
        missing = [signal for signal in used if candidate.pin_of(signal) is None]
        listed = at.family.document.get("signals", ()) if missing else ()
        optional = {each["id"] for each in listed if each.get("optional")}
        for signal in missing:
            mine = original.pin_of(signal)
            if facts.get(f"uses.{signal}") is None and (signal in optional or (mine and mine.without_device)):
                reasons.append(Reason("signal perhaps used", "to check", {"signal": signal}))
                questions.append(Question(f"uses.{signal}", False))
            else:
                reasons.append(Reason("signal missing", "no", {"signal": signal}))
        return self.judged(reasons or [Reason("signals there", "fits", {"count": len(used)})], questions)
