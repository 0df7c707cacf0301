"""Several boards of one machine in one job: what they have in common, and what each has of its own.

A job has one sheet for each of its boards. Its state is always that of one sheet: the parts that a board has of its own
stand where they stand in a job of one board, those of the others beside them in `boards`, and `board` says which sheet it is.
Every rule of a job reads a sheet, and need not know that there are others.
"""

from typing import Any, cast, get_args

from twincore.job.rules.state import State, empty_state
from twincore.job.target import FIRST, Step
from twincore.job.targets import TARGETS
from twincore.job.targets.recognise import BoardName

BOARD_NAMES: tuple[str, ...] = get_args(BoardName)
"""The boards that a job may have: numbered as they come to it."""
SHARED_STEPS: tuple[Step, ...] = ("make_safe", "hand_over")
"""Done once for the whole machine: there is one lock-off, and one hand-over."""
OWN = tuple(
    dict.fromkeys(
        [
            *(target.key for target in TARGETS.values() if not target.of_all_boards),
            *("how", "powered", "remembered", "choice", "rejudged", "left", "verdict"),
        ]
    )
)
"""The parts of a state that each board has of its own, besides its confirmations."""


def board_of(target: str, board: str) -> str:
    """The board of which an entry at a target speaks: the first one where it speaks of the machine, or of the job."""
    return FIRST if speaks_of_all(target) else board


def speaks_of_all(target: str) -> bool:
    """Whether what is said at a target is said of the machine, or of the job as a whole."""
    kind, _, name = target.partition(".")
    if kind == "confirmed":
        return name in SHARED_STEPS
    return kind in TARGETS and TARGETS[kind].of_all_boards


def names_of(state: State) -> list[str]:
    """The boards of a job, in the order in which they came to it."""
    return sorted([state["board"], *state["boards"]])


def several(state: State) -> bool:
    """Whether a job is about more than one board."""
    return bool(state["boards"])


def title_of(state: State, board: str) -> str:
    """What a board is called in its job."""
    named = state["board_names"].get(board)
    return named["title"] if named else "Main board" if board == FIRST else f"Board {board}"


def why_of(state: State, board: str) -> str:
    """Why a board is changed along with the others; empty where nobody said."""
    named = state["board_names"].get(board)
    return named.get("why", "") if named else ""


def fresh_board() -> dict[str, Any]:
    """What there is of a board about which nothing is known yet."""
    return own_part(empty_state())


def turned(state: State, board: str) -> State:
    """The sheet of another board of the same job. Raises KeyError where the job has none such."""
    if board == state["board"]:
        return state
    own = state["boards"][board]
    others = {name: part for name, part in state["boards"].items() if name != board}
    shared = {step: said for step, said in state["confirmed"].items() if step in SHARED_STEPS}
    confirmed = {**shared, **own["confirmed"]}
    beside = {"board": board, "boards": {**others, state["board"]: own_part(state)}, "confirmed": confirmed}
    return cast(State, {**state, **own, **beside})


def sheets(state: State) -> list[State]:
    """Every sheet of a job, in the order of its boards."""
    return [turned(state, name) for name in names_of(state)]


def other_sheets(state: State) -> list[State]:
    """The sheets of the job's other boards."""
    return [each for each in sheets(state) if each["board"] != state["board"]]


def own_part(state: State) -> dict[str, Any]:
    """What the board of a sheet has of its own."""
    everything = cast(dict[str, Any], state)
    confirmed = {step: said for step, said in state["confirmed"].items() if step not in SHARED_STEPS}
    return {**{key: everything[key] for key in OWN}, "confirmed": confirmed}
