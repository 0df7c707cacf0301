"""Lists as files, and who serves whom."""

from typing import Any

from django.db import connection
from django.test.utils import CaptureQueriesContext
from django.utils import timezone

from jobs.tests.world import WorldTestCase
from people.models import Depot
from stock.judging import judge_all
from stock.models import Held, Judged, Moved, Priced, Served


class Files(WorldTestCase):
    def setUp(self) -> None:
        self.sign_in("corm")

    def send(self, name: str, text: str, status: int = 200) -> Any:
        return self.answer(self.client.post(f"/api/stock/{name}", text.encode(), content_type="text/csv"), status)

    def taken_away(self, name: str) -> str:
        answer = self.client.get(f"/api/stock/{name}.csv")
        return b"".join(answer.streaming_content).decode()  # type: ignore[attr-defined]

    def test_every_list_that_is_taken_away_comes_in_again_as_it_was(self) -> None:
        self.send(
            "served", "van,board,machines,fact.outdoors,fact.volts\nBlue van,TVH-2205,3,yes,230.5\nHill van,=x,1,,\n"
        )
        for name in ("served", "pieces", "held"):
            text = self.taken_away(name)
            self.send(name, text.replace("'=x", "=x"))
            self.assertEqual(self.taken_away(name), text)
        self.assertIn("'=x", self.taken_away("served"))
        self.assertEqual(Served.objects.get(board="TVH-2205").facts, {"outdoors": True, "volts": 230.5})

    def test_a_list_with_anything_wrong_in_it_changes_nothing(self) -> None:
        before = self.taken_away("served"), self.taken_away("held")
        told = self.send("served", "van,board,machines\nBlue van,A,1\nBleu van,B,2\nHill van,C,-1\n", 422)
        self.assertIn("machines", told["faults"][0]["place"])
        told = self.send("served", "van,board,machines\nBlue van,A,1\nBleu van,B,2\n", 422)
        self.assertEqual(told["faults"][0]["place"], "row 2, van")
        self.assertIn("Blue van, Grey van", told["faults"][0]["expected"])
        self.send("held", "van,piece,count\nnobody,A,1\n", 422)
        self.assertEqual((self.taken_away("served"), self.taken_away("held")), before)

    def test_a_list_of_shelves_takes_the_place_of_what_was_counted_and_says_so_in_their_history(self) -> None:
        self.send("held", "van,piece,count\nBlue van,OFN-U3,2\nBlue van,OFN-U3,1\n")
        self.assertEqual([(each.piece, each.count) for each in Held.objects.filter(count__gt=0)], [("OFN-U3", 3)])
        moved = Moved.objects.filter(why="from a list", van__name="Hill van", change__lt=0)
        self.assertEqual(moved.count(), 3)

    def test_prices_that_are_not_in_a_file_stay(self) -> None:
        count = Priced.objects.count()
        self.send("pieces", "piece;cost;size\nNEW-1;12,50;2\nOFN-U3;99;1\n")
        self.assertEqual(Priced.objects.count(), count + 1)
        self.assertEqual(Priced.objects.get(piece="OFN-U3").cost, 99)

    def test_prices_are_taken_away_to_the_last_digit(self) -> None:
        """A defect: 12345.67 was written as 12345.7."""
        for price in ("12345.67", "1234567.89", "0.1", "100000"):
            self.send("pieces", f"piece,cost,size,most\nOFN-U3,{price},1.25,3\n")
            self.assertIn(f"OFN-U3,{price},1.25,3", self.taken_away("pieces"))

    def test_only_the_lead_brings_lists_in(self) -> None:
        self.sign_in()
        for name in ("served", "pieces", "held"):
            self.send(name, "van,board,machines\n", 403)
        self.get("stock/served")

    def test_machines_of_one_van_or_one_board(self) -> None:
        self.assertEqual(self.get("stock/served?board=TVH-2210")["total"], 6)
        van = Served.objects.filter(van__name="Hill van")[0].van_id
        self.assertEqual(self.get(f"stock/served?van={van}")["total"], 16)


class WhoServesWhom(WorldTestCase):
    def setUp(self) -> None:
        self.sign_in("corm")
        self.depot = Depot.objects.get(code="SQ")

    def judge(self) -> list[float]:
        told: list[float] = []
        judge_all(self.depot, Served.objects.filter(van__depot=self.depot), timezone.now, told.append)
        return told

    def test_kinds_are_judged_once_and_again_when_a_board_changes(self) -> None:
        told = self.judge()
        self.assertEqual((told[0], told[-1], told == sorted(told)), (0.0, 1.0, True))
        first = {each.pk: each.at for each in Judged.objects.all()}
        self.judge()
        self.assertEqual({each.pk: each.at for each in Judged.objects.all()}, first)
        self.depot.change_companions = not self.depot.change_companions
        self.depot.save()
        self.judge()
        self.assertTrue(all(each.at > first[each.pk] for each in Judged.objects.filter(known=True)))

    def test_grades_are_those_of_choose(self) -> None:
        self.judge()
        grades = Judged.objects.get(board="TVH-2210-B").grades
        # what is forbidden, or told apart by the twin check, serves nothing; what nobody could prove is only listed
        self.assertEqual((grades["TVH-2210-B"], grades["TVH-2210-C"]), ("proved", "proved"))
        self.assertEqual(grades["OFN-K2"], "listed")
        self.assertFalse({"TVH-2210-X", "OFN-U3"} & set(grades))
        self.assertEqual(Judged.objects.get(board="QN4-001").grades, {})

    def test_the_picture_stands_in_the_order_of_the_cover(self) -> None:
        shown = self.get("stock/matrix")
        self.assertEqual((shown["grades"], shown["pieces"], shown["judged_at"]), ([], [], None))
        self.assertEqual(shown["unjudged"], len(shown["kinds"]))
        self.judge()
        with CaptureQueriesContext(connection) as asked:
            shown = self.get("stock/matrix")
        self.assertLessEqual(len(asked), 12)
        self.assertEqual(shown["unjudged"], 0)
        first = [each["kind"] for each in shown["grades"] if each["piece"] == 0 and each["grade"] != "listed"]
        self.assertEqual(sorted(first), list(range(len(first))))
        proved = {each["piece"] for each in shown["grades"] if each["grade"] != "listed"}
        self.assertEqual(proved, set(range(len(proved))))
        self.sign_in("ildro")
        self.assertEqual(self.get("stock/matrix")["kinds"], [])
