"""Prove on the machine: the plan, what each measured run says, readings, and overrides that must be off in the end."""

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Any

from twincore.behaviour import Proof, Twin
from twincore.behaviour.functions import function_values
from twincore.carry_over import record_of
from twincore.errors import Refusal, TwinError, WrongValue
from twincore.job.case import Case, position
from twincore.job.given import Check, Given, said
from twincore.job.rules.order import cleared, still_forced
from twincore.job.shared.comparison import comparison_of
from twincore.job.shared.facts import fact_values
from twincore.job.shared.left import left_record
from twincore.job.shared.looking import board_in, check_list, looked_at, not_so, nothing_seen, outside, wanted_readings
from twincore.job.shared.traces import TRACE_KEYS, check_length, read_trace, traces_of
from twincore.job.targets.prove import CheckSaid, ForcedSaid, ReadingSaid, RunKept, RunSaid
from twincore.job.targets.record import AssumedKept
from twincore.profile import Board, Family, Trace, Value
from twincore.profile.times import time_words
from twincore.prove import (
    OFF,
    OWN,
    Expected,
    JudgedRun,
    Override,
    ProvingPlan,
    compare_events,
    due_from_trace,
    expected_events,
    overrides_of,
    own_switches,
    plan_proving,
)
from twincore.settings import acts_of

IN_REGISTER = ("identical", "within tolerance")
BASES = ("original", "observed", "replacement", "nothing")
"""What a run is held against: the original's behaviour, what it was seen to do, the new board's own profile, or nothing."""


@dataclass(frozen=True, slots=True)
class Proving:
    """The plan of a job with what its runs are held against."""

    family: Family
    original: Board
    replacement: Board
    proof: Proof
    plan: ProvingPlan
    twin: Twin | None
    wanted: dict[str, Value]
    """The functions that the machine should have: the original's, with what the owner wished otherwise."""
    own: dict[str, Value]
    """The functions of the new board as it was left."""
    traces: dict[str, Trace]
    assumed: dict[str, AssumedKept]
    """What of the original could not be read and is taken to stand as somebody said."""
    timed: bool
    """Whether anything was timed on the machine with the board that is in now."""


def proving_of(case: Case) -> Proving:
    """The proving plan of a job whose new board is fitted."""
    comparison = comparison_of(case)
    record = left_record(case)
    family, replacement = comparison.family, comparison.replacement
    proof = comparison.proof(record)
    twin = comparison.twin(record)
    known = None if twin.missing or twin.undecided else twin
    own = {name: d.values[0] for name, d in function_values(replacement, record, family).items() if d.decided}
    wanted = dict(known.values[0]) if known else {}
    wanted |= {name: d.values[0] for name, d in comparison.wanted().items() if name in comparison.wishes and d.decided}
    traces = traces_of(case)
    plan = plan_proving(family, known, proof.counter_case, traces, replacement, own, fact_values(case))
    return Proving(
        family,
        comparison.original,
        replacement,
        proof,
        plan,
        known,
        wanted,
        own,
        traces,
        case.state["assumed"],
        bool(last_runs(case)),
    )


def due_in(proving: Proving, trace: Trace, plan_run: str = "") -> tuple[list[Expected], str]:
    """What is due in a run with these input changes, and what that rests on."""
    if proving.twin is not None:
        return expected_events(proving.original, proving.wanted, proving.family, trace.scenario), "original"
    observed = proving.traces.get(plan_run.removeprefix("trace-"))
    if observed is not None:
        return due_from_trace(observed, trace), "observed"
    if proving.replacement.behaviour is not None:
        try:
            return expected_events(proving.replacement, proving.own, proving.family, trace.scenario), "replacement"
        except (TwinError, KeyError):
            return [], "nothing"
    return [], "nothing"


def judged_run(proving: Proving, node: Mapping[str, Any]) -> tuple[JudgedRun | None, str]:
    """What a measured run says; None where there is nothing to hold it against."""
    trace = run_trace(proving, node)
    due, basis = due_in(proving, trace, node["plan"])
    return (None if basis == "nothing" else compare_events(due, trace, proving.family)), basis


def run_trace(proving: Proving, node: Mapping[str, Any]) -> Trace:
    """A run of a job as a trace of the board that it was made with."""
    return read_trace(proving.family, node["board"], {key: node[key] for key in TRACE_KEYS if key in node})


def run_value(case: Case, name: str, after: RunSaid, given: Given) -> dict[str, Any]:
    """A run that was measured on the machine."""
    check_length(after)
    comparison = comparison_of(case)
    node = {key: value for key, value in after.items() if key in TRACE_KEYS}
    read_trace(comparison.family, comparison.replacement.part_number, node)
    return {**node, "plan": after.get("plan", ""), "note": after.get("note", "")}


def check_value(case: Case, name: str, after: CheckSaid, given: Given) -> CheckSaid:
    """Whether a thing on the check list is as it should be."""
    if after.get("absent") and not after["ok"]:
        raise WrongValue("Say one of the two: it is not on this machine, or it is not as it should be.")
    if name.startswith(OWN):
        if not after.get("what"):
            raise WrongValue("Say what was looked at.")
    elif all(each.id != name for each in check_list(case)):
        raise WrongValue(f"There is no line {name} on the check list of this machine.")
    return after


def reading_value(case: Case, name: str, after: ReadingSaid, given: Given) -> ReadingSaid:
    """A reading on the running machine."""
    if all(each.id != name for each in wanted_readings(case)):
        raise WrongValue(f"There is no reading {name} for this machine.")
    if "value" not in after and "beyond" not in after:
        raise WrongValue("Give the reading: a number, or that it is beyond what the meter reads.")
    return after


def known_overrides(case: Case) -> list[Override]:
    """What may be overridden for a test on this kind of machine."""
    board = board_in(case)
    return [*(overrides_of(case.family) if case.family else ()), *(own_switches(board) if board else ())]


def forced_value(case: Case, name: str, after: ForcedSaid, given: Given) -> dict[str, Any]:
    """An override switched on for a test, or off again; what it is, how long it lasts by itself."""
    known = next((each for each in known_overrides(case) if each.id == after.get("of")), None)
    if not after["what"]:
        raise WrongValue("Say what is overridden.")
    limit = after.get("time_out_s", known.time_out_s if known else None)
    read = {"read": _read_off(case, known.point, after.get("read"))} if known and known.point and after["off"] else {}
    return {
        "what": after["what"], "off": after["off"], **({} if limit is None else {"time_out_s": limit}),
        **({"of": after.get("of")} if known else {}), **read,
    }  # fmt: skip


def _read_off(case: Case, point: str, read: Any) -> Any:
    """How the element of a test switch reads once it is off. Raises WrongValue where it still acts, or nobody read it."""
    board = board_in(case)
    assert board is not None  # its switches are known
    element = next(each.id for each in board.elements if any(one.id == point for one in each.points))
    if read is None:
        raise WrongValue(f"Read {element} back: the switch is on the board itself, and stays as it is left.")
    written = position(board, element, read)
    stands = record_of(board, {element: written}).points[point]
    act = next(each for each in acts_of(board) if each.point == point)
    if stands is None or stands == act.when:
        raise WrongValue(f"{element} reads {written}: {point} is not off.")
    return written


def runs_in_order(case: Case) -> list[str]:
    """The names of every run, in the order in which they were kept."""
    return sorted(case.state["runs"], key=lambda name: case.state["runs"][name]["n"])


def last_runs(case: Case) -> dict[str, RunKept]:
    """The last run of each planned one that was made with the board that is in now; a run without a plan stands alone."""
    found: dict[str, RunKept] = {}
    for name in runs_in_order(case):
        node = case.state["runs"][name]
        if node["board"] == case.state["replacement"]:
            found[node["plan"] or name] = node
    return found


def doubts(case: Case, proving: Proving) -> list[str]:
    """What speaks against the proof, or is missing from it: each needs a word before the job goes on."""
    found = []
    runs = last_runs(case)
    for node in runs.values():
        judged, _ = judged_run(proving, node)
        if judged is not None and judged.verdict == "off":
            wrong = [event for event in judged.events if event.verdict in OFF]
            told = f"{proving.family.titles[wrong[0].output]} {'on' if wrong[0].on else 'off'} {wrong[0].verdict}"
            found.append(f"{node['title'] or 'a run'}: {told}")
    found += not_so(case)
    planned = {run.id: run for run in proving.plan.runs if not run.cannot}
    timed = [node for node in runs.values() if node["plan"] in planned or not planned]
    if runs and not timed:
        found.append(
            "only runs of one's own were made, and none of those that are planned to tell the two boards apart"
        )
    for node in timed:
        whole = planned[node["plan"]].scenario.until if node["plan"] in planned else node["until"]
        if node["until"] < whole:
            told = f"stopped after {time_words(round(node['until']))} of {time_words(round(whole))}"
            found.append(f"{node['title'] or 'a run'}: {told}")
    if not runs:
        if not looked_at(case):
            found.append("nothing was run on the machine")
        elif not comparison_of(case).same_board:
            # the same number again, set as the old one stood, is looked at, and timed where there is time
            found.append("nothing was timed on the machine: that it works does not show that it works as before")
    return found + outside(case)


def doubts_of_repair(case: Case) -> list[str]:
    """What speaks against it that a machine works again whose board was cleared, or is missing."""
    return nothing_seen(case) + not_so(case) + outside(case)


def check_confirmed(case: Case, note: str) -> None:
    """Refuse to call a job proved where something speaks against it and nobody says why it goes on."""
    if on := still_forced(case.state):
        raise Refusal(f"Still overridden: {', '.join(on)}. Switch it off, and say so.", forced=on)
    if cleared(case.state):
        if (against := doubts_of_repair(case)) and not said(note):
            raise Refusal(
                f"This speaks against it: {'; '.join(against)}. Look again, or say why it is enough.", doubts=against
            )
        return
    verdict = comparison_of(case).proof(left_record(case)).verdict
    if verdict not in IN_REGISTER and not said(note):
        raise Refusal(f"The twin check says: {verdict}. Give a reason for going on, or choose another replacement.")
    if (against := doubts(case, proving_of(case))) and not said(note):
        raise Refusal(
            f"This speaks against it: {'; '.join(against)}. Run it again, choose another replacement, or say why you go on.",
            doubts=against,
        )


CHECKS: dict[str, Check] = {"run": run_value, "check": check_value, "reading": reading_value, "forced": forced_value}
