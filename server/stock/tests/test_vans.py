"""Vans and their shelves: what comes and goes, what a count finds, who has a piece, and what closed jobs teach."""

from typing import Any
from uuid import UUID, uuid4

from django.db import connection
from django.test.utils import CaptureQueriesContext

from jobs.tests.world import NOW, WorldTestCase
from people.models import Person
from stock.actions import Exchanged, hear_of_closed_job
from stock.models import Held, Moved, Served, Van


class OnTheShelf(WorldTestCase):
    def setUp(self) -> None:
        self.sign_in()
        self.van = Van.objects.get(name="Blue van")

    def shelf(self) -> dict[str, int]:
        return {each["piece"]: each["count"] for each in self.get(f"stock/vans/{self.van.pk}")["items"]}

    def move(self, piece: str, change: int, status: int = 200, id: UUID | None = None) -> Any:
        body = {"id": str(id or uuid4()), "piece": piece, "change": change}
        return self.post(f"stock/vans/{self.van.pk}/moves", body, status)

    def count(self, pieces: dict[str, int], whole: bool = False, id: str = "", status: int = 200) -> Any:
        said = [{"piece": piece, "count": count} for piece, count in pieces.items()]
        body = {"id": id or str(uuid4()), "pieces": said, "whole": whole}
        return self.post(f"stock/vans/{self.van.pk}/counts", body, status)

    def test_ones_own_van_stands_first_with_what_is_in_it(self) -> None:
        shown = self.get("stock/vans")["items"]
        self.assertEqual([each["name"] for each in shown], ["Blue van", "Grey van", "Harbour van", "Hill van"])
        self.assertEqual((shown[0]["driver"], shown[0]["pieces"], shown[0]["machines"]), ("wennick", 4, 43))
        self.assertEqual(shown[0]["minutes"][str(Van.objects.get(name="Harbour van").pk)], 25)

    def test_what_is_sent_twice_comes_onto_the_shelf_once(self) -> None:
        id = uuid4()
        self.assertEqual(self.move("OFN-U3", 1, id=id)["count"], 2)
        self.assertEqual(self.move("OFN-U3", 1, id=id)["count"], 2)
        self.assertEqual(self.shelf()["OFN-U3"], 2)
        self.move("OFN-U5", 1, 400, id)

    def test_nobody_takes_out_what_is_not_there(self) -> None:
        self.move("OFN-U3", -1)
        self.assertIn("Count the shelf", self.move("OFN-U3", -1, 400)["detail"])
        self.assertNotIn("OFN-U3", self.shelf())
        self.assertIn("part number", self.move("  ", 1, 422)["detail"])

    def test_a_count_of_the_whole_shelf_tells_what_was_written_down_otherwise(self) -> None:
        id = str(uuid4())
        counted = {"OFN-U3": 2, "TVH-2210-C": 1, "QN7-0043": 1, "OFN-S1": 1}
        told = self.count(counted, whole=True, id=id)
        self.assertEqual(
            [(each["piece"], each["was"], each["now"]) for each in told],
            [("OFN-S1", 0, 1), ("OFN-U3", 1, 2), ("UMC 40-118/2", 1, 0)],
        )
        self.assertEqual(self.shelf(), counted)
        again = self.count(counted, whole=True, id=id)
        self.assertEqual(sorted(each["piece"] for each in again), ["OFN-S1", "OFN-U3", "UMC 40-118/2"])
        self.assertEqual(Moved.objects.filter(van=self.van, why="counted").count(), 3)

    def test_a_count_of_some_pieces_leaves_the_others(self) -> None:
        self.assertEqual(self.count({"OFN-U3": 1}), [])
        self.assertEqual([each["piece"] for each in self.count({"OFN-U3": 0})], ["OFN-U3"])
        self.assertEqual(len(self.shelf()), 3)

    def test_the_history_says_who_and_how_many_were_left(self) -> None:
        self.move("OFN-U5", 2)
        self.move("OFN-U5", -1)
        last, before, *_ = self.get(f"stock/vans/{self.van.pk}/moves")["items"]
        self.assertEqual((last["change"], last["left"], last["why"], last["by"]), (-1, 1, "taken out", "Wennick Tarl"))
        self.assertEqual(before["why"], "put in")

    def test_a_piece_is_in_ones_own_van_first_then_in_the_nearest(self) -> None:
        found = self.get("stock/whereabouts?piece=OFN-U3&piece=QN7-0043&piece=nothing")
        there = [(each["piece"], each["name"], each["mine"], each["minutes"]) for each in found]
        self.assertEqual(there[:2], [("OFN-U3", "Blue van", True, None), ("QN7-0043", "Blue van", True, None)])
        self.assertEqual(there[2:], [("OFN-U3", "Grey van", False, 40), ("QN7-0043", "Hill van", False, 55)])
        self.sign_in("ildro")
        self.assertEqual(self.get("stock/whereabouts?piece=OFN-U3"), [])

    def test_another_depot_sees_no_van_of_this_one(self) -> None:
        self.sign_in("ildro")
        self.assertEqual(self.get("stock/vans")["total"], 0)
        for path in (f"stock/vans/{self.van.pk}", f"stock/vans/{self.van.pk}/moves"):
            self.get(path, 404)
        self.move("OFN-U3", 1, 404)
        self.count({"OFN-U3": 9}, status=404)
        self.assertEqual(Held.objects.get(van=self.van, piece="OFN-U3").count, 1)

    def test_a_shelf_and_the_list_of_vans_are_read_with_as_many_questions_however_long_they_are(self) -> None:
        def questions(path: str) -> int:
            with CaptureQueriesContext(
                connection,
            ) as asked:
                self.get(path)
            return len(asked)

        shelf, vans = f"stock/vans/{self.van.pk}?size=50", "stock/vans?size=50"
        before = questions(shelf), questions(vans)
        Held.objects.bulk_create(Held(van=self.van, piece=f"P-{n}", count=1) for n in range(30))
        Van.objects.bulk_create(Van(depot=self.van.depot, name=f"Van {n}") for n in range(20))
        self.assertEqual((questions(shelf), questions(vans)), before)
        self.assertLessEqual(max(before), 12)


class Vans(WorldTestCase):
    def setUp(self) -> None:
        self.sign_in("corm")
        self.given = {"id": str(uuid4()), "name": "Night van", "driver": "corm", "budget": 900, "shelf": 5}

    def test_a_van_is_added_once_changed_and_taken_off_again(self) -> None:
        other = str(Van.objects.get(name="Hill van").pk)
        self.post("stock/vans", {**self.given, "minutes": {other: 15}})
        added = self.post("stock/vans", self.given)
        self.assertEqual((added["driver_name"], added["minutes"]), ("Corm Haddle", {other: 15}))
        changed = self.put(f"stock/vans/{added['id']}", {**self.given, "name": "Day  van", "budget": None})
        self.assertEqual((changed["name"], changed["budget"]), ("Day van", None))
        self.client.delete(f"/api/stock/vans/{added['id']}")
        self.assertFalse(Van.objects.filter(name="Day van").exists())

    def test_what_cannot_be_is_refused_with_what_to_do(self) -> None:
        other = Van.objects.get(name="Blue van")
        for change, status, said in (
            ({"name": "Blue van"}, 400, "the name of another van"), ({"driver": "wennick"}, 400, "has a van already"),
            ({"driver": "ildro"}, 422, "nobody of this depot"), ({"minutes": {str(uuid4()): 5}}, 422, "no other van"),
            ({"name": "\t \n"}, 422, "letters that can be read"), ({"budget": -1}, 422, ""),
        ):  # fmt: skip
            refused = self.post("stock/vans", {**self.given, "id": str(uuid4()), **change}, status)
            self.assertIn(said, refused["detail"])
        answer = self.client.delete(f"/api/stock/vans/{other.pk}")
        self.assertEqual(answer.status_code, 400)
        self.assertIn("on its shelf", answer.json()["detail"])
        self.assertEqual(Van.objects.count(), 4)

    def test_only_the_lead_changes_vans(self) -> None:
        self.sign_in()
        self.post("stock/vans", self.given, 403)
        self.put(f"stock/vans/{Van.objects.all()[0].pk}", self.given, 403)


class ClosedJobs(WorldTestCase):
    def setUp(self) -> None:
        self.sign_in()
        self.van = Van.objects.get(name="Blue van")
        self.person = Person.objects.get(username="wennick")

    def hear(self, original: str, replacement: str, job: UUID | None = None, **facts: Any) -> None:
        hear_of_closed_job(self.person, job or uuid4(), "SQ-0099", [Exchanged(original, replacement, facts)], NOW)

    def row(self, board: str) -> tuple[int, float, float]:
        found = Served.objects.get(van=self.van, board=board)
        return found.machines, found.failed, found.years

    def test_the_board_comes_off_the_shelf_and_the_machine_has_another(self) -> None:
        job = uuid4()
        for _ in range(2):
            self.hear("TVH-2210-B", "OFN-U3", job)
        self.assertEqual(Held.objects.get(van=self.van, piece="OFN-U3").count, 0)
        used = Moved.objects.get(why="used")
        self.assertEqual((used.job, used.job_code, used.left), (job, "SQ-0099", 0))
        self.assertEqual(self.row("TVH-2210-B"), (1, 3, 10))
        self.assertEqual(self.row("OFN-U3"), (1, 0, 0))
        self.hear("OFN-U3", "TVH-2210-C")
        self.assertEqual(self.row("OFN-U3"), (0, 1, 1))

    def test_a_machine_that_nobody_listed_is_listed_with_what_is_known_of_it(self) -> None:
        self.hear("ISB 310", "ISB 312", supply=230)
        found = Served.objects.get(van=self.van, board="ISB 312")
        self.assertEqual((found.machines, found.facts), (1, {"supply": 230}))
        self.assertEqual(self.row("ISB 310"), (0, 1, 1))
        self.assertFalse(Moved.objects.filter(why="used").exists())

    def test_a_job_of_somebody_without_a_van_teaches_nothing(self) -> None:
        self.person = Person.objects.get(username="corm")
        self.hear("TVH-2210-B", "OFN-U3")
        self.assertEqual(self.row("TVH-2210-B"), (2, 2, 10))
