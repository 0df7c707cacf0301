"""Weigh the suspects by what was seen and tested (Bayes' rule), and find the test that tells most for its minutes."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass

from twincore.measure import Judgement, Side, judge, judge_beyond
from twincore.recognise.key import information_gain
from twincore.rule_out.data import BOARD, Evidence, RuleOut, Test

SCHOOLS = ("prove first", "trust the code", "how often it fails")
LEAST_BITS = 0.005
"""A test that tells less than this on average is not worth its minutes."""
UNKNOWN = ("cannot tell", "skipped", "cannot do", "not sure")

Weights = dict[str, float]


@dataclass(frozen=True, slots=True)
class Report:
    """What was said about the machine: symptoms (yes or no), what a shown code points to, how this board has fared.

    `board_failures` counts jobs on this kind of board: (board condemned, cleared).
    """

    symptoms: Mapping[str, bool]
    code_points_to: tuple[str, ...] = ()
    school: str = SCHOOLS[0]
    board_failures: tuple[int, int] = (0, 0)


@dataclass(frozen=True, slots=True)
class Done:
    """A test that was done: its result, or a reading to judge; `at_c` is the temperature at the sensor."""

    test: str
    result: str | None = None
    value: float | None = None
    uncertainty: float | None = None
    at_c: float | None = None
    beyond: Side | None = None
    """Where the meter says only that it is above or below `value`, or that it is more than it can read at all."""


@dataclass(frozen=True, slots=True)
class Step:
    """One link of the chain of reasoning: what was seen, what it told, and the weights after it."""

    kind: str
    id: str
    result: str
    judgement: Judgement | None
    counted: bool
    factors: Weights
    after: Weights


@dataclass(frozen=True, slots=True)
class Suggestion:
    """A test that could be next, with what it tells on average and for its minutes."""

    test: Test
    bits: float
    bits_per_minute: float


@dataclass(frozen=True, slots=True)
class Standing:
    """Where the suspicion stands: weights that add up to one, the chain that led there, and what it amounts to.

    `conclusion` is condemned, cleared or open; `contradictory` is true where the results cannot all be right.
    """

    before: Weights
    weights: Weights
    chain: tuple[Step, ...]
    conclusion: str
    contradictory: bool


def normalised(weights: Mapping[str, float]) -> Weights:
    """The same weights, adding up to one. Raises ValueError where all are 0."""
    total = sum(weights.values())
    if total <= 0:
        raise ValueError("expected at least one weight above 0")
    return {name: weight / total for name, weight in weights.items()}


def bayes(weights: Mapping[str, float], likelihoods: Mapping[str, float]) -> Weights:
    """Bayes' rule: the weights after something was seen that each suspect makes so likely."""
    return normalised({name: weight * likelihoods[name] for name, weight in weights.items()})


def first_weights(data: RuleOut, report: Report) -> Weights:
    """The weights before any test, by the depot's school."""
    weights = {each.id: each.weight for each in data.suspects}
    if report.school == "trust the code":
        weights = {n: w * (data.code_factor if n in report.code_points_to else 1) for n, w in weights.items()}
    if report.school == "how often it fails":
        condemned, cleared = report.board_failures
        share = weights[BOARD] / sum(weights.values())
        # the family's weight counts as ten jobs, so that few jobs move it little (a Beta prior of that size)
        share = (10 * share + condemned) / (10 + condemned + cleared)
        others = sum(weights.values()) - weights[BOARD]
        weights[BOARD] = others * share / (1 - share) if share < 1 else weights[BOARD]
    return normalised(weights)


def stand(data: RuleOut, report: Report, done: Sequence[Done]) -> Standing:
    """Weigh everything that was said and done, in its order.

    Raises ValueError for a test, symptom or result that the data does not have, or a reading without its temperature.
    """
    weights = before = first_weights(data, report)
    chain: list[Step] = []
    contradictory = False
    for symptom in data.symptoms:
        if symptom.id not in report.symptoms:
            continue
        there = report.symptoms[symptom.id]
        factors = {n: p if there else 1 - p for n, p in symptom.likelihoods.items()}
        weights, clash = _weighed(weights, factors)
        contradictory |= clash
        chain.append(Step("symptom", symptom.id, "yes" if there else "no", None, not clash, factors, weights))
    for each in done:
        test = data.test(each.test)
        if test is None:
            raise ValueError(f"expected a test of this family, found {each.test}")
        found, judgement = result_of(data, test, each)
        if found is None:
            chain.append(Step("test", test.id, each.result or "cannot tell", judgement, False, {}, weights))
            continue
        weights, clash = _weighed(weights, found.likelihoods)
        contradictory |= clash
        chain.append(Step("test", test.id, found.id, judgement, not clash, dict(found.likelihoods), weights))
    conclusion = "open"
    if done and not contradictory:
        if weights[BOARD] >= data.condemn_at:
            conclusion = "condemned"
        elif weights[BOARD] <= data.clear_at:
            conclusion = "cleared"
    return Standing(before, weights, tuple(chain), conclusion, contradictory)


def _weighed(weights: Weights, factors: Mapping[str, float]) -> tuple[Weights, bool]:
    """The weights after something was seen; unchanged where nothing known can explain it."""
    try:
        return bayes(weights, factors), False
    except ValueError:
        return weights, True


def result_of(data: RuleOut, test: Test, done: Done) -> tuple[Evidence | None, Judgement | None]:
    """Which result a test had; None where it tells nothing. A reading is judged with its uncertainty."""
    if done.result in UNKNOWN:
        return None, None
    if test.reading is not None and (done.value is not None or done.beyond is not None):
        band = test.reading.band_at(data.curves, done.at_c)
        uncertainty = test.reading.uncertainty if done.uncertainty is None else done.uncertainty
        if done.beyond is not None:
            judgement = judge_beyond(done.beyond, done.value, band)
        else:
            assert done.value is not None  # one of the two was given
            judgement = judge(done.value, band, uncertainty)
        names = [judgement.verdict, judgement.side]
        return next((each for each in test.results if each.id in names), None), judgement
    found = next((each for each in test.results if each.id == done.result), None)
    if found is None:
        wanted = "a reading" if test.reading else f"one of {', '.join(each.id for each in test.results)}"
        raise ValueError(f"expected {wanted} for {test.title}")
    return found, None


def expected_bits(weights: Weights, test: Test) -> float:
    """What a test tells on average about the suspects, in bits (mutual information)."""
    parts = [[weights[n] * each.likelihoods[n] for n in weights] for each in test.results]
    return max(0.0, information_gain(list(weights.values()), parts))


def next_tests(data: RuleOut, standing: Standing, done: Sequence[str]) -> list[Suggestion]:
    """The tests not done yet, the best next one first.

    Most bits for its minutes; live tests stand after all others, so that they come only where nothing else tells.
    """
    found = []
    for test in data.tests:
        if test.id not in done and (bits := expected_bits(standing.weights, test)) >= LEAST_BITS:
            found.append(Suggestion(test, bits, bits / test.minutes))
    return sorted(found, key=lambda each: (each.test.risk == "live", -each.bits_per_minute, each.test.id))
