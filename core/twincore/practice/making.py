"""Tasks made from any two boards and a seed: the same boards and the same seed make the same task everywhere."""

from collections.abc import Iterable
from dataclasses import replace
from random import Random

from twincore.behaviour import make_twin
from twincore.practice.finding import is_told
from twincore.practice.keys import drawn_target
from twincore.practice.metering import drawn_meter
from twincore.practice.runs import runs_for
from twincore.practice.task import Boards, Level, NoTask, Task, WholeJob
from twincore.practice.twins import behave_alike
from twincore.practice.wires import leads_of
from twincore.profile import Board, Family, Record, Value, factory_record
from twincore.programming import plan_presses
from twincore.rule_out import BOARD
from twincore.settings import Carried, carry, decode

DRAWS = 40
AGAIN = ("", *(f" {number}" for number in range(1, DRAWS)))
"""So often a fault and what tests show of it are drawn."""
CARRIED = 8
"""So often positions are drawn that can be carried over, before the boards are given up."""
FEWEST_LEADS = 3
MOST_PRESSES = 60
WORN = "▒"


def make_task(level: Level, boards: Boards, seed: int) -> Task:
    """A task of a level. Raises NoTask where these boards make none."""
    rng = Random(f"{level} {seed} {boards.original.part_number} {boards.replacement.part_number}")
    match level:
        case "read":
            stood = _drawn(boards.original, boards.family, rng)
            return Task(level, seed, boards, stood, _burnt(boards.original, rng))
        case "set" | "carry":
            stood, carried = _carriable(boards, rng)
            return Task(level, seed, boards, stood, carried=carried, runs=runs_for(boards, stood, carried))
        case "whole":
            return _whole(boards, seed, rng)
    stood = factory_record(boards.original)
    if level == "keys":
        return Task(level, seed, boards, drawn_target(boards.replacement, boards.family, rng))
    if level == "meter":
        if boards.original.behaviour is None:
            raise NoTask(f"how {boards.original.part_number} behaves is not known")
        return Task(level, seed, boards, stood, meter=drawn_meter(boards, stood, rng))
    if level == "wires":
        leads = leads_of(boards, rng)
        if len(leads) < FEWEST_LEADS:
            raise NoTask("too little is known of what the pins of these boards carry")
        return Task(level, seed, boards, stood, leads=leads)
    if level == "find":
        if boards.rule_out is None:
            raise NoTask(f"nobody wrote down how faults of this kind of machine are found ({boards.family.title})")
        suspects = boards.rule_out.suspects
        names, weights = [each.id for each in suspects], [each.weight for each in suspects]
        return _told(
            Task(level, seed, boards, stood, suspect=rng.choices(names, weights)[0], again=again) for again in AGAIN
        )
    return Task(level, seed, boards, stood)


def _whole(boards: Boards, seed: int, rng: Random) -> Task:
    if boards.rule_out is None:
        raise NoTask(f"nobody wrote down how faults of this kind of machine are found ({boards.family.title})")
    # what nobody knows the behaviour of cannot be put into a simulated machine
    others = tuple(each for each in boards.others if each.meanings_known and each.behaviour is not None)
    boards = replace(boards, others=others)
    if len(leads_of(boards, Random(0))) < FEWEST_LEADS:
        raise NoTask("too little is known of what the pins of these boards carry")
    stood, carried = _carriable(boards, rng)
    assert carried.record is not None  # it can be carried over
    task = Task(
        "whole",
        seed,
        boards,
        stood,
        _burnt(boards.original, rng),
        carried,
        runs_for(boards, stood, carried),
        suspect=BOARD,
    )
    task = _told(replace(task, again=again) for again in AGAIN)
    now = decode(boards.original, stood, boards.family)
    read = decode(boards.original, task.read(), boards.family)
    job = WholeJob(
        printed=_worn(boards, rng),
        keyed=_is_keyed(boards.replacement, carried.record),
        card=tuple((name, now[name].values[0]) for name, each in read.items() if not each.decided),
    )  # fmt: skip
    return replace(task, whole=job)


def _told(drawn: Iterable[Task]) -> Task:
    """The first of which tests say what it is. Raises NoTask."""
    task = next((each for each in drawn if is_told(replace(each, level="find"))), None)
    if task is None:
        raise NoTask("tests of this kind of machine do not tell its faults apart")
    return task


def _is_keyed(board: Board, record: Record) -> bool:
    """Whether a board's panel is where its values are put in, in so many presses that nobody tires of them."""
    plan = plan_presses(board, factory_record(board), record)
    return bool(plan.panels) and plan.count <= MOST_PRESSES and not plan.unasked


def _worn(boards: Boards, rng: Random) -> str:
    """The number on the board with a letter worn off: of the boards offered it can only be this one's."""
    name = boards.original.part_number
    letters = [at for at, letter in enumerate(name) if letter.isalnum()]
    # figures first: they tell boards of one maker apart
    for at in sorted(rng.sample(letters, len(letters)), key=lambda each: name[each].isalpha()):
        worn = name[:at] + WORN + name[at + 1 :]
        if not any(_could_be(worn, each) for each in boards.offered if each != name):
            return worn
    return name


def _could_be(worn: str, name: str) -> bool:
    return len(worn) == len(name) and all(one in (WORN, other) for one, other in zip(worn, name, strict=True))


def _drawn(board: Board, family: Family, rng: Random) -> Record:
    """Positions as they might stand in a machine: none that is locked is moved, none is reserved. Raises NoTask."""
    free = [name for name, point in board.points.items() if not point.locked and len(point.domain) > 1]
    if not free:
        raise NoTask(f"nothing can be set on {board.part_number}")
    stood = factory_record(board)
    for _ in range(DRAWS):
        points: dict[str, Value | None] = {name: rng.choice(board.points[name].domain) for name in free}
        drawn = replace(stood, points={**stood.points, **points})
        if all(each.decided for each in decode(board, drawn, family).values()):
            return drawn
    return stood


def _burnt(board: Board, rng: Random) -> tuple[str, ...]:
    """In every second task one place of a bank is burnt."""
    places = [point.id for each in board.elements if each.placed for point in each.points]
    return (rng.choice(places),) if places and rng.random() < 0.5 else ()


def _carriable(boards: Boards, rng: Random) -> tuple[Record, Carried]:
    """Positions that can be carried over whole: set right, the machine behaves as it did. Raises NoTask."""
    if not (boards.original.meanings_known and boards.replacement.meanings_known):
        raise NoTask("what the positions of one of these boards mean is not known")
    for number in range(CARRIED):
        stood = _drawn(boards.original, boards.family, rng) if number < CARRIED - 1 else factory_record(boards.original)
        carried = carry(boards.original, stood, boards.replacement, boards.family)
        if any(each.verdict == "not on this board" for each in carried.functions):
            break
        if carried.record is None or not carried.moved:
            continue
        if any(not each.met for each in carried.functions):
            continue
        if behave_alike(make_twin(boards.original, stood, boards.replacement, carried.record, boards.family)):
            return stood, carried
        break
    raise NoTask(f"{boards.replacement.part_number} is no twin of {boards.original.part_number}")
