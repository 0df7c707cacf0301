"""What goes in or moves across besides the board."""

from twincore.choose.criteria.base import Context, Criterion
from twincore.choose.judged import MINUTES, Judged, Reason
from twincore.choose.kit import kit_lines


class Parts(Criterion):
    """Parts that move across, kit parts that this machine needs, companions to change along with the board or to leave."""

    id = "parts"

    def judge(self, at: Context) -> Judged:
        """Part by part."""
        original, candidate, facts, way = at.original, at.candidate, at.facts, at.way
        reasons: list[Reason] = []
        for each in original.moves:
            reasons.append(
                Reason("part moves", "with work", {"what": each["what"], "caution": each.get("caution", "")})
            )
        for line in kit_lines(candidate.kit, facts):
            # whether it is needed or not, it is in the kit
            told = {
                "not needed": Reason("kit part not needed", "fits", {"item": line.item}),
                "perhaps": Reason("kit part perhaps", "fits", {"item": line.item, "facts": list(line.facts)}),
            }
            reasons.append(told.get(line.needed, Reason("kit part", "fits", {"item": line.item, "count": line.count})))
        names = [each["item"] for each in candidate.companions] + [
            c for s in (way.statements if way else ()) for c in s.companions
        ]
        for name in dict.fromkeys(names):
            if at.change_companions:
                reasons.append(Reason("companion changes", "with work", {"item": name}))
            else:
                reasons.append(Reason("companion stays", "fits", {"item": name}))
        minutes = MINUTES["part"] * sum(each.verdict == "with work" for each in reasons)
        return self.judged(reasons or [Reason("nothing moves", "fits")], [], minutes)
