"""Certificates that nobody searched for, drawn freely: a checker that takes one of them for boards that differ is wrong."""

from itertools import product
from random import Random
from typing import Any


class FreeMade:
    """Places that nobody searched for: drawn at random, from nearly everything to nearly nothing."""

    def __init__(self, rng: Random, family: dict[str, Any], boards: list[dict[str, Any]]) -> None:
        self.rng = rng
        self.machines = [board["behaviour"].get("machines", [board["behaviour"]]) for board in boards]
        self.inputs = [each["id"] for each in family["inputs"] if not each.get("level") and each["id"] != "power"]
        self.generous = rng.random()
        self.names = [""]
        for side, board, machines in zip(("original", "replacement"), boards, self.machines, strict=True):
            behaves = board["behaviour"]
            self.names += [f"{side}/state {number + 1}" for number in range(len(machines))]
            self.names += [f"{side}/clock {each['id']}" for each in behaves.get("clocks", ())]
            self.names += [f"{side}/count {each['id']}" for each in behaves.get("counters", ())]

    def places(self) -> list[dict[str, Any]]:
        every = product(*(machine["states"] for machines in self.machines for machine in machines))
        cut = len(self.machines[0])
        found = [
            {"original": list(states[:cut]), "replacement": list(states[cut:]), "power": power, **self.where()}
            for states in list(every)[:200]
            for power in (True, False)
            if self.rng.random() < self.generous + 0.2
        ]
        return found or [
            {"original": ["s0"] * cut, "replacement": ["s0"] * len(self.machines[1]), "power": True, "ages": []}
        ]

    def where(self) -> dict[str, Any]:
        rng = self.rng
        told: dict[str, Any] = {}
        if rng.random() > self.generous:
            told["inputs"] = [
                {name: rng.random() < 0.5 for name in self.inputs if rng.random() < 0.5} for _ in range(2)
            ]
        bounds = [] if rng.random() < self.generous else [self.bound() for _ in range(rng.randrange(3))]
        return {**told, "ages": bounds}

    def bound(self) -> list[Any]:
        one, other = self.rng.sample(self.names, 2)
        return (
            [one, other]
            if self.rng.random() < 0.6
            else [one, other, self.rng.choice([0, 1, 2, -1]), self.rng.random() < 0.5]
        )
