"""Where the board is screwed on."""

from twincore.choose.criteria.base import Context, Criterion
from twincore.choose.judged import MINUTES, Judged, Question, Reason
from twincore.choose.mounting import best_mounting
from twincore.profile.values import is_number


class Mount(Criterion):
    """Holes that serve, holes to drill, and whether the outline or height fouls anything."""

    id = "mounting"
    same_again = True

    def judge(self, at: Context) -> Judged:
        """The best turn and shift."""
        original, candidate, facts = at.original, at.candidate, at.facts
        if original.plate is None or candidate.plate is None:
            unknown = original if original.plate is None else candidate
            return self.judged([Reason("outline unknown", "to check", {"board": unknown.part_number})])
        found = best_mounting(original.plate, candidate.plate)
        data = {
            "turn": found.turn,
            "serve": len(found.pairs),
            "new": len(found.new_holes),
            "over_mm": list(found.over_mm),
        }
        reasons, questions = [], []
        if found.new_holes:
            reasons.append(Reason("holes to drill", "with work", data))
        else:
            reasons.append(Reason("holes serve", "fits", data))
        for side, over in zip(("left", "bottom", "right", "top", "height"), found.over_mm, strict=True):
            if over is None or over <= 0:
                continue
            room = facts.get(f"room.{side}_mm")
            beyond = {"side": side, "over_mm": over}
            if not is_number(room):
                reasons.append(Reason("reaches beyond", "to check", beyond))
                questions.append(Question(f"room.{side}_mm", {"from": over}, "mm"))
            else:
                verdict = "fits" if room >= over else "no"
                reasons.append(Reason("room there" if verdict == "fits" else "no room", verdict, beyond))
        return self.judged(reasons, questions, MINUTES["hole"] * len(found.new_holes))
