"""A task as it is played, for the screen; the same on the depot's server and in the browser."""

from collections.abc import Sequence
from typing import Any

from twincore.practice import Outcome, Played, Task, WrongAction
from twincore.practice import play as core_play
from twincore.profile import Scenario, Step
from twincore.profile.values import plain
from twinshown.comparison.playing import played, step_shown
from twinshown.practice.schemas import Laid, LaidRow, Parting, PracticeShown
from twinshown.practice.words import LOCAL, function_title, function_words, row_words, told_words
from twinshown.refusals import Faulty

AFTER_S = 5.0
"""For so long the two are shown after they parted."""


def play(task: Task, actions: Sequence[dict[str, Any]]) -> Played:
    """A task after these actions. Raises Faulty for what cannot be done in it."""
    try:
        return core_play(task, actions)
    except WrongAction as error:
        raise Faulty(f"This cannot be done in this task: {error}.") from error


def play_shown(task: Task, found: Played) -> PracticeShown:
    """A task as it was played."""
    shown = plain(found.shown)
    if task.level == "whole":
        shown |= _whole(task, found.shown)
    if "wanted" in shown:
        shown["wanted"] = [
            {
                "title": function_title(task.boards.family, name),
                "value": function_words(task.boards.family, name, value),
            }
            for name, value in found.shown["wanted"].items()
        ]
    return PracticeShown(shown=shown, ended=None if found.outcome is None else _laid(task, found.outcome))


def _whole(task: Task, shown: dict[str, Any]) -> dict[str, Any]:
    """The sheet of a whole job: functions by their titles, values as people say them."""
    family = task.boards.family
    told: dict[str, Any] = {
        "card": [
            {"title": function_title(family, each["function"]), "value": function_words(family, each["function"], each["value"])}
            for each in shown["card"]
        ]
    }  # fmt: skip
    if "candidates" in shown:
        told["candidates"] = [
            {**each, "missed": [function_title(family, name) for name in each["missed"]]}
            for each in shown["candidates"]
        ]
    if "carried" in shown:
        told["carried"] = [
            {
                "function": each["function"],
                "title": function_title(family, each["function"]),
                "wanted": function_words(family, each["function"], each["wanted"]),
                "got": function_words(family, each["function"], each["got"]),
                "verdict": each["verdict"],
                "may_be": [{"value": plain(value), "words": function_words(family, each["function"], value)}
                           for value in each["may_be"]],
            }
            for each in shown["carried"]
        ]  # fmt: skip
    return told


def _laid(task: Task, outcome: Outcome) -> Laid:
    rows = []
    for row in outcome.rows:
        what, should, did = row_words(row, task.boards.family)
        rows.append(LaidRow(what=what, should=should, did=did, right=row.right, skill=row.skill))
    told = [words for code, data in outcome.told if (words := told_words(code, data))]
    if task.level in ("safe", "whole"):
        told.append(LOCAL)
    first = next((place for place, row in enumerate(rows) if not row.right), None)
    return Laid(
        right=outcome.right,
        words=_in_a_word(task, outcome, rows),
        rows=rows,
        first=first,
        verdict=outcome.verdict,
        parting=_parting(task, outcome),
        told=told,
    )


def _in_a_word(task: Task, outcome: Outcome, rows: Sequence[LaidRow]) -> str:
    wrong = [row for row in rows if not row.right]
    if not wrong:
        return {
            "read": "Read as it stands.", "wires": "Every wire is where it belongs.", "keys": "It holds what it should.",
            "meter": "Found, and measured where it shows.", "find": "Found, on a way as short as any.",
            "safe": "Everything that this machine asks for, in its order.",
            "whole": "The machine behaves as it did, and you know that it does.",
        }.get(task.level, "The machine behaves as it did.")  # fmt: skip
    if task.level in ("set", "carry") and outcome.verdict in ("identical", "within tolerance"):
        return "The machine shows nothing of it, but a value is out of its tolerance."
    return f"{len(wrong)} of {len(rows)} otherwise than it should be; the first is {wrong[0].what}."


def _parting(task: Task, outcome: Outcome) -> Parting | None:
    """The counter-case on both machines: as it was, and as it was left."""
    case = outcome.counter_case
    if case is None or outcome.left is None:
        return None
    boards = task.boards
    steps = tuple(Step(each["at"], tuple(each["set"].items())) for each in case["steps"])
    scenario = Scenario("", steps, case["at"] + AFTER_S)
    sides = [(boards.original, task.stood), outcome.left]
    return Parting(
        title="The shortest run that tells them apart", steps=[step_shown(each) for each in steps],
        tracks=played(sides, boards.family, scenario), at=float(case["at"]),
    )  # fmt: skip
