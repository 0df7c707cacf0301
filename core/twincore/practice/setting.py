"""Set a board: its positions, and what the machine then does. Nothing says what is wrong but the machine."""

from collections.abc import Mapping
from dataclasses import dataclass, replace
from typing import Any

from twincore.behaviour import simulate
from twincore.errors import EndlessLoopError, UndecidedError
from twincore.practice.outcome import Outcome, Row
from twincore.practice.runs import proof_of
from twincore.practice.task import Run, Task
from twincore.profile import Record, factory_record, written_positions
from twincore.profile.faults import FaultList
from twincore.profile.record import build_record
from twincore.settings import judge, wanted_functions


@dataclass(frozen=True, slots=True)
class Setting:
    """How the replacement was set, and the runs that were looked at."""

    positions: Mapping[str, Any]
    ran: tuple[str, ...] = ()


def begin(task: Task) -> Setting:
    """The new board as it leaves the maker."""
    board = task.boards.replacement
    return Setting(written_positions(board, factory_record(board).points))


def act(task: Task, state: Setting, action: Mapping[str, Any]) -> Setting:
    """Set positions, or run the machine. Raises ValueError for what is neither, or is no position of this board."""
    match action["do"]:
        case "set":
            positions = {**state.positions, **action["positions"]}
            record_of(task, positions)
            return replace(state, positions=positions)
        case "run":
            if action["run"] not in {each.id for each in task.runs}:
                raise ValueError(f'expected a run of this task, found "{action["run"]}"')
            return replace(state, ran=(*state.ran, action["run"]))
    raise ValueError(f'expected "set", "run" or "done", found "{action["do"]}"')


def shown(task: Task, state: Setting) -> dict[str, Any]:
    """The boards as they stand, what is wanted where that is told, and what the machine did in its last run."""
    boards = task.boards
    found: dict[str, Any] = {
        "positions": dict(state.positions),
        "runs": [{"id": each.id, "title": each.title, "looked_at": each.id in state.ran} for each in task.runs],
    }
    if task.level == "set":
        wanted = wanted_functions(boards.original, task.stood, boards.family)
        found["wanted"] = {name: each.values[0] for name, each in wanted.items() if each.decided}
    else:
        found["original"] = written_positions(boards.original, task.stood.points)
    if state.ran:
        run = next(each for each in task.runs if each.id == state.ran[-1])
        found["ran"] = {"id": run.id, "title": run.title, **played(task, state, run)}
    return found


def played(task: Task, state: Setting, run: Run) -> dict[str, Any]:
    """What the machine does in a run, as it is set; nothing is said of what it should do."""
    steps = [{"at": step.at, "set": dict(step.set)} for step in run.scenario.steps]
    told: dict[str, Any] = {"steps": steps, "until": run.scenario.until, "outputs": [], "fault": ""}
    try:
        entries = simulate(task.boards.replacement, record_of(task, state.positions), task.boards.family, run.scenario)
    except UndecidedError:
        return told | {"fault": "stands still"}
    except EndlessLoopError:
        return told | {"fault": "never settles"}
    return told | {"outputs": [{"at": each.at, "on": list(each.on)} for each in entries]}


def outcome(task: Task, state: Setting) -> Outcome:
    """Function by function what is got, and what the twin check says of the machine as it was left."""
    boards, record = task.boards, record_of(task, state.positions)
    wanted = wanted_functions(boards.original, task.stood, boards.family)
    rows = tuple(
        Row(
            each.id, each.wanted.values[0] if each.wanted.decided else None, each.got,
            each.met, "safety" if each.importance == "safety" else "settings",
        )
        for each in judge(wanted, boards.replacement, record, boards.family)
    )  # fmt: skip
    proof = proof_of(boards, task.stood, record)
    case = proof.answer().get("counter_case")
    told: tuple[tuple[str, dict[str, Any]], ...] = () if state.ran else (("not run", {}),)
    return Outcome(rows, proof.verdict, case if isinstance(case, dict) else None, told, (boards.replacement, record))


def record_of(task: Task, positions: Mapping[str, Any]) -> Record:
    """Positions of the replacement. Raises ValueError where one is none."""
    faults = FaultList()
    record = build_record(dict(positions), task.boards.replacement, "positions", faults)
    if faults.faults:
        raise ValueError(str(faults.faults[0]))
    return record
