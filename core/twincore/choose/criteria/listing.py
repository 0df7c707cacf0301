"""Who says that a board may take the original's place."""

from dataclasses import dataclass
from typing import Any

from twincore.choose.criteria.base import Context, Criterion
from twincore.choose.judged import MINUTES, Facts, Judged, Question, Reason
from twincore.choose.statements import Statement
from twincore.profile.facts import fact_agrees, missing_facts


class Listing(Criterion):
    """Who says that this board may stand in for the original; what is listed as not exchangeable beats everything.

    `elsewhere` are statements that list it for other machines: a condition of theirs fails here.
    """

    id = "listing"
    same_again = True

    def judge(self, at: Context) -> Judged:
        """What is listed for this machine."""
        way, facts, elsewhere = at.way, at.facts, at.elsewhere
        if way is None:
            told = [
                Reason("listed elsewhere", "to check", {"statement": s.id, "failed": _failed(s, facts)})
                for s in elsewhere
            ]
            return self.judged(told or [Reason("not listed", "to check")])
        if way.forbidden is not None:
            return self.judged([Reason("not exchangeable", "no", {"statement": way.forbidden.id})])
        reasons, questions = [], []
        if way.perhaps_forbidden is not None:
            missing = missing_facts(way.perhaps_forbidden.conditions, facts) or ()
            reasons.append(
                Reason(
                    "not exchangeable if", "to check", {"statement": way.perhaps_forbidden.id, "facts": list(missing)}
                )
            )
        listed = {"relation": way.relation, "links": len(way.links), "statements": [each.id for each in way.statements]}
        if way.missing:
            reasons.append(Reason("listed if", "to check", {**listed, "facts": list(way.missing)}))
            conditions = {name: c for each in way.statements for name, c in each.conditions.items()}
            questions += [Question(name, conditions[name]) for name in way.missing]
        else:
            reasons.append(Reason("listed", "fits", listed))
        for other in dict.fromkeys(o for link in way.links for o in link.statement.originals if o != link.origin):
            there = facts.get(f"attached.{other}")
            verdict = "to check" if there is None else "with work" if there else "no"
            reasons.append(Reason("takes another's place as well", verdict, {"other": other}))
            if there is None:
                questions.append(Question(f"attached.{other}", True))
        if any(not each.source for each in way.statements):
            reasons.append(Reason("no source", "fits", {}))
        reasons += [Reason("needs", "with work", {"what": need}) for need in way.needs]
        return self.judged(reasons, questions, MINUTES["need"] * len(way.needs))


@dataclass(frozen=True, slots=True)
class Listed:
    """What is listed of a board as one that may stand in: the relation of the last link (empty where it is listed for other
    machines only), the sources, and the conditions, each with the fact that it asks for.
    """

    relation: str
    sources: tuple[str, ...]
    conditions: tuple[tuple[str, Any], ...]


def listed_as(at: Context) -> Listed | None:
    """How a board is listed for this machine, or for others; None where it is not listed at all."""
    told = at.way.statements if at.way else tuple(at.elsewhere)
    if not told:
        return None
    return Listed(
        at.way.relation if at.way else "",
        tuple(dict.fromkeys(each.source or each.id for each in told)),
        tuple(condition for each in told for condition in each.conditions.items()),
    )


def _failed(statement: Statement, facts: Facts) -> list[dict[str, Any]]:
    """The conditions of a statement that do not hold here, with what this machine has."""
    return [
        {"fact": name, "wanted": condition, "value": facts[name]}
        for name, condition in statement.conditions.items()
        if name in facts and not fact_agrees(facts[name], condition)
    ]
