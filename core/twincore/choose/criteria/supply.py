"""What feeds the board."""

from twincore.choose.criteria.base import Context, Criterion
from twincore.choose.judged import Facts, Judged, Question, Reason
from twincore.profile.values import is_number


class Supply(Criterion):
    """Volts, hertz and phases of the machine's supply against what the candidate takes."""

    id = "supply"

    def judge(self, at: Context) -> Judged:
        """Measured, else as the original took it."""
        original, candidate, facts = at.original, at.candidate, at.facts
        reasons, questions = [], []
        if candidate.volts is None:
            reasons.append(Reason("supply unknown", "to check"))
        else:
            low, high = candidate.volts
            wanted = {"from": low, "to": high}
            measured = facts.get("supply.volts")
            if is_number(measured):
                inside = low <= measured <= high
                reasons.append(
                    Reason(
                        "volts measured", "fits" if inside else "no", {"volts": float(measured), "band": [low, high]}
                    )
                )
            elif original.volts is None:
                reasons.append(Reason("volts to measure", "to check", {"band": [low, high]}))
                questions.append(Question("supply.volts", wanted, "V"))
            else:
                mine = original.volts
                data = {"band": [low, high], "original": list(mine)}
                if low <= mine[0] and mine[1] <= high:
                    reasons.append(Reason("volts covered", "fits", data))
                elif mine[1] < low or high < mine[0]:
                    reasons.append(Reason("volts apart", "no", data))
                else:
                    reasons.append(Reason("volts overlap", "to check", data))
                    questions.append(Question("supply.volts", wanted, "V"))
        reasons += _differing("hertz", original.hertz, candidate.hertz, facts)
        phases = [None if each.phases is None else (float(each.phases),) for each in (original, candidate)]
        reasons += _differing("phases", phases[0], phases[1], facts)
        return self.judged(reasons, questions)


def _differing(
    name: str, original: tuple[float, ...] | None, candidate: tuple[float, ...] | None, facts: Facts
) -> list[Reason]:
    """Whether what the machine has (a fact, else what the original took) is among what the candidate takes."""
    fact = facts.get(f"supply.{name}")
    needed = (float(fact),) if is_number(fact) else original
    if candidate is None or needed is None or set(needed) <= set(candidate):
        return []
    return [Reason(f"{name} differ", "no", {"needed": list(needed), "taken": list(candidate)})]
