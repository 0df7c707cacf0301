"""Practice stands apart: no task of it touches a real record, count, shelf or chain."""

from typing import Any
from uuid import uuid4

from jobs.models import Entry, Job
from jobs.tests.world import WorldTestCase
from practice.models import Attempt
from references.models import Outcome, Statement
from stock.models import Held, Moved, Served
from twincore.practice import LEVELS


class Apart(WorldTestCase):
    def real(self) -> list[Any]:
        chains = list(Entry.objects.order_by("pk").values_list("pk", "digest"))
        states = list(Job.objects.order_by("pk").values_list("pk", "state", "entry_count"))
        return [chains, states, *(model.objects.count() for model in (Statement, Outcome, Held, Moved, Served))]

    def test_a_task_of_every_level_leaves_everything_real_as_it_was(self) -> None:
        self.sign_in()
        before = self.real()
        for level in LEVELS:
            task = self.get(f"practice/task?level={level}&seed=2")["task"]
            body = {"id": str(uuid4()), "task": task, "actions": [{"do": "done"}], "seconds": 60}
            self.post("practice/attempts", body)
        self.assertEqual(Attempt.objects.filter(person__username="wennick").count(), len(LEVELS))
        self.assertEqual(self.real(), before)
