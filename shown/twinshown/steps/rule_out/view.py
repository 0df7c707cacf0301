"""Rule out, for the screen and the printed chain."""

from collections.abc import Mapping
from math import isinf
from typing import Any

from twincore.job.case import Case
from twincore.job.shared.holds import is_dead
from twincore.job.steps.rule_out import as_found_of, not_restored, shown_code, standing_of, undo_of
from twincore.measure import reading_words
from twincore.rule_out import Expected, RuleOut, Step, Test, next_tests
from twinshown.steps.rule_out.schemas import (
    BorrowedShown,
    CauseShown,
    CodeShown,
    CurvePoint,
    EventShown,
    LinkShown,
    ReadingWanted,
    ResultShown,
    RuleOutShown,
    SuspectShown,
    SymptomShown,
    TestShown,
)
from twinshown.words.borrowed import does_shown

CURVE_POINTS = 41


CURVE_C = (-30.0, 120.0)


WORDS = ((0.9, "almost certainly"), (0.6, "likely"), (0.3, "perhaps"), (0.1, "hardly"), (0.0, "almost certainly not"))


def even(number: float) -> float:
    """A number to nine digits: what is worked out by exponentials and logarithms differs in its last ones from one machine's
    library to another's, and nobody reads them.
    """
    return float(f"{number:.9g}")


def rule_out_shown(case: Case) -> RuleOutShown | None:
    """Where the suspicion stands; None where the family has no rule-out data."""
    data = case.shelf.rule_out
    if data is None:
        return None
    standing = standing_of(case, data)
    suggestions = next_tests(data, standing, list(case.state.get("tests", {})))
    bits = {each.test.id: each.bits for each in suggestions}
    code = shown_code(case)
    suspects = [
        SuspectShown(
            id=each.id,
            title=each.title,
            before=even(standing.before[each.id]),
            weight=even(standing.weights[each.id]),
            words=next(words for limit, words in WORDS if standing.weights[each.id] >= limit),
            source=each.source,
        )
        for each in data.suspects
    ]
    return RuleOutShown(
        family=data.family,
        school=case.school,
        symptoms=[SymptomShown(id=each.id, title=each.title) for each in data.symptoms],
        code=CodeShown(**{name: code.get(name, "") for name in ("shown", "meaning", "look_at", "clears")})
        if code
        else None,
        suspects=sorted(suspects, key=lambda each: -each.weight),
        chain=[_link(step, data, case) for step in standing.chain],
        tests=[_test(each, data, bits.get(each.id, 0.0), case) for each in data.tests],
        next=[each.test.id for each in suggestions],
        dead=is_dead(case),
        conclusion=standing.conclusion,
        contradictory=standing.contradictory,
        causes=[
            CauseShown(id=each.id, title=each.title, blocks_power=each.blocks_power, clear=each.clear)
            for each in data.causes
        ],
        to_restore=[
            BorrowedShown(id=each.id, title=each.title, undo=undo_of(case, each)) for each in not_restored(case, data)
        ],
    )


def _test(test: Test, data: RuleOut, bits: float, case: Case) -> TestShown:
    return TestShown(
        id=test.id, title=test.title, minutes=test.minutes, risk=test.risk, how=list(test.how), expected=test.expected,
        undo=undo_of(case, test), as_found=as_found_of(case, test), does=does_shown(test.does, case, case.original),
        reading=_reading(test.reading, data) if test.reading else None,
        results=[ResultShown(id=each.id, title=each.title) for each in test.results],
        events=[
            EventShown(at_s=float(e["at_s"]), what=e["what"], within_s=float(e.get("within_s", 0))) for e in test.events
        ],
        bits=even(bits), source=test.source,
    )  # fmt: skip


def _reading(expected: Expected, data: RuleOut) -> ReadingWanted:
    points: list[CurvePoint] = []
    if expected.curve is not None:
        curve = data.curves[expected.curve]
        low, high = max(CURVE_C[0], curve.lowest_c), min(CURVE_C[1], curve.highest_c)
        for index in range(CURVE_POINTS):
            at = low + (high - low) * index / (CURVE_POINTS - 1)
            band = expected.band_at(data.curves, at)
            points.append(
                CurvePoint(at_c=at, value=even(curve.resistance_ohm(at)), low=even(band.low), high=even(band.high))
            )
    band_ = expected.band
    return ReadingWanted(
        quantity=expected.quantity,
        unit=expected.unit,
        uncertainty=expected.uncertainty,
        low=_end(band_.low) if band_ else None,
        high=_end(band_.high) if band_ else None,
        curve=data.curve_titles[expected.curve] if expected.curve else None,
        points=points,
    )


def _end(value: float) -> float | None:
    """An end of a band; open ends are none."""
    return None if isinf(value) else even(value)


def _link(step: Step, data: RuleOut, case: Case) -> LinkShown:
    leading = max(step.after, key=lambda name: step.after[name])
    test = data.test(step.id) if step.kind == "test" else None
    judged = step.judgement
    result = step.result
    if test is not None:
        result = next((each.title for each in test.results if each.id == step.result), step.result)
    unit = test.reading.unit if test and test.reading else ""
    given: Mapping[str, Any] = case.state["tests"].get(step.id, {}) if test else {}
    return LinkShown(
        kind=step.kind,
        id=step.id,
        title=test.title if test else next((each.title for each in data.symptoms if each.id == step.id), step.id),
        result=result,
        counted=step.counted,
        words=_link_words(step, data),
        verdict=judged.verdict if judged else None,
        side=judged.side if judged else "",
        margin=even(judged.margin) if judged and judged.margin is not None else None,
        read=reading_words(given.get("value"), given.get("beyond"), unit) if judged else "",
        value=judged.value if judged and not given.get("beyond") else None,
        low=_end(judged.band.low) if judged else None,
        high=_end(judged.band.high) if judged else None,
        at_c=given.get("at_c"),
        unit=unit,
        leading=data.suspect_title(leading),
        weight=even(step.after[leading]),
    )


def _link_words(step: Step, data: RuleOut) -> str:
    """What a link did to the suspicion: whom it speaks against most, and for whom least."""
    if not step.counted:
        return "counts for nothing" if step.factors == {} else "cannot be explained by any suspect; it was left out"
    most = max(step.factors.values())
    against = [data.suspect_title(name) for name, factor in step.factors.items() if factor >= most * 0.8]
    least = [data.suspect_title(name) for name, factor in step.factors.items() if factor <= most * 0.2]
    told = f"fits best: {_some(against)}" if len(against) < len(step.factors) else "fits every suspect alike"
    return f"{told}; makes unlikely: {_some(least)}" if least else told


def _some(names: list[str]) -> str:
    shown = ", ".join(names[:3])
    return f"{shown} and {len(names) - 3} more" if len(names) > 3 else shown
