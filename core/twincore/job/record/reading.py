"""A stored state as this version reads it, whatever stands there: what has no shape is left out, and told."""

from typing import Any, cast

from pydantic import ValidationError

from twincore.errors import Fault
from twincore.job.rules.boards import BOARD_NAMES, fresh_board, own_part
from twincore.job.rules.state import NOTHING_YET, VERSION, State, empty_state
from twincore.job.target import FIRST, adapter_of
from twincore.job.values import faults_of


def current(stored: Any) -> State:
    """A stored state as this version reads it: one of an earlier version keeps nothing of what came later."""
    return _read(stored)[0]


def shape_faults(stored: Any) -> list[Fault]:
    """What stands in a stored state and is of no shape that this version knows, each with its place."""
    return _read(stored)[1]


def _read(stored: Any) -> tuple[State, list[Fault]]:
    if not isinstance(stored, dict):
        return empty_state(), [Fault("state", "expected an object")]
    state, faults = _sheet(stored, "state")
    boards: dict[str, dict[str, Any]] = {}
    board = state["board"] if state["board"] == FIRST or FIRST in state["boards"] else FIRST
    for name, part in state["boards"].items():
        if name not in BOARD_NAMES or name == board:
            faults.append(Fault(f"state.boards.{name}", "expected another board of the job"))
            continue
        sheet, wrong = _sheet({**fresh_board(), **part}, f"state.boards.{name}")
        boards[name] = own_part(sheet)
        faults += wrong
    return cast(State, {**state, "board": board, "boards": boards, "version": VERSION}), faults


def _sheet(stored: dict[str, Any], place: str) -> tuple[State, list[Fault]]:
    whole: dict[str, Any] = {**empty_state(), **stored}
    try:
        adapter_of(State).validate_python(whole)
    except ValidationError as error:
        for each in error.errors(include_url=False, include_input=False):
            _leave_out(whole, each["loc"])
        return cast(State, whole), faults_of(error, place)
    return cast(State, whole), []


def _leave_out(whole: dict[str, Any], at: tuple[int | str, ...]) -> None:
    """Leave out what a fault is in: what stands under one name, or the whole part."""
    key = str(at[0])
    if len(at) > 1 and isinstance(whole.get(key), dict) and isinstance(NOTHING_YET.get(key), dict):
        whole[key] = {name: value for name, value in whole[key].items() if name != at[1]}
    elif key in NOTHING_YET:
        whole[key] = cast(dict[str, Any], empty_state())[key]
    else:
        whole.pop(key, None)
