"""Find out what it is: tests on a machine whose fault is known to the task alone."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from typing import Any

from twincore.practice.outcome import Outcome, Row
from twincore.practice.task import Task
from twincore.rule_out import BOARD, Done, Report, RuleOut, Standing, next_tests, stand

EVEN = 0.5
"""A suspect that weighs more than all others together is named."""
SLACK_MIN = 5.0
"""So much longer than the best way is as good as it (rough, common practice, no source)."""


@dataclass(frozen=True, slots=True)
class Finding:
    """The tests that were done, with their results, and what was named in the end."""

    done: tuple[tuple[str, str], ...] = ()
    named: str = ""


def begin(task: Task) -> Finding:
    """Nothing was tested yet."""
    return Finding()


def act(task: Task, state: Finding, action: Mapping[str, Any]) -> Finding:
    """Do a test, or name what it is. Raises ValueError for a test or suspect that is not there."""
    data = data_of(task)
    match action["do"]:
        case "test":
            if data.test(action["test"]) is None:
                raise ValueError(f'expected a test of this machine, found "{action["test"]}"')
            if action["test"] in dict(state.done):
                return state
            return replace(state, done=(*state.done, (action["test"], result_of(task, action["test"]))))
        case "name":
            if action["suspect"] not in {each.id for each in data.suspects}:
                raise ValueError(f'expected a suspect of this machine, found "{action["suspect"]}"')
            return replace(state, named=action["suspect"])
    raise ValueError(f'expected "test", "name" or "done", found "{action["do"]}"')


def data_of(task: Task) -> RuleOut:
    """What the family knows of faults."""
    assert task.boards.rule_out is not None  # checked when the task was made
    return task.boards.rule_out


def symptoms_of(task: Task) -> dict[str, bool]:
    """What the machine shows: drawn by how likely its fault makes each; it shows one thing at least."""
    data, rng = data_of(task), task.rng("symptoms")
    said = {each.id: rng.random() < each.likelihoods[task.suspect] for each in data.symptoms}
    if not any(said.values()) and data.symptoms:
        said[max(data.symptoms, key=lambda each: each.likelihoods[task.suspect]).id] = True
    return said


def result_of(task: Task, test: str) -> str:
    """What a test of this machine shows, however often it is done."""
    found = data_of(task).test(test)
    assert found is not None  # callers looked
    weights = [each.likelihoods[task.suspect] for each in found.results]
    return task.rng(f"test {test}").choices([each.id for each in found.results], weights)[0]


def shown(task: Task, state: Finding) -> dict[str, Any]:
    """What the machine shows, the tests with what they cost and risk, and what those done have shown."""
    data = data_of(task)
    done = dict(state.done)
    return {
        "symptoms": [each.title for each in data.symptoms if symptoms_of(task)[each.id]],
        "tests": [
            {
                "id": each.id, "title": each.title, "minutes": each.minutes, "risk": each.risk, "how": list(each.how),
                "expected": each.expected,
                "result": next((r.title for r in each.results if r.id == done.get(each.id)), ""),
            }
            for each in data.tests
        ],
        "suspects": [{"id": each.id, "title": each.title} for each in data.suspects],
        "named": state.named,
        "minutes": minutes_of(data, state.done),
    }  # fmt: skip


def minutes_of(data: RuleOut, done: tuple[tuple[str, str], ...]) -> float:
    """What these tests take on a real machine."""
    return sum(test.minutes for name, _ in done if (test := data.test(name)) is not None)


def best_way(task: Task) -> tuple[tuple[str, str], ...]:
    """The tests in the order that tells most for its minutes, until they say whether it is the board."""
    done: list[tuple[str, str]] = []
    while True:
        standing = standing_of(task, done)
        following = next_tests(data_of(task), standing, [test for test, _ in done])
        if standing.conclusion != "open" or not following:
            return tuple(done)
        test = following[0].test.id
        done.append((test, result_of(task, test)))


def standing_of(task: Task, done: Sequence[tuple[str, str]]) -> Standing:
    """Where the suspicion stands after these tests, from what the machine shows alone."""
    return stand(data_of(task), Report(symptoms_of(task)), [Done(test, result) for test, result in done])


def is_told(task: Task) -> bool:
    """Whether the best way says what it is: of some machines the tests say otherwise, and nobody could know better."""
    found = standing_of(task, best_way(task))
    blames = "condemned" if task.suspect == BOARD else "cleared"
    return found.conclusion == blames and found.weights[task.suspect] > EVEN


def outcome(task: Task, state: Finding) -> Outcome:
    """Whether the board was blamed rightly, what it was, and what the tests took beside the best way."""
    data, best = data_of(task), best_way(task)
    took, least = minutes_of(data, state.done), minutes_of(data, best)
    title = {each.id: each.title for each in data.suspects} | {"": "nothing"}
    board = "the board" if task.suspect == BOARD else "not the board"
    said = "the board" if state.named == BOARD else "nothing" if not state.named else "not the board"
    right = task.suspect == state.named
    # who names it before the tests tell has guessed, however right
    tested = standing_of(task, state.done).conclusion != "open"
    rows = [
        Row("whether it is the board", board, said, board == said, "find"),
        Row("what it is", title[task.suspect], title[state.named], right, "find"),
        Row("tested until it is clear", "yes", "yes" if tested else "no", tested, "find"),
        Row("minutes of tests", least, took, right and tested and took <= least + SLACK_MIN, "shortest way"),
    ]
    live = [name for name, _ in state.done if (test := data.test(name)) and test.risk == "live"]
    told: list[tuple[str, dict[str, Any]]] = [("best way", {"tests": [_title(data, name) for name, _ in best]})]
    if live and not any(_risk(data, name) == "live" for name, _ in best):
        told.append(("live without need", {"tests": [_title(data, name) for name in live]}))
    return Outcome(tuple(rows), told=tuple(told))


def _title(data: RuleOut, name: str) -> str:
    found = data.test(name)
    return found.title if found else name


def _risk(data: RuleOut, name: str) -> str:
    found = data.test(name)
    return found.risk if found else ""
