"""Why an event came late, early, not at all or without being due: the suspects of the rule-out data, weighed by Bayes' rule."""

from collections.abc import Mapping
from dataclasses import dataclass

from twincore.rule_out import BOARD, Report, RuleOut, bayes, first_weights

MOST_REASONS = 4


@dataclass(frozen=True, slots=True)
class Reason:
    """One suspect with its share of the suspicion, after what was seen."""

    suspect: str
    title: str
    weight: float


def likely_reasons(data: RuleOut, output: str, what: str, cleared: Mapping[str, float] | None = None) -> list[Reason]:
    """The likeliest reasons for an event, the likeliest first; empty where the data say nothing of it.

    `cleared` are weights that the job's own tests have led to; without them the family's first weights count. The board
    itself is new: of the suspects it keeps half its weight, for being set or wired otherwise (an assumption).
    """
    sign = next((each for each in data.signs if each.output == output and what in each.what), None)
    if sign is None:
        return []
    weights = dict(cleared or first_weights(data, Report({})))
    weights[BOARD] = weights.get(BOARD, 0.0) / 2
    try:
        after = bayes(weights, sign.likelihoods)
    except ValueError:
        return []
    ranked = sorted(after.items(), key=lambda each: (-each[1], each[0]))
    return [Reason(name, data.suspect_title(name), weight) for name, weight in ranked[:MOST_REASONS] if weight > 0.02]
