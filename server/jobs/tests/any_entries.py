"""Entries at random on a job, over the API: what is taken, and never an answer that blames the server."""

import json
from random import Random
from typing import Any, cast
from uuid import uuid4

from jobs.models import Job
from jobs.tests.any_values import BEGIN_ANEW, VALUES, AnyValue, a_target
from jobs.tests.world import Calls
from twincore.job import current, value_at

ENTRIES = 70


class AnyEntries(Calls):
    """What a test needs to bring a job into any state."""

    def tried(self, job: Job, rng: Random) -> set[str]:
        """The kinds of entry that the job took, of many at random; never an answer that blames the server."""
        elements = {each["id"]: str(each["factory"]) for each in self.elements(job)}
        values = AnyValue(rng, elements.values())
        taken = set()
        for _ in range(ENTRIES):
            seldom = rng.random() < 0.05
            kind = rng.choice(list(VALUES) if seldom else [each for each in VALUES if each not in BEGIN_ANEW])
            target = a_target(kind, rng, list(elements))
            after = values.of(VALUES[kind])
            body = {"id": str(uuid4()), "target": target, "before": self.stands(job, target), "after": after, "reason": "so it is", "read_how": "by eye"}  # fmt: skip
            answer = self.client.post(f"/api/jobs/{job.pk}/entries", json.dumps(body), content_type="application/json")
            self.assertLess(answer.status_code, 500, (target, after, answer.content[:300]))
            if answer.status_code == 200:
                taken.add(kind)
            shown = self.client.get(f"/api/jobs/{job.pk}")
            self.assertEqual(shown.status_code, 200, (target, after, shown.content[:300]))
        return taken

    def elements(self, job: Job) -> list[dict[str, Any]]:
        if job.original_revision_id is None:
            return []
        return cast(list[dict[str, Any]], self.get(f"jobs/{job.pk}/boards/original")["elements"])

    def stands(self, job: Job, target: str) -> Any:
        """What stands at a target now, as the client would say it."""
        return value_at(current(Job.objects.values_list("state", flat=True).get(pk=job.pk)), target)
