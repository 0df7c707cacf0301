"""Plans: worked out in the background, stopped, taken, and said what is missing."""

from collections.abc import Iterator
from datetime import datetime, timedelta
from typing import Any
from unittest.mock import patch
from uuid import UUID, uuid4

from jobs.tests.world import NOW, WorldTestCase
from stock import actions, planning
from stock.models import Held, Judged, Plan, Priced, Served, Van

ASKED = {"grade": "work", "days": 90, "lend": False, "budget": None}


def clock() -> Iterator[datetime]:
    """A clock that goes on by a second each time somebody looks."""
    at = NOW
    while True:
        yield at
        at += timedelta(seconds=1)


class Plans(WorldTestCase):
    def setUp(self) -> None:
        self.sign_in("corm")
        ticking = clock()
        self.clock = lambda: next(ticking)
        # the demo's plan is proved at once; its curve is looked at no longer than its form needs
        self.enterContext(patch.object(planning, "CURVE_S", 0.6))

    def ask(self, status: int = 200, id: UUID | None = None, **more: Any) -> Any:
        return self.post("stock/plans", {"id": str(id or uuid4()), **ASKED, **more}, status)

    def planned(self, **more: Any) -> Any:
        plan = self.ask(**more)
        planning.run_plan(UUID(plan["id"]), self.clock)
        return self.get(f"stock/plans/{plan['id']}")

    def test_a_plan_is_proved_and_keeps_to_what_each_van_may_hold(self) -> None:
        shown = self.planned()
        found = shown["found"]
        self.assertEqual((shown["state"], shown["share"]), ("done", 1.0))
        self.assertLess(found["gap"], 0.01)
        self.assertLessEqual(found["served"], found["at_most"])
        self.assertLess(found["at_most"], found["failures"])
        for each in found["vans"]:
            van = Van.objects.get(pk=each["van"])
            prices = dict(Priced.objects.values_list("piece", "cost"))
            spent = sum(prices[piece["piece"]] * piece["count"] for piece in each["pieces"])
            self.assertAlmostEqual(each["cost"], spent)
            self.assertLessEqual(spent, van.budget or 0)
            self.assertLessEqual(each["size"], van.shelf or 0)
            self.assertLessEqual(each["planned"], each["failures"])
        self.assertIn("QN4-001", [each["board"] for each in found["uncovered"]])
        money = [point["served"] for point in found["curve"]]
        self.assertEqual(len(money), 6)
        self.assertLess(money[0], money[-1])

    def test_what_changes_leads_from_what_is_there_to_what_is_planned(self) -> None:
        found = self.planned()["found"]
        counts = {(str(each.van_id), each.piece): each.count for each in Held.objects.filter(count__gt=0)}
        for each in found["changes"]:
            for van, sign in ((each["source"], -1), (each["target"], 1)):
                if van:
                    counts[van, each["piece"]] = counts.get((van, each["piece"]), 0) + sign * each["count"]
        planned = {(van["van"], each["piece"]): each["count"] for van in found["vans"] for each in van["pieces"]}
        self.assertEqual({key: count for key, count in counts.items() if count}, planned)

    def test_a_plan_that_is_taken_says_on_each_shelf_what_it_lacks(self) -> None:
        shown = self.planned()
        self.post(f"stock/plans/{shown['id']}/take", {})
        planned = shown["found"]["vans"][0]
        shelf = self.get(f"stock/vans/{planned['van']}?size=50")
        wanted = {each["piece"]: each["wanted"] for each in shelf["items"] if each["wanted"]}
        self.assertEqual(wanted, {each["piece"]: each["count"] for each in planned["pieces"]})
        lacks = sum(max(0, each["wanted"] - each["count"]) for each in shelf["items"])
        self.assertEqual(shelf["van"]["lacks"], lacks)

    def test_vans_that_lend_serve_more_and_less_money_serves_less(self) -> None:
        alone, lending = self.planned()["found"], self.planned(lend=True)["found"]
        self.assertGreater(lending["served"], alone["served"])
        poor = self.planned(budget=600)["found"]
        self.assertLess(poor["served"], alone["served"])
        self.assertLessEqual(poor["cost"], 600)

    def test_what_nobody_priced_is_left_out_and_named(self) -> None:
        Priced.objects.filter(piece="TVH-2210-C").delete()
        found = self.planned()["found"]
        self.assertEqual(found["left_out"], ["TVH-2210-C"])
        self.assertNotIn("TVH-2210-C", [each["piece"] for van in found["vans"] for each in van["pieces"]])

    def test_it_says_how_far_it_is_and_stops_when_it_is_told_to(self) -> None:
        plan = self.ask()
        told: list[tuple[str, float]] = []
        tell = planning._Telling.tell

        def telling(self: planning._Telling, state: Plan.State, share: float) -> None:
            told.append((state, share))
            if len(told) == 5:
                Plan.objects.update(stop_wanted=True)
            tell(self, state, share)

        with patch.object(planning._Telling, "tell", telling):
            planning.run_plan(UUID(plan["id"]), self.clock)
        shown = self.get(f"stock/plans/{plan['id']}")
        self.assertEqual((shown["state"], shown["found"]), ("stopped", None))
        self.assertEqual({state for state, _ in told}, {"judging"})
        # what was judged stays judged
        self.assertEqual(Judged.objects.count(), 4)
        self.post(f"stock/plans/{plan['id']}/stop", {}, 400)

    def test_one_that_waits_is_stopped_at_once(self) -> None:
        plan = self.ask()
        self.assertEqual(self.post(f"stock/plans/{plan['id']}/stop", {})["state"], "stopped")
        planning.run_plan(UUID(plan["id"]), self.clock)
        self.assertIsNone(Plan.objects.get(pk=plan["id"]).found)
        self.post(f"stock/plans/{plan['id']}/take", {}, 400)

    def test_without_machines_it_says_what_is_missing(self) -> None:
        Served.objects.all().delete()
        shown = self.planned()
        self.assertEqual(shown["state"], "failed")
        self.assertIn("Bring in the list", shown["fault"])

    def test_what_breaks_off_ends_and_says_so(self) -> None:
        with patch("stock.planning.judge_all", side_effect=RuntimeError), self.assertLogs("stock.planning", "ERROR"):
            self.assertIn("broke off", self.planned()["fault"])

    def test_asked_twice_it_is_one_and_no_more_than_three_at_once(self) -> None:
        id = uuid4()
        self.ask(id=id)
        self.ask(id=id)
        self.assertEqual(Plan.objects.count(), 1)
        self.ask()
        self.ask()
        self.assertIn("3 plans", self.ask(400)["detail"])
        self.assertEqual(actions.take_up_again(), 0)

    def test_a_plan_that_a_stopped_worker_left_begins_anew(self) -> None:
        plan = self.ask()
        Plan.objects.update(state="planning", share=0.4)
        self.assertEqual(actions.take_up_again(), 1)
        self.assertEqual(Plan.objects.get(pk=plan["id"]).state, "waiting")

    def test_only_the_lead_plans_and_another_depot_sees_nothing_of_it(self) -> None:
        plan = self.ask()
        self.sign_in()
        self.ask(403)
        self.get(f"stock/plans/{plan['id']}")
        self.sign_in("ildro")
        self.get(f"stock/plans/{plan['id']}", 404)
        self.assertEqual(self.get("stock/plans")["total"], 0)

    def test_questions_that_make_no_sense_are_refused(self) -> None:
        for wrong in ({"days": 0}, {"days": 1e9}, {"grade": "best"}, {"budget": -1}):
            self.ask(422, **wrong)
