"""A general automata library as judge: the boards with small timers as plain machines over ticks and input changes."""

from itertools import count
from random import Random
from typing import Any

from automata.fa.dfa import DFA
from django.test import SimpleTestCase

from tests import random_boards
from tests.builders import twin_of
from tests.tick_search import Plain, Settles
from twincore import behaviour
from twincore.errors import DocumentError, EndlessLoopError


def as_automaton(
    family: dict[str, Any], board: dict[str, Any], values: dict[str, Any], output: str, ticks: int = 4, most: int = 3000
) -> DFA | None:
    """All words of ticks and input changes after which an output is on; None past `most` states."""
    plain = Plain(board, values, ticks)
    names = [each["id"] for each in family["inputs"]]
    rest = {name: family.get("rest", {}).get(name, name == "power") for name in names}
    start = (tuple(rest.values()), plain.settle(plain.start(), rest))
    numbers, fresh = {start: 0}, count(1)
    transitions: dict[int, dict[str, int]] = {}
    final = set()
    waiting = [start]
    while waiting:
        here = waiting.pop()
        inputs = dict(zip(names, here[0], strict=True))
        if output in plain.on(here[1], inputs):
            final.add(numbers[here])
        ways = {"tick": (here[0], plain.tick(here[1], inputs))}
        for name in names:
            changed = inputs | {name: not inputs[name]}
            config = plain.power(here[1], changed) if name == "power" else here[1]
            ways[name] = (tuple(changed.values()), plain.settle(config, changed))
        for target in ways.values():
            if target not in numbers:
                numbers[target] = next(fresh)
                waiting.append(target)
        if len(numbers) > most:
            return None
        transitions[numbers[here]] = {letter: numbers[target] for letter, target in ways.items()}
    return DFA(
        states=set(numbers.values()), input_symbols={"tick", *names}, transitions=transitions, initial_state=0,
        final_states=final,
    )  # fmt: skip


class AgainstAutomata(SimpleTestCase):
    def test_equal_languages_exactly_where_in_register(self) -> None:
        met = {True: 0, False: 0}
        for seed in range(500, 620):
            rng = Random(seed)
            family = random_boards.family_document(rng)
            family["inputs"], family["outputs"] = (
                [{"id": "power"}, {"id": "a"}],
                [{"id": name} for name in random_boards.OUTPUTS],
            )
            family.pop("never_together", None)
            one = random_boards.board_document(rng, family, "A")
            other = random_boards.changed_copy(rng, one, "B")
            try:
                twin = twin_of(family, [one, other])
                proof = behaviour.prove(twin)
                pairs = [
                    [as_automaton(family, board, dict(values), output) for board, values in zip((one, other), twin.values, strict=True)]
                    for output in random_boards.OUTPUTS
                ]  # fmt: skip
            except (DocumentError, EndlessLoopError, Settles):
                continue
            if any(dfa is None for pair in pairs for dfa in pair):
                continue
            if proof.endless:
                continue
            equal = all(a == b for a, b in pairs)
            self.assertEqual(proof.verdict == "identical", equal, seed)
            met[equal] += 1
            if sum(met.values()) > 40:
                break
        self.assertGreater(min(met.values()), 5)
