"""From any state, by what the pages name and nothing else, to the end of the job, or to a sentence that says what a person brings."""

import os
from random import Random

from jobs.tests.any_entries import AnyEntries
from jobs.tests.whole import Technician
from jobs.tests.world import WorldTestCase

OPEN_JOBS = (3, 4, 5, 6, 7, 9, 10)
STARTS = 40 if os.environ.get("TWIN_LONG") else 2


class Walker(AnyEntries, WorldTestCase):
    def setUp(self) -> None:
        self.sign_in()

    def test_every_state_has_a_way_on(self) -> None:
        ended = 0
        for start in range(STARTS):
            for number in OPEN_JOBS:
                rng = Random(f"{start} {number}")
                with self.subTest(start=start, job=number):
                    self.tried(self.job(number), rng)
                    worker = Technician(self, self.job(number), rng)
                    worker.finish()
                    self.assertTrue(worker.brought or worker.job.closed_at)
                    ended += worker.job.closed_at is not None
        # a job of which nobody knows the board ends in a sentence; most do not
        self.assertGreater(ended, STARTS * len(OPEN_JOBS) // 2)
