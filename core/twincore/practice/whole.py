"""The whole job on one simulated machine: nine steps, each of which works on what the ones before it left.

What is read wrong is carried over wrong; a wire in another's place drives that one's device; and nothing says so but the machine.
"""

from collections.abc import Callable, Mapping
from dataclasses import dataclass, field, replace
from typing import Any, TypeVar

from twincore.practice import finding, keys, reading, safety, setting, wires
from twincore.practice.finding import Finding
from twincore.practice.keys import Keyed
from twincore.practice.outcome import Outcome, Row
from twincore.practice.reading import Reading
from twincore.practice.runs import telling_runs
from twincore.practice.safety import Safety
from twincore.practice.setting import Setting
from twincore.practice.task import ALIKE, Boards, Lead, Level, Task, WholeJob
from twincore.practice.twins import replacements
from twincore.practice.wired import run_wired
from twincore.practice.wires import Wiring, leads_of
from twincore.profile import Board, Value, factory_record, written_positions
from twincore.profile.faults import FaultList
from twincore.profile.record import Record, build_record
from twincore.profile.values import plain
from twincore.settings import Carried, carry, decode

Answer = TypeVar("Answer")
MOST_KEPT = 100
BEHAVES: Mapping[bool, str] = {True: "as before", False: "not as before"}


@dataclass(frozen=True, slots=True)
class Whole:
    """How far the job has come."""

    recognised: str = ""
    found: Finding = field(default_factory=Finding)
    safe: Safety = field(default_factory=Safety)
    read: Reading = field(default_factory=lambda: Reading({}))
    chosen: str = ""
    wanted: Mapping[str, Value] = field(default_factory=dict)
    """What functions shall do that the positions read leave open."""
    stands: Setting | None = None
    keyed: Keyed = field(default_factory=Keyed)
    wired: Wiring = field(default_factory=lambda: Wiring({}))
    says: str = ""


def begin(task: Task) -> Whole:
    """The machine stands still, and somebody has called."""
    return Whole()


def job_of(task: Task) -> WholeJob:
    """What a whole job asks besides."""
    assert task.whole is not None  # drawn when the task was made
    return task.whole


def room(task: Task, level: Level) -> Task:
    """The task as one level has it."""
    return replace(task, level=level)


def _once(task: Task, key: Any, work: Callable[[], Answer]) -> Answer:
    """What was worked out for a task before, or is now."""
    memory = job_of(task).memory
    if key not in memory:
        if len(memory) >= MOST_KEPT:
            memory.clear()
        memory[key] = work()
    found: Answer = memory[key]
    return found


def bench(task: Task, state: Whole) -> Task:
    """The machine with the board that was chosen for it."""
    return _once(task, ("bench", state.chosen), lambda: _bench(task, state))


def _bench(task: Task, state: Whole) -> Task:
    boards = replace(task.boards, replacement=task.boards.offered[state.chosen])
    if state.chosen == task.boards.replacement.part_number:
        runs = task.runs
    else:
        runs = (*(each for each in task.runs if each.title), *telling_runs(boards, task.stood))
    return replace(task, level="carry", boards=boards, runs=runs, leads=leads_on(task, boards))


def leads_on(task: Task, boards: Boards) -> tuple[Lead, ...]:
    """The wires that have a place on a board."""
    return leads_of(boards, task.rng("wires"))


# What is done


def act(task: Task, state: Whole, action: Mapping[str, Any]) -> Whole:
    """One thing of any step. Raises ValueError for what is none, or what the steps before it do not allow yet."""
    do = action["do"]
    if do in DONE_BY:
        return DONE_BY[do](task, state, action)
    raise ValueError(f'expected one of {", ".join(DONE_BY)} or done, found "{do}"')


def _recognise(task: Task, state: Whole, action: Mapping[str, Any]) -> Whole:
    name = _offered(task, action["board"])
    # another board has other elements: what was read of it says nothing of this one
    return state if name == state.recognised else Whole(name, state.found, state.safe)


def _offered(task: Task, name: str) -> str:
    if name not in task.boards.offered:
        raise ValueError(f'expected one of the boards offered ({", ".join(task.boards.offered)}), found "{name}"')
    return name


def _find(task: Task, state: Whole, action: Mapping[str, Any]) -> Whole:
    return replace(state, found=finding.act(room(task, "find"), state.found, action))


def _make_safe(task: Task, state: Whole, action: Mapping[str, Any]) -> Whole:
    return replace(state, safe=safety.act(room(task, "safe"), state.safe, action))


def _read(task: Task, state: Whole, action: Mapping[str, Any]) -> Whole:
    if not state.recognised:
        raise ValueError("expected that the board was recognised before it is read")
    if not state.safe.touched:
        raise ValueError("expected that the machine was made safe before the board is read")
    read = reading.act(room(task, "read"), state.read, action)
    _record(task.boards.offered[state.recognised], read)
    return replace(state, read=read)


def _record(board: Board, read: Reading) -> Record:
    """What was read, as a record of the board that it was taken for. Raises ValueError where a position is none of it."""
    faults = FaultList()
    record = build_record(dict(read.said), board, "positions", faults)
    if faults.faults:
        raise ValueError(str(faults.faults[0]))
    return record


def _choose(task: Task, state: Whole, action: Mapping[str, Any]) -> Whole:
    name = _offered(task, action["board"])
    if not state.recognised:
        raise ValueError("expected that the old board was recognised before another is chosen")
    if name == state.recognised:
        raise ValueError(f"expected another board than {name}: it is not made any more")
    if name == state.chosen:
        return state
    chosen = replace(state, chosen=name, wanted={}, keyed=Keyed(), wired=Wiring({}), says="")
    return replace(chosen, stands=setting.begin(bench(task, chosen)))


def _want(task: Task, state: Whole, action: Mapping[str, Any]) -> Whole:
    _check_read(state)
    name, value = action["function"], action["value"]
    may = next((each for each in open_values(task, state).get(name, ()) if plain(each) == value), None)
    if may is None:
        raise ValueError(f'expected a function that is open, and a value that it may have, found "{name}" {value!r}')
    return replace(state, wanted={**state.wanted, name: may})


def open_values(task: Task, state: Whole) -> dict[str, tuple[Value, ...]]:
    """What the functions may do that the positions read leave open."""
    board = task.boards.offered[state.recognised]
    found = decode(board, _record(board, state.read), task.boards.family)
    return {name: each.values for name, each in found.items() if not each.decided}


def _set(task: Task, state: Whole, action: Mapping[str, Any]) -> Whole:
    _check_read(state)
    assert state.stands is not None  # a board was chosen
    if action["do"] == "set" and (held := set(action["positions"]) & set(_keyed_in(task, state))):
        raise ValueError(f"expected that {min(held)} is keyed in on the board's own panel")
    return replace(state, stands=setting.act(bench(task, state), state.stands, action))


def _press(task: Task, state: Whole, action: Mapping[str, Any]) -> Whole:
    _check_read(state)
    if not _keyed_in(task, state):
        raise ValueError("expected a board on whose panel values are keyed in")
    return replace(state, keyed=keys.act(room(bench(task, state), "keys"), state.keyed, action))


def _put(task: Task, state: Whole, action: Mapping[str, Any]) -> Whole:
    _check_read(state)
    return replace(state, wired=wires.act(room(bench(task, state), "wires"), state.wired, action))


def _check_read(state: Whole) -> None:
    if not (state.chosen and state.read.said):
        raise ValueError("expected that the old board was read, and a new one chosen, before this")


def _tell(task: Task, state: Whole, action: Mapping[str, Any]) -> Whole:
    if action["what"] not in BEHAVES.values():
        raise ValueError(f'expected one of {", ".join(BEHAVES.values())}, found "{action["what"]}"')
    return replace(state, says=action["what"])


DONE_BY = {
    "recognise": _recognise, "test": _find, "name": _find, "hold": _make_safe, "wait": _make_safe, "touch": _make_safe,
    "read": _read, "choose": _choose, "want": _want, "set": _set, "press": _press, "put": _put, "run": _set, "tell": _tell,
}  # fmt: skip


def ended(task: Task, state: Whole) -> bool:
    """Whoever takes hold of a board that is still live does not go on."""
    if not state.safe.touched:
        return False
    rows = _once(task, state.safe, lambda: safety.outcome(room(task, "safe"), state.safe).rows)
    return any(row.did in ("left out", "too early") for row in rows)


# What the sheet works out of what was read


def carried(task: Task, state: Whole) -> Carried:
    """What the sheet says of the board that was chosen, from what was read of the one that it was taken for."""
    return carried_to(task, state, state.chosen)


def carried_to(task: Task, state: Whole, name: str) -> Carried:
    """What the sheet would say of a board: on what was read, else on factory settings."""
    key = (state.recognised, name, tuple(state.read.said.items()), tuple(state.wanted.items()))

    def worked_out() -> Carried:
        one, other = task.boards.offered[state.recognised], task.boards.offered[name]
        found = _record(one, state.read) if state.read.said else factory_record(one)
        return carry(one, found, other, task.boards.family, state.wanted)

    return _once(task, key, worked_out)


def _keyed_in(task: Task, state: Whole) -> tuple[str, ...]:
    """The elements of the new board that are keyed in on its panel."""
    if not (job_of(task).keyed and state.chosen == task.boards.replacement.part_number):
        return ()
    return keys.names_on_panels(task.boards.offered[state.chosen])


def _on_panel(task: Task, state: Whole) -> Task:
    """The new board's panel, with what the sheet says is to be keyed in."""
    proposed = carried(task, state).record
    on_bench = room(bench(task, state), "keys")
    return on_bench if proposed is None else replace(on_bench, stood=proposed)


def left_at(task: Task, state: Whole) -> Setting:
    """How the new board stands in the end: as it was set, and what its panel holds."""
    assert state.stands is not None  # callers look
    if not _keyed_in(task, state):
        return state.stands
    held = keys.stored(room(bench(task, state), "keys"), state.keyed)
    return replace(state.stands, positions={**state.stands.positions, **held})


# What is seen


def shown(task: Task, state: Whole) -> dict[str, Any]:
    """The machine and the sheet, as far as the job has come."""
    told: dict[str, Any] = {
        "printed": job_of(task).printed, "boards": list(task.boards.offered), "recognised": state.recognised,
        "finding": finding.shown(room(task, "find"), state.found),
        "safety": safety.shown(room(task, "safe"), state.safe), "held": state.safe.touched,
        "card": [{"function": name, "value": value} for name, value in job_of(task).card],
        "chosen": state.chosen, "says": state.says,
    }  # fmt: skip
    if state.safe.touched and state.recognised:
        told["reading"] = reading.shown(room(task, "read"), state.read)
    if state.recognised:
        told["judged_on"] = "read" if state.read.said else "factory"
        told["candidates"] = [_candidate(task, state, name) for name in task.boards.offered if name != state.recognised]
    if state.stands is not None and state.read.said:
        sheet, left_open = carried(task, state), open_values(task, state)
        told["carried"] = [
            {
                "function": each.id,
                "wanted": each.wanted.values[0] if each.wanted.decided else None,
                "got": each.got,
                "verdict": each.verdict,
                "may_be": list(left_open.get(each.id, ())),
            }
            for each in sheet.functions
        ]
        chosen = task.boards.offered[state.chosen]
        told["to_set"] = {} if sheet.record is None else written_positions(chosen, sheet.record.points)
        told |= _fitted(task, state, state.stands)
    return told


def _candidate(task: Task, state: Whole, name: str) -> dict[str, Any]:
    """What the sheet says of a board before it is chosen."""
    found = carried_to(task, state, name)
    over = [each.id for each in found.functions if each.missed]
    return {"board": name, "functions": len(found.functions), "missed": over, "settable": found.record is not None}


def _fitted(task: Task, state: Whole, stands: Setting) -> dict[str, Any]:
    """The new board as it stands and is wired, and what the machine did last."""
    on_bench = bench(task, state)
    told: dict[str, Any] = {
        "setting": {
            name: each for name, each in setting.shown(on_bench, replace(stands, ran=())).items() if name != "original"
        },
        "wiring": wires.shown(room(on_bench, "wires"), state.wired),
        "keyed_in": list(_keyed_in(task, state)),
    }
    told["setting"]["runs"] = [
        {"id": each.id, "title": each.title, "looked_at": each.id in stands.ran} for each in on_bench.runs
    ]
    if told["keyed_in"]:
        told["keying"] = keys.shown(_on_panel(task, state), state.keyed)
    if stands.ran:
        run = next(each for each in on_bench.runs if each.id == stands.ran[-1])
        record = setting.record_of(on_bench, left_at(task, state).positions)
        told["setting"]["ran"] = {
            "id": run.id,
            "title": run.title,
            **run_wired(on_bench, record, state.wired, run.scenario),
        }
    return told


# How it ends


def outcome(task: Task, state: Whole) -> Outcome:
    """Step by step, and what the twin check says of the machine as it was left."""
    is_it = task.boards.original.part_number
    known = Row("which board it is", is_it, state.recognised, state.recognised == is_it, "recognise")
    cause = finding.outcome(room(task, "find"), state.found)
    safe = safety.outcome(room(task, "safe"), state.safe)
    can = _once(task, "replacements", lambda: replacements(task.boards, task.stood))
    goes_in = Row("which board goes in", " or ".join(can), state.chosen, state.chosen in can, "choose")
    rows, told = [*cause.rows, known, goes_in, *safe.rows], [*cause.told, *safe.told]
    if ended(task, state):
        return Outcome(tuple(rows), told=tuple(told))
    rows += reading.outcome(room(task, "read"), state.read).rows
    if state.stands is None:
        return Outcome(tuple(rows), told=tuple(told))
    on_bench = bench(task, state)
    stands = setting.outcome(on_bench, left_at(task, state))
    hangs = wires.outcome(room(on_bench, "wires"), state.wired)
    behaves = BEHAVES[stands.verdict in ALIKE and hangs.right]
    rows += [
        *stands.rows, *hangs.rows,
        Row("run before it was handed over", "yes", "yes" if state.stands.ran else "no", bool(state.stands.ran), "prove"),
        Row("what was said of it when it was handed over", behaves, state.says, state.says == behaves, "hand over"),
    ]  # fmt: skip
    told += [*stands.told, *hangs.told]
    return Outcome(tuple(rows), stands.verdict, stands.counter_case, tuple(told), stands.left)
