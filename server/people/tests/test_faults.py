"""What breaks in a browser is in the server's log, with who saw it."""

import json

from jobs.tests.world import WorldTestCase


class Faults(WorldTestCase):
    def test_a_fault_of_a_page_is_in_the_log(self) -> None:
        told = {"place": "step fit", "message": "x is undefined", "trace": "at Fit", "version": "0.4.0"}
        self.sign_in()
        with self.assertLogs("worthy_twin.browsers", "ERROR") as logged:
            answer = self.client.post("/api/faults", json.dumps(told), content_type="application/json")
        self.assertEqual(answer.status_code, 204)
        self.assertEqual(logged.records[0].more, {"person": "wennick", **told})  # type: ignore[attr-defined]

    def test_nobody_who_is_not_signed_in_and_nothing_endless_is_written(self) -> None:
        with self.assertNoLogs("worthy_twin.browsers"):
            self.assertEqual(self.client.post("/api/faults", "{}", content_type="application/json").status_code, 401)
            self.sign_in()
            long = json.dumps({"place": "step fit", "message": "x" * 501})
            self.assertEqual(self.client.post("/api/faults", long, content_type="application/json").status_code, 422)
