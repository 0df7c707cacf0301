"""What carry-over and twin check say of a candidate."""

from twincore.choose.criteria.base import Context, Criterion
from twincore.choose.judged import MINUTES, Judged, Reason


class SettingsMet(Criterion):
    """Whether its positions can give the functions of the original, and what was wanted besides."""

    id = "settings"
    same_again = True
    of_the_twin = True

    def judge(self, at: Context) -> Judged:
        """By what carry-over found."""
        carried = at.carried
        if carried is None:
            return self.judged([Reason("settings unknown", "to check")])
        if carried.record is None:
            return self.judged([Reason("no position", "no", {"functions": list(carried.why)})])
        off = [each for each in carried.functions if each.missed]
        reasons = [
            Reason("function off", "no" if each.importance == "safety" else "to check",
                   {"function": each.id, "got": each.got, "importance": each.importance})
            for each in off
        ]  # fmt: skip
        open_ones = [each.id for each in carried.functions if each.verdict == "open"]
        if open_ones:
            reasons.append(Reason("functions open", "to check", {"functions": open_ones}))
        reasons = reasons or [Reason("functions met", "fits", {"moved": carried.moved})]
        return self.judged(reasons, [], MINUTES["position"] * carried.moved)


class BehavesAlike(Criterion):
    """What the twin check says; without one, that it was not run."""

    id = "behaviour"
    of_the_twin = True

    def judge(self, at: Context) -> Judged:
        """By the verdict."""
        proof, checked = at.proof, at.checked
        if proof is None:
            return self.judged([Reason("not proved" if checked else "not run", "to check")])
        verdict = {"identical": "fits", "within tolerance": "fits", "different": "no"}.get(proof.verdict, "to check")
        return self.judged([Reason(proof.verdict, verdict, {"offsets": len(proof.offsets)})])
