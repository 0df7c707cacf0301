"""The choice of plugs and adapters by branch and bound, against HiGHS."""

import random

from django.test import SimpleTestCase

from twincore.heavy import load
from twincore.wiring.branching import pack_by_branching


class Packing(SimpleTestCase):
    def test_it_finds_what_highs_proves_best(self) -> None:
        by_solver = load("twincore.wiring.packing").pack
        for seed in range(150):
            chance = random.Random(seed)
            things = [f"thing {n}" for n in range(chance.randint(1, 6))]
            most = {name: chance.randint(0, 2) for name in things}
            count = chance.randint(1, 9)
            takes = [frozenset(chance.sample(things, chance.randint(1, min(3, len(things))))) for _ in range(count)]
            criteria = [[chance.randint(-5, 3) for _ in takes] for _ in range(2)] + [list(range(count))]
            with self.subTest(seed):
                mine = pack_by_branching(takes, most, criteria)
                assert mine is not None
                self.assertEqual(_sums(mine, criteria), _sums(by_solver(takes, most, criteria), criteria))
                for name in things:
                    self.assertLessEqual(sum(name in takes[index] for index in mine), most[name])

    def test_it_gives_up_where_there_is_too_much_to_look_at(self) -> None:
        takes = [frozenset({f"thing {n % 30}", f"thing {n * 7 % 31}"}) for n in range(60)]
        self.assertIsNone(pack_by_branching(takes, {f"thing {n}": 1 for n in range(31)}, [[-1] * 60, list(range(60))]))


def _sums(taken: list[int], criteria: list[list[int]]) -> list[int]:
    return [sum(each[index] for index in taken) for each in criteria]
