from dataclasses import replace
from datetime import date
from typing import Any

import networkx
from django.test import SimpleTestCase
from hypothesis import given
from hypothesis import strategies as st
from scipy.stats import beta

from tests.builders import encoded
from twincore.choose import Statement, as_json, as_row, find_ways, from_row, parse_statements
from twincore.choose.contradictions import contradictions
from twincore.choose.credence import credence
from twincore.errors import DocumentError


def say(relation: str, original: str, replacement: str, **more: Any) -> Statement:
    name = more.pop("id", f"{original}>{replacement}:{relation}")
    return Statement(
        name, tuple(original.split("+")), tuple(replacement.split("+")), relation, **{"source": "leaflet", **more}
    )


def ways(statements: list[Statement], facts: dict[str, Any] | None = None, day: date | None = None) -> Any:
    return find_ways(
        "A", lambda boards: [s for s in statements if {*s.originals, *s.replacements} & set(boards)], facts or {}, day
    )


class Documents(SimpleTestCase):
    STATEMENT = say(
        "kit", "A", "K", conditions={"stages": 1, "made": {"from": 2001, "to": 2005}, "fuel": ["gas", "oil"], "damper": True},
        needs=("lead E", "knob"), companions=("probe",), words="With the lead.", dated="2021-03-04",
        valid_from="2020-01-01", valid_to="2030-12-31", cost=12.5, days=3.0, worked=4, failed=1,
    )  # fmt: skip

    def test_json_and_csv_keep_everything(self) -> None:
        document = {"format": "worthy-twin/statements", "version": 1, "statements": [as_json(self.STATEMENT)]}
        self.assertEqual(parse_statements(encoded(document)), (self.STATEMENT,))
        self.assertEqual(from_row(as_row(self.STATEMENT)), self.STATEMENT)
        pair = say("same", "A", "B+C")
        self.assertEqual(from_row(as_row(pair)), pair)

    def test_a_name_that_bears_the_mark_between_names_stays_one(self) -> None:
        """Defect: a pair that has a number of its own, with a + in it, came back from a table as two boards."""
        pair = say("same", "A", "B")
        for name in ("OFN-M1 + OFN-D1", "A+B", '5" panel', '"K" + L', "a; b", " K ", '""'):
            for of in (replace(pair, replacements=(name,)), replace(pair, originals=("C", name, "D")),
                       replace(pair, needs=("lead", name), companions=(name,))):  # fmt: skip
                with self.subTest(name=name, of=of):
                    self.assertEqual(from_row(as_row(of)), of)
        self.assertEqual(from_row({**as_row(pair), "replacement": "B + C"}).replacements, ("B", "C"))

    def test_conditions_that_say_the_same_are_read_as_the_same(self) -> None:
        """Defect: a range without ends, and one of one value, came back from a table as something else."""
        node = {**as_json(say("same", "A", "B")), "if": {"made": {}, "fuel": ["gas"], "stages": {"from": 2}}}
        document = {"format": "worthy-twin/statements", "version": 1, "statements": [node]}
        (read,) = parse_statements(encoded(document))
        self.assertEqual(read.conditions, {"fuel": "gas", "stages": {"from": 2}})
        self.assertEqual(from_row(as_row(read)), read)

    def test_a_bad_row_names_its_columns(self) -> None:
        row = {"id": "", "original": "A", "replacement": "A", "relation": "cousin", "if": "made>>2", "cost": "-1",
               "worked": "1.5", "date": "2021-13-01"}  # fmt: skip
        with self.assertRaises(DocumentError) as caught:
            from_row(row)
        self.assertEqual({f.place for f in caught.exception.faults}, {"id", "relation", "if", "cost", "worked", "date"})
        with self.assertRaises(DocumentError):
            from_row({"id": "x", "original": "A", "replacement": "A", "relation": "same"})
        with self.assertRaises(DocumentError) as caught:
            from_row(
                {
                    "id": "x",
                    "original": "A",
                    "replacement": "B",
                    "relation": "same",
                    "words": "a\x00b",
                    "source": "s" * 2001,
                }
            )
        self.assertEqual({f.place for f in caught.exception.faults}, {"words", "source"})


class Ways(SimpleTestCase):
    def test_direction_counts(self) -> None:
        self.assertEqual(ways([say("supersedes", "B", "A")]).to, {})
        self.assertEqual(set(ways([say("same", "B", "A")]).to), {"B"})

    def test_a_chain_gathers_conditions_and_needs(self) -> None:
        chain = [
            say("supersedes", "A", "B", conditions={"made": {"to": 2005}}, needs=("lead",)),
            say("same", "C", "B"),
            say("supersedes", "C", "D", conditions={"damper": True}, needs=("lead", "knob")),
        ]
        way = ways(chain, {"made": 2001}).to["D"]
        self.assertEqual([link.target for link in way.links], ["B", "C", "D"])
        self.assertEqual((way.missing, way.needs), (("damper",), ("lead", "knob")))
        self.assertAlmostEqual(way.mean, 0.8**3)
        self.assertEqual(ways(chain, {"made": 2010}).to, {})
        self.assertEqual([each.id for each in ways(chain, {"made": 2010}).elsewhere], ["A>B:supersedes"])

    def test_a_universal_board_is_no_link_of_a_chain(self) -> None:
        found = ways([say("universal", "A", "U"), say("supersedes", "U", "V"), say("same", "A", "A2"), say("universal", "A2", "W"),
                      say("supersedes", "A", "B"), say("universal", "B", "X")])  # fmt: skip
        self.assertEqual(set(found.to), {"U", "A2", "W", "B"})

    def test_not_exchangeable_between_any_two_boards_ends_a_way_and_another_way_serves(self) -> None:
        chain = [say("supersedes", "A", "B"), say("supersedes", "B", "C"), say("not exchangeable", "A", "C")]
        self.assertIsNotNone(ways(chain).to["C"].forbidden)
        middle = [
            say("supersedes", "A", "B"),
            say("supersedes", "B", "C"),
            say("supersedes", "C", "D"),
            say("not exchangeable", "B", "D"),
        ]
        self.assertIsNotNone(ways(middle).to["D"].forbidden)
        self.assertIsNone(ways([*middle, say("supersedes", "A", "D", source="")]).to["D"].forbidden)
        hangs = [say("supersedes", "A", "B"), say("not exchangeable", "A", "B", conditions={"fuel": "oil"})]
        self.assertIsNotNone(ways(hangs).to["B"].perhaps_forbidden)
        self.assertIsNone(ways(hangs, {"fuel": "gas"}).to["B"].perhaps_forbidden)
        self.assertIsNotNone(ways(hangs, {"fuel": "oil"}).to["B"].forbidden)

    def test_validity_other_ways_out_and_rings(self) -> None:
        old = say("supersedes", "A", "B", valid_to="2010-01-01")
        self.assertEqual(set(ways([old], day=date(2026, 1, 1)).to), set())
        self.assertEqual(set(ways([old], day=date(2009, 1, 1)).to), {"B"})
        found = ways([say("repair", "A", "A"), say("supersedes", "A", "B"), say("supersedes", "B", "A")])
        self.assertEqual(([each.relation for each in found.others], set(found.to)), (["repair"], {"B"}))

    @given(
        st.lists(
            st.tuples(st.sampled_from("ABCDEF"), st.sampled_from("ABCDEF")).filter(lambda p: p[0] != p[1]), max_size=14
        )
    )
    def test_reachability_is_that_of_a_graph_library(self, edges: list[tuple[str, str]]) -> None:
        graph = networkx.DiGraph([*edges, ("A", "A")])
        found = ways([say("supersedes", a, b) for a, b in dict.fromkeys(edges)])
        self.assertEqual(set(found.to), set(networkx.descendants(graph, "A")))
        lengths = networkx.single_source_shortest_path_length(graph, "A")
        self.assertEqual(
            {name: len(way.links) for name, way in found.to.items()},
            {name: length for name, length in lengths.items() if name != "A"},
        )


class Worth(SimpleTestCase):
    def test_beta_posterior_is_that_of_a_statistics_library(self) -> None:
        for worked, failed, source in ((0, 0, False), (10, 1, True), (3, 9, True)):
            found = credence(worked, failed, source)
            reference = beta((4 if source else 2) + worked, 1 + failed)
            self.assertAlmostEqual(found.mean, reference.mean())
            self.assertAlmostEqual(found.low, reference.ppf(0.05))
            self.assertAlmostEqual(found.high, reference.ppf(0.95))

    def test_a_pairing_that_worked_ten_times_outweighs_one_that_was_only_listed(self) -> None:
        found = ways([say("supersedes", "A", "B"), say("supersedes", "A", "C", worked=10)])
        self.assertGreater(found.to["C"].mean, found.to["B"].mean)
        self.assertGreater(found.to["B"].mean, ways([say("supersedes", "A", "B", source="")]).to["B"].mean)


class Contradictions(SimpleTestCase):
    def kinds(self, *statements: Statement) -> list[str]:
        return [each.kind for each in contradictions(statements)]

    def test_what_cannot_all_be_true_is_found(self) -> None:
        self.assertEqual(self.kinds(say("supersedes", "A", "B"), say("not exchangeable", "A", "B")), ["both ways"])
        self.assertEqual(self.kinds(say("same", "B", "A"), say("not exchangeable", "A", "B")), ["both ways"])
        self.assertEqual(self.kinds(say("supersedes", "A", "B"), say("supersedes", "A", "C")), ["two successors"])
        ring = contradictions([say("supersedes", "A", "B"), say("supersedes", "B", "C"), say("supersedes", "C", "A")])
        self.assertEqual([(each.kind, len(each.statements)) for each in ring], [("cycle", 3)])

    def test_conditions_and_days_that_exclude_each_other_are_none(self) -> None:
        for one, other in (
            ({"made": {"to": 2004}}, {"made": {"from": 2005}}), ({"fuel": "gas"}, {"fuel": ["oil", "wood"]}),
            ({"made": 2001}, {"made": {"from": 2005}}),
        ):  # fmt: skip
            pair = [say("supersedes", "A", "B", conditions=one), say("supersedes", "A", "C", conditions=other)]
            self.assertEqual(self.kinds(*pair), [])
        self.assertEqual(
            self.kinds(
                say("supersedes", "A", "B", valid_to="2010-01-01"), say("supersedes", "A", "C", valid_from="2010-01-02")
            ),
            [],
        )
        self.assertEqual(
            self.kinds(
                say("supersedes", "A", "B", conditions={"made": {"to": 2005}}),
                say("supersedes", "A", "C", conditions={"damper": True}),
            ),
            ["two successors"],
        )
