"""Practice on the server: tasks, what is kept of them, and groups; nothing of it touches real records."""

from typing import Any
from unittest.mock import patch
from uuid import uuid4

from django.conf import settings
from django.db import connection
from django.test.utils import CaptureQueriesContext

from catalogue.models import Board
from jobs.tests.world import WorldTestCase
from people.models import Depot, Person
from practice.models import Attempt, Group, SkillHeld
from practice.tasks import draw_task, task_of
from twincore.practice import LEVELS, Task, solved
from twincore.profile import written_positions
from twinshown.practice.schemas import TaskNamed
from twinshown.refusals import NotAnswered

PAIR = "original=TVH-2420-A&replacement=TVH-2424-A"


class PracticeCase(WorldTestCase):
    def setUp(self) -> None:
        self.sign_in()

    def task(self, level: str, seed: int = 1, boards: str = "") -> Any:
        return self.get(f"practice/task?level={level}&seed={seed}&{boards}")

    def right(self, task: Any) -> dict[str, Any]:
        """The positions that are right for a task that is set."""
        made = task_of(Person.objects.get(username="wennick"), TaskNamed(**task["task"]))
        assert made.carried is not None and made.carried.record is not None
        return dict(written_positions(made.boards.replacement, made.carried.record.points))

    def keep(self, task: Any, actions: list[Any], status: int = 200, **more: Any) -> Any:
        body = {"id": str(uuid4()), "task": task["task"], "actions": actions, "seconds": 95.0, **more}
        return self.post("practice/attempts", body, status)


class Tasks(PracticeCase):
    def test_a_seed_draws_boards_that_make_a_task_of_every_level(self) -> None:
        for level in LEVELS:
            one, other = self.task(level, 7), self.task(level, 7)
            self.assertEqual(one["task"], other["task"], level)
            self.assertEqual(one["task"]["level"], level)
            self.assertTrue(one["original"]["elements"] or level not in ("read", "set", "carry"))
            played = self.post("practice/play", {"task": one["task"], "actions": []})
            self.assertIsNone(played["ended"])

    def test_boards_that_make_none_say_why(self) -> None:
        self.get("practice/task?level=set&seed=1&original=TVH-2420-A&replacement=OFN-K2", 422)
        self.get("practice/task?level=set&seed=1&original=nothing", 404)
        self.get("practice/task?level=fly&seed=1", 422)
        self.get("practice/task?level=set&seed=-1", 422)

    def test_where_one_board_is_named_another_is_looked_for_that_makes_a_task_with_it(self) -> None:
        """Defect: the first that was drawn made none with it, and that was the answer."""
        for seed in range(6):
            self.assertEqual(self.task("carry", seed, "original=TVH-2420-A")["original"]["part_number"], "TVH-2420-A")

    def test_boards_that_make_none_of_this_seed_are_gone_past_though_they_made_one_of_another(self) -> None:
        """Defect: that these two make tasks was known, that of this seed they make none was the answer."""
        refused: list[TaskNamed] = []

        def first_refused(person: Person, named: TaskNamed) -> Task:
            if not refused or named == refused[0]:
                refused.append(named)
                raise NotAnswered("not of this seed")
            return task_of(person, named)

        wennick = Person.objects.get(username="wennick")
        known = draw_task(wennick, "carry", 1).named
        with patch("practice.tasks.task_of", first_refused):
            other = draw_task(wennick, "carry", 1).named
        self.assertEqual(refused[0], known)
        self.assertNotEqual(other, known)

    def test_a_task_is_made_of_boards_that_one_sees(self) -> None:
        task = self.task("read", 1, "original=TVH-2420-A")
        Board.objects.filter(part_number="TVH-2420-A").update(depot=Depot.objects.get(code="NH"))
        self.post("practice/play", {"task": task["task"], "actions": []}, 404)
        for wrong in ({"original": 10**6}, {"family": 10**6}, {"rule_out": 10**6}, {"seed": -1}, {"level": "x"}):
            body = {"task": {**self.task("find")["task"], **wrong}, "actions": []}
            self.assertIn(self.client.post("/api/practice/play", body, "application/json").status_code, (404, 422))

    def test_what_is_right_ends_in_register_and_what_is_wrong_says_where_it_parts(self) -> None:
        task = self.task("set", 3, PAIR)
        shown = self.post("practice/play", {"task": task["task"], "actions": []})["shown"]
        self.assertTrue(all(each["value"] for each in shown["wanted"]))
        right = self.keep(task, [{"do": "set", "positions": self.right(task)}, {"do": "run", "run": shown["runs"][0]["id"]},
                                 {"do": "done"}])["laid"]  # fmt: skip
        self.assertEqual((right["right"], right["first"], right["parting"]), (True, None, None))
        self.assertIn(right["verdict"], ("identical", "within tolerance"))
        wrong = self.keep(task, [{"do": "done"}])["laid"]
        self.assertFalse(wrong["right"])
        self.assertIn(wrong["rows"][wrong["first"]]["what"], wrong["words"])
        self.assertEqual(wrong["verdict"], "different")
        self.assertTrue(wrong["parting"]["tracks"]["replacement"])
        self.assertIn("never run", wrong["told"][0])

    def test_a_whole_job_is_done_in_nine_steps(self) -> None:
        task = self.task("whole", 3, PAIR)
        offered = [task["original"], task["replacement"], *task["others"]]
        self.assertEqual(len({each["part_number"] for each in offered}), 5)
        self.assertEqual(len(task["documents"]["others"]), 3)
        made = task_of(Person.objects.get(username="wennick"), TaskNamed(**task["task"]))
        laid = self.keep(task, solved(made))["laid"]
        self.assertEqual((laid["right"], laid["first"]), (True, None))
        self.assertIn("you know that it does", laid["words"])
        wrong = self.keep(task, [*solved(made)[:-2], {"do": "tell", "what": "not as before"}, {"do": "done"}])["laid"]
        self.assertEqual(wrong["rows"][wrong["first"]]["skill"], "hand over")
        for other in ([10**6], task["task"]["others"] * 2):
            body = {"task": {**task["task"], "others": other}, "actions": []}
            self.assertIn(self.client.post("/api/practice/play", body, "application/json").status_code, (404, 422))

    def test_a_board_that_is_offered_beside_two_is_one_that_the_depot_sees(self) -> None:
        task = self.task("whole", 3, PAIR)
        Board.objects.filter(part_number=task["others"][0]["part_number"]).update(depot=Depot.objects.get(code="NH"))
        self.post("practice/play", {"task": task["task"], "actions": []}, 404)

    def test_what_cannot_be_done_is_refused_and_nothing_is_kept(self) -> None:
        task = self.task("set", 3, PAIR)
        for actions, status in (([], 422), ([{"do": "set", "positions": {"P01": "x"}}, {"do": "done"}], 422), ([7], 422),
                                ([{"do": "done"}, {"do": "done"}], 422), ([{}] * 401, 422)):  # fmt: skip
            self.keep(task, actions, status)
        self.keep(task, [{"do": "done"}], 422, seconds=-1)
        self.assertFalse(Attempt.objects.filter(person__username="wennick").exists())
        self.assertFalse(SkillHeld.objects.filter(person__username="wennick").exists())


class Kept(PracticeCase):
    def test_an_attempt_moves_what_somebody_can_do_once(self) -> None:
        self.assertEqual(self.get("practice")["next"], "read")
        task = self.task("read", 5, "original=TVH-2420-A")
        positions = self.post("practice/play", {"task": task["task"], "actions": []})["shown"]["positions"]
        body = {
            "id": str(uuid4()),
            "task": task["task"],
            "seconds": 60,
            "actions": [{"do": "read", "positions": positions}, {"do": "done"}],
        }
        kept = [self.post("practice/attempts", body)["home"]["levels"][0] for _ in range(2)]
        self.assertEqual(kept[0], kept[1])
        self.assertEqual(kept[0]["done"], 1)
        self.assertGreater(kept[0]["skills"][0]["known"], 0.2)
        shown = self.get("practice/attempts")["items"]
        self.assertEqual(
            [(each["title"], each["right"], each["seconds"]) for each in shown], [("TVH-2420-A", True, 60)]
        )
        self.sign_in("corm")
        self.post("practice/attempts", body, 400)
        self.assertEqual(self.get("practice/attempts")["total"], 0)

    def test_when_it_was_made_without_a_connection_is_kept_but_never_what_is_to_come(self) -> None:
        task = self.task("safe", 2)
        self.keep(task, [{"do": "done"}], made="2001-01-01T00:00:00Z")
        self.keep(task, [{"do": "done"}], made="2999-01-01T00:00:00Z")
        years = {each.at.year for each in Attempt.objects.filter(person__username="wennick")}
        self.assertEqual(len(years & {2001, 2999}), 0)


class Groups(PracticeCase):
    def setUp(self) -> None:
        self.sign_in("corm")
        self.id = str(uuid4())

    def group(self, status: int = 200, **more: Any) -> Any:
        return self.post(
            "practice/groups", {"id": self.id, "name": "Night shift", "members": ["wennick"], **more}, status
        )

    def test_a_trainer_sets_tasks_and_sees_how_the_group_stands(self) -> None:
        self.group()
        drawn = self.post(f"practice/groups/{self.id}/draw", {"levels": ["read", "safe"], "seed": 20})
        self.assertEqual([each["level"] for each in drawn["set"]], ["read", "safe"])
        file = self.get(f"practice/groups/{self.id}/tasks")
        self.assertEqual([each["original"] for each in file["tasks"]], [each["original"] for each in drawn["set"]])
        self.sign_in()
        self.assertEqual([each["tasks"] for each in self.get("practice/groups")["items"]], [2])
        first = drawn["set"][0]
        task = self.task("read", first["seed"], f"original={first['original']}")
        self.keep(task, [{"do": "done"}])
        self.sign_in("corm")
        (learner,) = self.get(f"practice/groups/{self.id}")["learners"]
        self.assertEqual((learner["name"], learner["done"]), ("Wennick Tarl", [False, None]))
        self.assertLess(learner["skills"]["read"], 0.2)

    def test_a_file_of_tasks_comes_in_and_goes_out_the_same(self) -> None:
        self.group()
        document = (settings.ROOT / "demo/practice/first-week.tasks.json").read_bytes()
        answer = self.client.post(f"/api/practice/groups/{self.id}/tasks", document, content_type="application/json")
        self.assertEqual(answer.status_code, 200, answer.content[:400])
        self.assertEqual(len(answer.json()["set"]), 8)
        out = self.client.get(f"/api/practice/groups/{self.id}/tasks").content
        self.client.post(f"/api/practice/groups/{self.id}/tasks", out, content_type="application/json")
        self.assertEqual(self.client.get(f"/api/practice/groups/{self.id}/tasks").content, out)
        for wrong in (b"{}", b'{"format": "worthy-twin/tasks", "version": 1, "tasks": [{"level": "fly"}]}'):
            refused = self.client.post(f"/api/practice/groups/{self.id}/tasks", wrong, content_type="application/json")
            self.assertEqual(refused.status_code, 422)
        self.assertEqual(len(Group.objects.get(pk=self.id).tasks), 8)

    def test_only_who_trains_changes_groups_and_others_see_their_own_standing(self) -> None:
        self.group(members=["wennick", "corm"])
        self.sign_in()
        self.group(403)
        self.post(f"practice/groups/{self.id}/draw", {"levels": ["read"], "seed": 1}, 403)
        self.assertEqual([each["username"] for each in self.get(f"practice/groups/{self.id}")["learners"]], ["wennick"])
        self.sign_in("ildro")
        self.get(f"practice/groups/{self.id}", 404)
        self.assertEqual(self.get("practice/groups")["total"], 0)

    def test_what_cannot_be_is_refused_with_what_to_do(self) -> None:
        self.assertIn("nobody of this depot", self.group(422, members=["ildro"])["detail"])
        self.group()
        self.id = str(uuid4())
        self.assertIn("already", self.group(400)["detail"])
        with patch("practice.tasks.LONGEST_S", -1.0):
            self.id = str(Group.objects.get(name="Night shift").pk)
            self.post(f"practice/groups/{self.id}/draw", {"levels": ["fly"], "seed": 1}, 422)
        self.assertEqual(self.client.delete(f"/api/practice/groups/{self.id}").status_code, 204)

    def test_a_group_is_read_with_as_many_questions_however_large_it_is(self) -> None:
        self.group()

        def questions() -> int:
            with CaptureQueriesContext(connection) as asked:
                self.get(f"practice/groups/{self.id}")
            return len(asked)

        before = questions()
        depot = Depot.objects.get(code="SQ")
        people = [Person.objects.create_user(f"learner-{n}", depot=depot) for n in range(20)]
        Group.objects.get(pk=self.id).members.add(*people)
        self.assertEqual(questions(), before)
        self.assertLessEqual(before, 12)
