"""The record, for the screen: what the board's profile asks for and what is still missing."""

from twincore.behaviour import TraceChecked, check_trace
from twincore.carry_over import record_of
from twincore.errors import TwinError
from twincore.job.case import Case, original_of, remembered
from twincore.job.shared.comparison import comparison_of
from twincore.job.shared.placing import socket_offered
from twincore.job.shared.traces import traces_of
from twincore.job.shared.wires import findings_of, wiring_of
from twincore.job.steps.record import differing, missing_of, moves_one_by_one, plugs_complete
from twincore.profile import Family, Trace
from twincore.settings import acting
from twincore.wiring import plugs_of
from twinshown.steps.record.schemas import (
    DifferingShown,
    MovingShown,
    PlugShown,
    RecordShown,
    SignalChoice,
    TraceEventShown,
    TraceShown,
)
from twinshown.words.findings import findings_shown
from twinshown.words.schemas import PinShown, RememberedShown


def record_shown(case: Case, port: bool) -> RecordShown:
    """Plugs with their wires, findings, what is remembered, what moves, and what is missing."""
    family, board = original_of(case)
    state = case.state
    wires = wiring_of(case).wires
    signals = family.document.get("signals", [])
    complete = plugs_complete(case)
    return RecordShown(
        port=port,
        remembered=[
            RememberedShown(
                id=each["id"], what=each["what"], unit=each.get("unit", ""), read=each.get("read", ""),
                enter=each.get("enter", ""), rows=each.get("rows", False), items=list(each.get("items", ())), value=state["kept"].get(each["id"]),
            )
            for each in remembered(board)
        ],
        plugs=[
            PlugShown(
                id=plug.id, style=plug.style, keyed=plug.keyed, way=state["plugs"].get(plug.id),
                complete=plug.id in complete, one_by_one=moves_one_by_one(case, plug),
                offered=socket_offered(case, plug.id),
                pins=[
                    PinShown(
                        pin=pin.pin, mark=pin.mark, title=pin.title, carries=pin.carries, volts_class=pin.volts_class,
                        contact=pin.contact,
                        wires=[w.id for w in wires if w.recorded and (w.connector, w.pin) == (plug.id, pin.pin)],
                    )
                    for pin in plug.pins.values()
                ],
            )
            for plug in plugs_of(board, family).values()
        ],
        signals=[SignalChoice(id=each["id"], title=each.get("title") or each["id"]) for each in signals],
        findings=findings_shown(case, findings_of(case), family),
        differing=[
            DifferingShown(element=name, first=first, second=second, by=state["blind"][name]["by"])
            for name, (first, second) in differing(case).items()
        ],
        moving=[
            MovingShown(
                id=each["id"], what=each["what"], caution=each.get("caution", ""), value=state["moving"].get(each["id"])
            )
            for each in board.document.get("moves", [])
        ],
        temporary=[SignalChoice(id=e["id"], title=e["what"]) for e in board.document.get("temporary", [])],
        acting=[
            f"{act.point}: {act.what}" + (f", ends {act.ends}" if act.ends else "")
            for act in acting(board, record_of(board, state["found"]))
        ],
        missing=missing_of(case),
        outputs=[SignalChoice(id=name, title=family.titles[name]) for name in family.outputs],
        inputs=[SignalChoice(id=name, title=family.titles[name]) for name in family.flags],
        behaviour_known=board.behaviour is not None,
        at_rest=[name for name, value in family.rest.items() if value is True],
        removed_left=sum(each["count"] for each in state["removed"].values() if not each["back"]),
    )  # fmt: skip


def traces_shown(case: Case) -> list[TraceShown]:
    """Each trace of the live original against the replacement as it is planned."""
    traces = traces_of(case)
    if not traces:
        return []
    comparison = comparison_of(case) if case.replacement and case.state["found"] else None
    record = comparison.plan_record() if comparison else None
    if comparison is None or record is None:
        fault = "Choose a replacement and read the settings first."
        return [_trace_shown(name, trace, None, fault) for name, trace in traces.items()]
    shown = []
    for name, trace in traces.items():
        try:
            checked = check_trace(comparison.replacement, record, comparison.family, trace, comparison.wanted())
        except TwinError as error:
            shown.append(_trace_shown(name, trace, None, f"Not proved: {error}"))
        else:
            shown.append(_trace_shown(name, trace, checked, "", comparison.family))
    return shown


def _trace_shown(
    name: str, trace: Trace, checked: TraceChecked | None, fault: str, family: Family | None = None
) -> TraceShown:
    titles = family.titles if family else {}
    return TraceShown(
        id=name,
        title=trace.scenario.title,
        agrees=checked.agrees if checked else None,
        fault=fault,
        events=[
            TraceEventShown(
                output=titles[e.output], on=e.on, verdict=e.verdict,
                seen_at=None if e.seen_at is None else float(e.seen_at), at=None if e.at is None else float(e.at),
            )
            for e in (checked.events if checked else ())
        ],
    )  # fmt: skip
