"""Scenarios played on two boards, for the screen."""

from collections.abc import Iterable
from typing import Literal

from twincore.behaviour import Shown, run_board, thresholds_of
from twincore.behaviour.functions import function_values
from twincore.carry_over import Comparison
from twincore.errors import EndlessLoopError
from twincore.profile import Board, Family, Record, Scenario, Step
from twincore.profile.values import plain
from twinshown.comparison.schemas import PlayShown, RoundShown, ShownAt, StepShown, ThresholdShown
from twinshown.refusals import Faulty

SIDES: tuple[Literal["original", "replacement"], ...] = ("original", "replacement")


def step_shown(step: Step) -> StepShown:
    """Input changes at one instant, as JSON has numbers."""
    return StepShown(at=float(step.at), set={name: plain(value) for name, value in step.set})


def track(board: Board, shown: Iterable[Shown]) -> list[ShownAt]:
    """What a board shows over time, with the states of its machines by their titles."""
    assert board.behaviour is not None  # a board without one shows nothing
    titles = board.behaviour.state_titles
    return [ShownAt(at=float(each.at), on=list(each.on), states=titles(each.states)) for each in shown]


def play(comparison: Comparison, scenario: Scenario) -> PlayShown:
    """A scenario on both boards; numbers as they are set, not as the twin check evens them out."""
    record = comparison.plan_record()
    if record is None:
        raise Faulty("There are no positions to play: every choice on this board is reserved.")
    boards = [(comparison.original, comparison.settled_record()), (comparison.replacement, record)]
    return played(boards, comparison.family, scenario)


def played(boards: list[tuple[Board, Record]], family: Family, scenario: Scenario) -> PlayShown:
    """A scenario on two boards as they are set; of one whose behaviour is not known nothing is shown."""
    sides: list[list[ShownAt]] = []
    rounds = []
    for side, (board, positions) in zip(SIDES, boards, strict=True):
        try:
            sides.append(track(board, run_board(board, positions, family, scenario)) if board.behaviour else [])
        except EndlessLoopError as error:
            assert board.behaviour is not None  # a board without one shows nothing
            sides.append(track(board, error.shown))
            states = board.behaviour.titles_of(error.states)
            rounds.append(RoundShown(side=side, at=float(error.at), states=states))
    read = []
    for board, positions in boards:
        values = {
            name: each.values[0] for name, each in function_values(board, positions, family).items() if each.values
        }
        read.append(set(thresholds_of(family, board.behaviour, values)) if board.behaviour else set())
    thresholds = [
        ThresholdShown(level=each.level, at=float(each.at), original=each in read[0], replacement=each in read[1])
        for each in sorted(read[0] | read[1], key=lambda threshold: (threshold.level, threshold.at))
    ]
    return PlayShown(
        original=sides[0], replacement=sides[1], thresholds=thresholds, rounds=rounds, until=float(scenario.until)
    )
