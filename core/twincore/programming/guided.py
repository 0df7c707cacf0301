"""A dialogue: the board asks, each answer leads to the next question, and between them something is done until a sign comes."""

from collections.abc import Callable, Mapping
from dataclasses import dataclass
from typing import Any

from twincore.profile import Board, Value
from twincore.profile.values import plain
from twincore.programming.panel import Panel, Shown

Moves = Callable[[Panel, int, int, int], list[str]]
"""The fewest presses from one value of a domain to another: panel, from, to, and how many there are."""
DONE = "done"
"""What somebody makes of a step that is no question: it was done until its sign came."""


@dataclass(frozen=True, slots=True)
class Step:
    """One step of a dialogue: a question that sets an element, or (`sets` empty) something to do until a sign comes.

    `then` is the step that follows, `by_answer` that after an answer of its own; past the last step the dialogue is over.
    """

    asks: str
    shows: str
    sets: str
    do: str
    key: str
    hold_s: float
    sign: str
    then: int
    by_answer: Mapping[Value, int]

    def after(self, answer: Value | None) -> int:
        """The step that follows an answer."""
        return self.by_answer.get(answer, self.then) if answer is not None else self.then


@dataclass(frozen=True, slots=True)
class GuidedPanel(Panel):
    """A panel that asks. Its items are its steps, in the order of the file; `first` is where it begins."""

    steps: tuple[Step, ...] = ()
    first: int = 0
    ends: str = ""

    def at_rest(self, values: tuple[tuple[int, ...], ...]) -> Shown:
        """The dialogue just opened, at its first step."""
        return self._at(self.first, values)

    def press(self, shown: Shown, action: str) -> Shown:
        """What stands after one press; where the dialogue is over, nothing changes any more."""
        if shown.item == len(self.steps) or action not in self.keys:
            return shown
        step = self.steps[shown.item]
        if not step.sets:
            return self._at(step.then, shown.values) if action == DONE else shown
        if action != "enter":
            return self._changed(shown, action)
        values = tuple(shown.draft if item == shown.item else each for item, each in enumerate(shown.values))
        return self._at(step.after(self.domains[shown.item][shown.draft[0]]), values)

    def text(self, shown: Shown) -> str:
        """What can be seen: the question's mark with the answer chosen, or the sign that is waited for."""
        if shown.item == len(self.steps):
            return self.ends
        step = self.steps[shown.item]
        if not step.sets:
            return step.shows
        return f"{step.shows} {plain(self.domains[shown.item][shown.draft[0]])}".strip()

    def left(self, shown: Shown) -> bool:
        """Whether the dialogue is over."""
        return shown.item == len(self.steps)

    def asked(self, answers: Mapping[str, Value | None]) -> list[int]:
        """The steps that these answers lead through; a dialogue comes to an end, whatever is answered."""
        found: list[int] = []
        at = self.first
        while at < len(self.steps):
            found.append(at)
            at = self.steps[at].after(answers.get(self.steps[at].sets))
        return found

    def _at(self, item: int, values: tuple[tuple[int, ...], ...]) -> Shown:
        return Shown(item, True, 0, values[item] if item < len(values) else (), values)

    def way(self, here: Shown, goals: Mapping[int, tuple[int, ...]], moves: Moves) -> list[str]:
        """The actions from a step to the end: each question answered as wanted, or left as it is; each sign waited for."""
        actions: list[str] = []
        shown = here
        while shown.item < len(self.steps):
            step = self.steps[shown.item]
            todo = [DONE]
            if step.sets:
                goal = goals.get(shown.item, shown.values[shown.item])
                todo = [*moves(self, shown.draft[0], goal[0], len(self.domains[shown.item])), "enter"]
            for action in todo:
                shown = self.press(shown, action)
            actions += todo
        return actions


def guided_panel(node: Mapping[str, Any], board: Board) -> GuidedPanel:
    """The dialogue of a board's file."""
    elements = {element.id: element for element in board.elements}
    numbers = {name: number for number, name in enumerate(node["steps"])}
    over = len(numbers)
    steps = tuple(_step(each, numbers, over) for each in node["steps"].values())
    keys = dict(node["keys"])
    if any(not step.sets for step in steps):
        keys[DONE] = "the sign came"
    return GuidedPanel(
        "guided", node.get("title", ""), tuple(node.get("open", ())), keys, tuple(step.sets for step in steps),
        tuple(elements[step.sets].points[0].domain if step.sets else () for step in steps),
        tuple(1 if step.sets else 0 for step in steps), True, node.get("values_wrap", False), node.get("fast", 1), 0.0,
        steps, numbers[node["start"]] if "start" in node else 0, node.get("ends", ""),
    )  # fmt: skip


def _step(node: Mapping[str, Any], numbers: Mapping[str, int], over: int) -> Step:
    then = node.get("then")
    answers = then if isinstance(then, Mapping) else {}
    blinks = node.get("blinks")
    sign = node.get("until", "")
    if blinks:
        sign = f"{sign} {blinks} blink{'s' if blinks > 1 else ''}".strip()
    return Step(
        node.get("asks", ""), node.get("shows", ""), node.get("sets", ""), node.get("do", ""), node.get("press", ""),
        float(node.get("hold_s", 0)), sign, numbers[then] if isinstance(then, str) else over,
        {answer: numbers.get(each, over) for answer, each in answers.items()},
    )  # fmt: skip
