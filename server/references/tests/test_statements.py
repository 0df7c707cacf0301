import csv
import io
import json
from typing import Any

from catalogue.tests.test_queries import QueryCounts
from jobs.tests.world import WorldTestCase
from references import actions, contradicting
from references.models import Contradiction, Statement
from references.queries import lookup_from
from twincore.choose import find_ways, parse_statements
from twincore.errors import DocumentError


class Statements(WorldTestCase):
    def setUp(self) -> None:
        self.sign_in("corm")

    def test_the_demo_world_has_its_contradictions_listed(self) -> None:
        page = self.get("contradictions?size=100")
        kinds = {each["kind"] for each in page["items"]}
        self.assertEqual(kinds, {"both ways", "cycle", "two successors"})
        ring = next(each for each in page["items"] if each["kind"] == "cycle" and "TVH-2420-A" in each["boards"])
        self.assertEqual({s["relation"] for s in ring["statements"]}, {"supersedes"})

    def test_withdrawing_settles_a_contradiction_and_can_be_undone(self) -> None:
        wrong = Statement.objects.get(original="TVH-2424-A", replacement="TVH-2420-A")
        self.post(f"statements/{wrong.code}/withdraw", {"reason": "  "}, 422)
        shown = self.post(f"statements/{wrong.code}/withdraw", {"reason": "typed the wrong way round"})
        self.assertEqual(shown["withdrawn_because"], "typed the wrong way round")
        self.assertFalse(Contradiction.objects.filter(kind="cycle", boards__contains=["TVH-2424-A"]).exists())
        contradicting.find_again()
        self.assertFalse(Contradiction.objects.filter(kind="cycle", boards__contains=["TVH-2424-A"]).exists())
        self.assertEqual(self.get("statements?withdrawn=true")["total"], 1)
        self.post(f"statements/{wrong.code}/restore", {})
        contradicting.find_again()
        self.assertTrue(Contradiction.objects.filter(kind="cycle", boards__contains=["TVH-2424-A"]).exists())

    def test_a_technician_may_look_and_not_change(self) -> None:
        self.sign_in("wennick")
        self.assertGreater(self.get("statements")["total"], 240)
        self.post("statements/oven-001/withdraw", {"reason": "no"}, 403)
        self.post("statements/oven-001/restore", {}, 403)

    def test_statements_are_found_by_board_and_relation(self) -> None:
        found = self.get("statements?board=tvh-2210-b&relation=universal")["items"]
        self.assertEqual({each["replacement"] for each in found}, {"OFN-U3", "OFN-U5", "OFN-L1"})
        self.post("statements/none/withdraw", {"reason": "x"}, 404)

    def test_what_may_stand_in_for_a_board_is_listed_over_chains_too_and_never_what_must_not(self) -> None:
        found = {each["part_number"]: each for each in self.get("stand-ins/TVH-2210-B?size=100")["items"]}
        said = parse_statements(b"".join(self.client.get("/api/statements.json").streaming_content))
        ways = find_ways(
            "TVH-2210-B", lambda boards: [s for s in said if {*s.originals, s.original, s.replacement} & {*boards}], {}
        )
        known = set(self.boards_of_the_catalogue())
        self.assertEqual(set(found), {name for name, way in ways.to.items() if way.forbidden is None} & known)
        self.assertTrue(any(each["links"] > 1 for each in found.values()))
        self.assertTrue(any(way.forbidden for way in ways.to.values()), "nothing is left out in this example")
        kits = self.get("stand-ins/TVH-2210-B?maker=Omnifen")["items"]
        self.assertEqual(
            {each["part_number"] for each in kits}, {n for n, e in found.items() if e["maker"] == "Omnifen"}
        )

    def boards_of_the_catalogue(self) -> list[str]:
        return [each["part_number"] for page in (1, 2, 3) for each in self.get(f"boards?size=100&page={page}")["items"]]

    def test_a_board_that_no_statement_names_has_no_stand_in(self) -> None:
        self.assertEqual(self.get("stand-ins/NOBODY-1")["total"], 0)

    def test_what_goes_out_comes_in_again_the_same(self) -> None:
        document = b"".join(self.client.get("/api/statements.json").streaming_content)  # type: ignore[attr-defined]
        self.assertEqual(len(parse_statements(document)), Statement.objects.count())
        text = b"".join(self.client.get("/api/statements.csv").streaming_content).decode()  # type: ignore[attr-defined]
        rows = list(csv.DictReader(io.StringIO(text)))
        self.assertEqual(len(rows), Statement.objects.count())
        before = list(Statement.objects.order_by("code").values())
        self.assertEqual(actions.load_statements(None, document), len(rows))
        after = list(Statement.objects.order_by("code").values())
        self.assertEqual(before, after)

    def test_a_faulty_document_is_refused_whole(self) -> None:
        count = Statement.objects.count()
        bad: dict[str, Any] = {"format": "worthy-twin/statements", "version": 1, "statements": [
            {"id": "new-1", "original": ["A"], "replacement": ["B"], "relation": "same"},
            {"id": "new-2", "original": ["A"], "replacement": ["A"], "relation": "same"}]}  # fmt: skip
        with self.assertRaises(DocumentError):
            actions.load_statements(None, json.dumps(bad).encode())
        self.assertEqual(Statement.objects.count(), count)

    def test_the_level_wise_lookup_leads_where_a_plain_one_does(self) -> None:
        rows = parse_statements(b"".join(self.client.get("/api/statements.json").streaming_content))  # type: ignore[attr-defined]

        def plain(boards: Any) -> Any:
            return [s for s in rows if set(boards) & {*s.originals, s.original, s.replacement}]

        for original in ("TVH-2205", "UMC 40-101", "QN4-001", "QN5-0011", "MGT-80-A", "ISB 290"):
            with self.subTest(original):
                one, other = (find_ways(original, each, {}) for each in (lookup_from(original), plain))
                self.assertEqual(set(one.to), set(other.to))
                self.assertEqual(
                    {n: w.statements for n, w in one.to.items()}, {n: w.statements for n, w in other.to.items()}
                )

    def test_a_line_of_a_leaflet_is_added_by_the_lead_with_its_conditions(self) -> None:
        given = {"original": "TVH-2205", "replacement": "TVH-2214-A", "relation": "supersedes",
                 "when": "made>=2001; fuel=gas|oil", "needs": "lead B; spacer", "source": "Leaflet 30, page 2"}  # fmt: skip
        self.sign_in("wennick")
        self.post("statements", given, 403)
        self.sign_in("corm")
        added = self.post("statements", given)
        self.assertEqual(added["conditions"], {"made": {"from": 2001}, "fuel": ["gas", "oil"]})
        self.assertEqual((added["needs"], added["source"]), (["lead B", "spacer"], "Leaflet 30, page 2"))
        self.assertIn(added["id"], [each["id"] for each in self.get("statements?board=TVH-2205")["items"]])
        faults = self.post("statements", {**given, "when": "made lately"}, 422)["faults"]
        self.assertEqual(faults[0]["place"], "if")
        self.post("statements", {**given, "relation": "cousin"}, 422)


class Queries(QueryCounts):
    def test_lists_take_a_fixed_number_of_queries(self) -> None:
        self.counted(4, "statements?size=100")
        self.counted(5, "contradictions")
        self.counted(4, "imports")
