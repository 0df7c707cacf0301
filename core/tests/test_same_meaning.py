"""Two tables of one function mean the same, however they are split into rows: held against going through every position."""

import json
from random import Random
from typing import Any

from django.test import SimpleTestCase

from tests.test_settings import FUNCTIONS, all_positions, random_board, random_value, value_by_rows
from twincore import profile
from twincore.profile import Board
from twincore.profile.functions import same_meaning
from twincore.profile.values import same


class SameMeaning(SimpleTestCase):
    def split(self, rng: Random, board: Board, name: str) -> dict[str, Any]:
        """The table of a function with some of its rows split by a point that they do not name."""
        rows = []
        for row in board.document["functions"][name]["table"]:
            free = [point for point in board.points if point not in row["when"]]
            if free and rng.random() < 0.5:
                point = rng.choice(free)
                rows += [{**row, "when": {**row["when"], point: value}} for value in board.points[point].domain]
            else:
                rows.append(dict(row))
        rng.shuffle(rows)
        return {"table": rows}

    def test_agrees_with_going_through_every_position(self) -> None:
        met = {True: 0, False: 0}
        for seed in range(120):
            rng = Random(seed)
            board = random_board(rng, "A", 3, 2)
            for name in board.functions:
                document = json.loads(profile.dump(board.document))
                document["functions"][name] = node = self.split(rng, board, name)
                if rng.random() < 0.5:
                    changed = rng.choice(node["table"])
                    if rng.random() < 0.5 and len(node["table"]) > 1:
                        node["table"].remove(changed)
                    else:
                        changed["value"] = random_value(rng, next(each for each in FUNCTIONS if each["id"] == name))
                other = profile.parse_board(profile.dump(document).encode())
                at = all_positions(board)
                equal = all(same(value_by_rows(board, name, p), value_by_rows(other, name, p)) for p in at)
                said = same_meaning(board.functions[name], other.functions[name], board.points)
                self.assertEqual(said, equal, (seed, name))
                met[equal] += 1
        self.assertGreater(min(met.values()), 80)

    def test_what_is_fixed_is_what_a_table_gives_everywhere(self) -> None:
        document = json.loads(profile.dump(random_board(Random(1), "A", 2, 2).document))
        for node, equal in (
            ({"fixed": 3}, True), ({"fixed": 4}, False),
            ({"table": [{"when": {"S.1": "on"}, "value": 3}, {"when": {"S.1": "off"}, "value": 3}]}, True),
            ({"table": [{"when": {"S.1": "on"}, "value": 3}]}, False),
        ):  # fmt: skip
            document["functions"] = {"n1": {"fixed": 3}, "n2": node}
            board = profile.parse_board(profile.dump(document).encode())
            self.assertEqual(same_meaning(board.functions["n1"], board.functions["n2"], board.points), equal, node)
