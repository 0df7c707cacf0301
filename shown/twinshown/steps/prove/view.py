"""Prove on the machine, for the screen and for the job sheet."""

from datetime import datetime
from math import isinf
from typing import Any, cast

from twincore.behaviour.simulate import run_values
from twincore.errors import TwinError
from twincore.job.case import Case
from twincore.job.rules.order import cleared, still_forced
from twincore.job.shared.borrowing import borrowed, put_back
from twincore.job.shared.looking import board_in, check_list, judged_reading, line_words, wanted_readings
from twincore.job.steps.prove import (
    Proving,
    doubts,
    doubts_of_repair,
    due_in,
    judged_run,
    known_overrides,
    last_runs,
    proving_of,
    run_trace,
)
from twincore.job.targets.prove import ReadingKept, RunKept
from twincore.measure import reading_words
from twincore.profile import Board, Family, Scenario, Trace, Value
from twincore.prove import (
    OFF,
    Event,
    Expected,
    Override,
    PlannedRun,
    PlannedStep,
    ReadingWanted,
    likely_reasons,
)
from twincore.rule_out import RuleOut
from twincore.wiring import plugs_of
from twinshown.comparison.playing import track
from twinshown.comparison.schemas import ShownAt
from twinshown.comparison.wording import change_words
from twinshown.steps.prove.schemas import (
    CheckShown,
    DueShown,
    EventJudged,
    KeptShown,
    MadeShown,
    MeasuredShown,
    OverrideShown,
    PlannedShown,
    ProvingShown,
    ReadingTaken,
)
from twinshown.words.borrowed import does_shown
from twinshown.words.unproved import WHYS, unproved_shown


def _undo(override: Override, case: Case) -> str:
    """How an override ends, with what this board has to be put back."""
    if not override.does or case.family is None:
        return override.undo
    stands = case.state["left"] or {}
    return put_back(borrowed(override.does, board_in(case), case.family, stands), override.undo)


def proving_shown(case: Case, port: bool) -> ProvingShown:
    """The runs to make, what is read, what may be overridden, and what stays unproved; of a machine whose board was cleared
    only that it works.
    """
    overrides = [
        OverrideShown(
            id=o.id,
            what=o.what,
            how=o.how,
            time_out_s=o.time_out_s,
            undo=_undo(o, case),
            point=o.point,
            does=does_shown(o.does, case, board_in(case)),
        )
        for o in known_overrides(case)
    ]
    if cleared(case.state):
        return ProvingShown(
            checks=checks_shown(case), runs=[], unproved=[], readings=readings_shown(case), overrides=overrides,
            forced=still_forced(case.state), doubts=doubts_of_repair(case), port=False,
        )  # fmt: skip
    found = proving_of(case)
    lasts = last_runs(case)
    counts: dict[str, int] = {}
    for node in case.state["runs"].values():
        counts[node["plan"]] = counts.get(node["plan"], 0) + 1
    return ProvingShown(
        checks=checks_shown(case),
        runs=[_planned(run, found, lasts.get(run.id), counts.get(run.id, 0)) for run in found.plan.runs],
        unproved=unproved_shown(found),
        readings=readings_shown(case),
        overrides=overrides,
        forced=still_forced(case.state),
        doubts=doubts(case, found),
        port=port,
    )  # fmt: skip


def checks_shown(case: Case) -> list[CheckShown]:
    """The check list, line by line."""
    family, said = case.family, case.state["checks"]
    return [
        CheckShown(
            id=line.id, words=line_words(line, family), own=line.kind == "own", ok=None if told.get("absent") else told.get("ok"),
            absent=bool(told.get("absent")), note=told.get("note", ""), by=told.get("by", ""),
        )
        for line in check_list(case)
        for told in (cast(dict[str, Any], said.get(line.id, {})),)
    ]  # fmt: skip


def _planned(run: PlannedRun, found: Proving, last: RunKept | None, made: int) -> PlannedShown:
    titles = found.family.titles
    trace = Trace(found.replacement.part_number, run.scenario, (), "over the port")
    due, basis = due_in(found, trace, run.id)
    original, replacement = tracks(found, run.scenario)
    judged = judged_run(found, last)[0] if last else None
    return PlannedShown(
        id=run.id, title=run.title or WHYS[run.why], why=WHYS[run.why], kind=run.kind, until=float(run.scenario.until),
        steps=[_made(step, found.family) for step in run.steps],
        kept=[KeptShown(title=titles[each.input], how=each.how, undo=each.undo) for each in run.kept], watch=list(run.watch), hands_off=list(run.hands_off),
        cannot=[titles[each] for each in run.cannot], due=[_due(each, titles) for each in due], basis=basis,
        original=original, replacement=replacement,
        last=None if last is None else judged.verdict if judged else "kept", made=made,
    )  # fmt: skip


def _made(step: PlannedStep, family: Family) -> MadeShown:
    forcing, how = step.forcing, step.how
    if not how and step.way == "hand" and (not forcing.known or forcing.way == "follows"):
        how = "Nobody has written down how; find a way, and say how in the note"
    return MadeShown(
        at=step.at, input=step.input, title=family.titles[step.input], value=step.value, way=step.way,
        change=change_words(step.input, step.value, family),
        how=forcing.why if step.way == "cannot" else how, undo=step.undo,
        risk=forcing.risk if step.way == "hand" else "none",
    )  # fmt: skip


def _due(each: Expected, titles: dict[str, str]) -> DueShown:
    return DueShown(
        output=each.output, title=titles[each.output], on=each.on, at=_s(each.at), low=_s(each.low), high=_s(each.high)
    )


def _s(value: float) -> float:
    """To the millisecond: finer is nobody's measurement."""
    return round(value, 3)


def tracks(found: Proving, scenario: Scenario) -> tuple[list[ShownAt], list[ShownAt]]:
    """What original and replacement show over a scenario; empty where a behaviour is not known."""
    return (
        _track(found.original, found.wanted, found, scenario) if found.twin else [],
        _track(found.replacement, found.own, found, scenario),
    )


def _track(board: Board, values: dict[str, Value], found: Proving, scenario: Scenario) -> list[ShownAt]:
    if board.behaviour is None:
        return []
    try:
        shown = run_values(board, dict(values), found.family, scenario)
    except (TwinError, KeyError):
        return []
    return track(board, shown)


def readings_shown(case: Case) -> list[ReadingTaken]:
    """Readings with their bands, and what was read."""
    return [_reading(each, case.state["readings"].get(each.id)) for each in wanted_readings(case)]


def _reading(wanted: ReadingWanted, said: ReadingKept | None) -> ReadingTaken:
    judged = judged_reading(wanted, said) if said else None
    low, high = (None if isinf(end) else end for end in (wanted.band.low, wanted.band.high))
    return ReadingTaken(
        id=wanted.id, title=wanted.title, unit=wanted.unit, low=low, high=high, uncertainty=wanted.uncertainty,
        how=list(wanted.how), risk=wanted.risk, source=wanted.source, value=said.get("value") if said else None,
        beyond=said.get("beyond") if said else None,
        read=reading_words(said.get("value"), said.get("beyond"), wanted.unit) if said else "",
        verdict=judged.verdict if judged else None, margin=None if judged is None or judged.margin is None else _s(judged.margin),
    )  # fmt: skip


def measured_shown(case: Case, names: list[str]) -> list[MeasuredShown]:
    """Measured runs, judged event by event."""
    if not names:
        return []
    found = proving_of(case)
    data = case.shelf.rule_out
    return [_measured(name, case.state["runs"][name], found, data) for name in names]


def _measured(name: str, node: RunKept, found: Proving, data: RuleOut | None) -> MeasuredShown:
    judged, basis = judged_run(found, node)
    trace = run_trace(found, node)
    original, replacement = tracks(found, trace.scenario)
    if node["board"] != found.replacement.part_number:
        replacement = []
    return MeasuredShown(
        id=name, title=node["title"], plan=node["plan"], board=node["board"], by=node["by"], at=datetime.fromisoformat(node["at"]),
        timed=node.get("timed", "by hand"), note=node.get("note", ""), basis=basis,
        verdict=judged.verdict if judged else "kept", until=float(trace.scenario.until), steps=[dict(each) for each in node["steps"]],
        events=[_event(each, found, data) for each in (judged.events if judged else ())],
        original=original, replacement=replacement, measured=_seen(trace),
    )  # fmt: skip


def _seen(trace: Trace) -> list[ShownAt]:
    """What was measured as a track: what is on after each event."""
    on: list[str] = []
    shown = [ShownAt(at=0.0, on=[], states=[])]
    for seen in trace.seen:
        on = [*on, seen.output] if seen.on else [each for each in on if each != seen.output]
        shown.append(ShownAt(at=float(seen.at), on=on, states=[]))
    return shown


def _event(event: Event, found: Proving, data: RuleOut | None) -> EventJudged:
    due = event.due
    return EventJudged(
        output=event.output, title=found.family.titles[event.output], on=event.on, seen_at=event.seen_at,
        due_at=_s(due.at) if due else None, low=_s(due.low) if due else None, high=_s(due.high) if due else None,
        uncertainty=round(event.uncertainty_s, 2), verdict=event.verdict, margin=None if event.margin_s is None else _s(event.margin_s),
        reasons=_reasons(event, found, data) if event.verdict in OFF else [],
    )  # fmt: skip


def _reasons(event: Event, found: Proving, data: RuleOut | None) -> list[str]:
    """Where the output is wired on the new board, and whom the rule-out data suspect."""
    pins = [
        f"{pin.place} ({pin.title})"
        for plug in plugs_of(found.replacement, found.family).values()
        for pin in plug.pins.values()
        if pin.carries and (pin.carries == event.output or pin.carries.startswith(f"{event.output}."))
    ]
    words = [f"look at {', '.join(pins)}"] if pins else []
    for reason in likely_reasons(data, event.output, event.verdict) if data else []:
        words.append(f"{reason.title.lower()} ({reason.weight:.0%})")
    return words
