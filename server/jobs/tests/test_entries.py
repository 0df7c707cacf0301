import json
from typing import Any
from unittest.mock import patch
from uuid import uuid4

from jobs.models import Entry, Job
from jobs.tests.world import WorldTestCase
from twincore.job import TARGETS

BY_EYE = {"read_how": "by eye"}


class Entries(WorldTestCase):
    def setUp(self) -> None:
        self.sign_in()

    def test_an_entry_changes_the_state_and_stays_in_the_history(self) -> None:
        job = self.job(3)
        before = job.entry_count
        shown = self.entry(job, "found.S1", "010110", **BY_EYE)
        self.assertEqual(
            (shown["found"], shown["how"], shown["entry_count"]), ({"S1": "010110"}, {"S1": "by eye"}, before + 1)
        )
        newest = self.get(f"jobs/{job.pk}/entries")["items"][0]
        self.assertEqual(
            (newest["target"], newest["before"], newest["after"], newest["read_how"], newest["by"]),
            ("found.S1", None, "010110", "by eye", "Wennick Tarl"),
        )

    def test_sending_one_twice_changes_nothing(self) -> None:
        job = self.job(3)
        body = {"id": str(uuid4()), "target": "found.S1", "before": None, "after": "010110", **BY_EYE}
        first = self.post(f"jobs/{job.pk}/entries", body)
        again = self.post(f"jobs/{job.pk}/entries", body)
        self.assertEqual(first, again)
        self.assertEqual(Entry.objects.filter(pk=body["id"]).count(), 1)

    def test_entries_that_waited_are_added_in_order_up_to_the_first_that_is_not_taken(self) -> None:
        job = self.job(3)
        values = ("010110", "1", "111111")  # a bank of six switches has no value of one
        news = [{"id": str(uuid4()), "target": "found.S1", "before": None, "after": each, **BY_EYE} for each in values]
        news[1]["before"] = news[2]["before"] = "010110"
        answered = self.post(f"jobs/{job.pk}/entries/waited", {"entries": news})
        self.assertEqual((answered["taken"], answered["sheet"]["found"]), (1, {"S1": "010110"}))
        self.assertEqual(answered["sheet"], self.get(f"jobs/{job.pk}"))
        self.assertEqual(self.post(f"jobs/{job.pk}/entries", news[1], 422)["status"], 422)
        again = self.post(f"jobs/{job.pk}/entries/waited", {"entries": [news[0], news[2]]})  # one of them twice
        self.assertEqual((again["taken"], again["sheet"]["entry_count"]), (2, job.entry_count + 2))
        self.post(f"jobs/{job.pk}/entries/waited", {"entries": []}, 422)
        self.post(f"jobs/{uuid4()}/entries/waited", {"entries": news}, 404)

    def test_one_id_sent_to_two_jobs_at_the_same_moment_is_an_entry_of_one(self) -> None:
        """Defect: the second was answered as if the server had failed."""
        first, second = self.job(3), self.job(4)
        body = {"id": str(uuid4()), "target": f"defect.{uuid4()}", "before": None}
        body["after"] = {"what": "seal torn", "until": "2026-05-01", "who": "Corm"}  # type: ignore[assignment]
        self.post(f"jobs/{first.pk}/entries", body)
        # neither saw the other's
        with patch("jobs.entries.StoredJob.sent_before", return_value=False):
            refused = self.post(f"jobs/{second.pk}/entries", body, 400)
        self.assertIn("in use", refused["detail"])
        self.assertEqual(Job.objects.get(pk=second.pk).entry_count, second.entry_count)

    def test_two_taps_on_two_switches_of_a_bank_are_both_kept(self) -> None:
        """Defect: whoever tapped second was told that somebody had changed the bank."""
        job = self.job(3)
        self.entry(job, "found.S1", "0?????", **BY_EYE)
        mine = self.get(f"jobs/{job.pk}/entries")["items"][0]["id"]
        self.sign_in("corm")
        self.entry(job, "found.S1", "?1????", before=None, **BY_EYE)
        self.sign_in("wennick")
        shown = self.entry(job, "found.S1", "0??1??", before="0?????", upon=mine, **BY_EYE)
        self.assertEqual(shown["found"], {"S1": "01?1??"})
        last = self.get(f"jobs/{job.pk}/entries")["items"][0]
        self.assertEqual((last["before"], last["after"]), ("01????", "01?1??"))
        self.entry(job, "found.S1", "0?11??", before="0??1??", status=200, **BY_EYE)
        # of the second switch it says that nobody can read it any more, and somebody read it
        self.entry(job, "found.S1", "0?11??", before="0011??", status=409, **BY_EYE)
        self.assertEqual(self.partings(Job.objects.get(pk=job.pk)), [])

    def test_what_has_no_places_is_never_put_together(self) -> None:
        job = self.job(3)
        self.entry(job, "serial", "77-1")
        self.entry(job, "serial", "78-1", before="77-2", status=409)

    def test_an_answer_to_a_tap_is_short(self) -> None:
        """It was 9 kB, half of it a choice that nobody had touched."""
        job = self.job(3)
        self.entry(job, "found.S1", "0?????", **BY_EYE)
        body = {"id": str(uuid4()), "target": "found.S1", "before": "0?????", "after": "01????", **BY_EYE}
        answer = self.client.post(f"/api/jobs/{job.pk}/entries", json.dumps(body), content_type="application/json")
        self.assertLess(len(answer.content), 4_500)

    def test_the_second_of_two_people_is_told_what_changed(self) -> None:
        job = self.job(3)
        self.entry(job, "found.S1", "010110", **BY_EYE)
        self.sign_in("corm")
        problem = self.entry(job, "found.S1", "111110", before=None, status=409, **BY_EYE)
        self.assertIn("Wennick Tarl set it to 010110", problem["detail"])
        self.assertEqual(problem["now"], "010110")
        self.assertEqual(self.get(f"jobs/{job.pk}")["found"], {"S1": "010110"})
        self.entry(job, "found.S1", "111110", before="010110", **BY_EYE)

    def test_an_entry_may_follow_the_makers_own_whatever_was_made_of_it(self) -> None:
        job, name = self.job(4), f"removed.{uuid4()}"
        bare = {"what": "screw", "kind": "screw"}
        self.entry(job, name, bare)  # kept with its count, place and turn
        mine = self.get(f"jobs/{job.pk}/entries")["items"][0]["id"]
        self.entry(job, name, {**bare, "back": True}, before=bare, status=409)
        self.entry(job, name, {**bare, "back": True}, before=bare, upon=mine)
        self.entry(job, name, bare, before=bare, upon=mine, status=409)  # somebody said something since

    def test_what_another_person_left_on_the_device_is_not_taken_as_ones_own(self) -> None:
        job = self.job(3)
        problem = self.entry(job, "found.S1", "010110", status=403, maker="corm", **BY_EYE)
        self.assertIn("Another person made this entry", problem["detail"])
        self.assertEqual(self.get(f"jobs/{job.pk}")["found"], {})
        self.entry(job, "found.S1", "010110", maker="wennick", **BY_EYE)

    def test_a_full_job_takes_what_ends_it_and_nothing_else(self) -> None:
        job = self.job(4)
        defect = {"what": "seal torn", "until": "2026-05-01", "who": "Corm"}
        room = (("MOST_ENTRIES", job.entry_count + 1), ("MOST_SAID", job.said + 20))
        for bound, most in room:
            with self.subTest(bound), patch(f"jobs.ledger.room.{bound}", most):
                refused = self.entry(job, f"defect.{uuid4()}", defect, status=400)
                self.assertIn("Close it, and open another job", refused["detail"])
        kept = Job.objects.get(pk=job.pk)
        self.assertEqual((kept.entry_count, kept.said), (job.entry_count, job.said))
        with patch("jobs.ledger.room.MOST_ENTRIES", job.entry_count + 1):
            self.entry(job, "hold.static", {"note": "strap on"}, before={})
            # then even what ends it has no room
            self.entry(job, "hold.static", None, before={"note": "strap on"}, status=400)

    def test_two_people_may_change_different_things(self) -> None:
        job = self.job(4)
        self.entry(job, "found.R1", "1", before="2", **BY_EYE)
        self.sign_in("corm")
        shown = self.entry(job, "found.J1", "1-2", before="2-3", **BY_EYE)
        self.assertEqual(shown["found"], {"J1": "1-2", "R1": "1", "S1": "1?1"})

    def test_values_that_are_none_are_refused_with_what_was_expected(self) -> None:
        job = self.job(3)
        count = job.entry_count
        problem = self.entry(job, "found.S1", "0101", status=422, **BY_EYE)
        self.assertEqual(problem["faults"][0]["place"], "positions.S1")
        self.assertIn("6 places", problem["faults"][0]["expected"])
        self.entry(job, "found.Q", "1", status=422, **BY_EYE)
        self.entry(job, "found.S1", "010110", status=422, read_how="guessed")
        self.entry(job, "nonsense", "1", status=422)
        self.entry(self.job(4), "reason.nonsense", "why", status=422)
        self.entry(job, "confirmed.nowhere", {"note": ""}, status=422)
        self.post(f"jobs/{job.pk}/entries", {"id": "not an id", "target": "original"}, 422)
        self.assertEqual(self.get(f"jobs/{job.pk}")["entry_count"], count)

    def test_no_value_however_odd_is_more_than_refused(self) -> None:
        odd: list[Any] = [[], {}, [[1]], {"a": {"b": [1]}}, "x" * 5000, "\ud7ff", -1, 1e308, 0.1, True, {"value": [1], "source": "seen"},
                          {"connector": {}, "pin": []}, {"result": ["x"], "value": {}, "as_found": "x"}, {"as": [], "note": {}},
                          {"degrees": "up", "within": []}, {"steps": [1], "seen": {}, "until": "x"}, {"marks": [3]},
                          {"skipped": []}, {"where": [], "tag": {}}, {"text": [], "scheme": {}}]  # fmt: skip
        job = self.job(3)
        self.entry(job, "found.S1", "010110", **BY_EYE)
        names = {"found": "S1", "blind": "S1", "angle": "S1", "override": "R1", "hold": "gas", "test": "fuse", "wish": "trial",
                 "decision": "trial", "reason": "trial", "cause": "surge", "plug": "C1", "settled": "C1.1"}  # fmt: skip
        targets = [
            *(
                f"{each.kind}.{names.get(each.kind, str(uuid4()))}" if each.named else each.kind
                for each in TARGETS.values()
            ),
            "confirmed.record",
        ]
        for target in targets:
            for after in odd:
                body = {"id": str(uuid4()), "target": target, "after": after, "read_how": "by eye", "reason": "odd"}
                response = self.client.post(f"/api/jobs/{job.pk}/entries", body, content_type="application/json")
                self.assertLess(response.status_code, 500, (target, after))
        self.get(f"jobs/{job.pk}")
        self.get(f"jobs/{job.pk}/record")
        self.get(f"jobs/{job.pk}/comparison")
        self.get(f"jobs/{job.pk}/sheet.json")

    def test_what_waits_is_refused_until_the_hold_point_is_confirmed(self) -> None:
        job = self.job(3)
        self.entry(job, "confirmed.make_safe", None, before={"note": "Lock 14, proved dead, gas cock shut"})
        problem = self.entry(job, "found.S1", "010110", status=400, **BY_EYE)
        self.assertIn("waits for: make safe", problem["detail"])

    def test_a_change_below_reopens_what_hangs_on_it(self) -> None:
        job = self.job(5)
        shown = self.entry(job, "found.S1", "010110", before="110110", **BY_EYE)
        done = {step["id"] for step in shown["steps"] if step["state"] == "done"}
        self.assertEqual(done, {"rule_out", "recognise", "choose", "make_safe"})
        self.assertIsNone(shown["left"])

    def test_the_plan_needs_a_reason_for_what_is_open(self) -> None:
        job = self.job(4)
        problem = self.entry(job, "confirmed.carry_over", {"note": ""}, status=400)
        self.assertIn("After flame loss", problem["detail"])
        self.entry(job, "reason.restart", "Manual is the safer one")
        self.entry(job, "confirmed.carry_over", {"note": ""})

    def test_an_off_register_verdict_needs_a_reason(self) -> None:
        job = self.job(5)
        self.assertIn("different", self.entry(job, "confirmed.prove", {"note": " "}, status=400)["detail"])
        shown = self.entry(job, "confirmed.prove", {"note": "Owner accepts until Friday"})
        self.assertEqual(shown["verdict"], "different")

    def test_an_incomplete_record_is_not_complete(self) -> None:
        job = self.job(3)
        problem = self.entry(job, "confirmed.record", {"note": ""}, status=400)
        self.assertEqual(problem["missing"], ["not read: S1", "wires not recorded: C1, C2, C3"])

    def test_a_closed_job_changes_no_more(self) -> None:
        job = self.job(1)
        self.assertIn("closed", self.entry(job, "found.S1", "000000", before="010110", status=400, **BY_EYE)["detail"])

    def test_another_depots_job_is_not_there(self) -> None:
        job = self.job(3)
        self.sign_in("ildro")
        for path in (
            "",
            "/entries",
            "/comparison",
            "/candidates",
            "/rule-out",
            "/key",
            "/machine",
            "/costs",
            "/summary.pdf",
            "/beside/OFN-U3",
            "/sheet.pdf",
            "/sheet.json",
            "/boards/original",
            "/make-safe",
            "/record",
            "/traces",
            "/wiring",
            "/presses",
            "/plan.json",
            "/plan.csv",
            "/plan.pdf",
            "/tags.pdf",
            "/port/stream",
            "/fitting",
            "/proving",
            "/runs",
            "/hand-over",
            "/label.pdf",
            "/customer.pdf",
            "/package.zip",
            "/earlier",
            f"/pictures/{uuid4()}",
        ):
            self.get(f"jobs/{job.pk}{path}", 404)
        self.entry(job, "found.S1", "010110", status=404, **BY_EYE)
        self.assertEqual(self.get("jobs?show=all")["total"], 0)

    def test_the_job_keeps_the_revision_that_it_used(self) -> None:
        self.sign_in("corm")
        text = self.client.get("/api/board-file/TVH-2210-B").content.decode()
        changed = text.replace('"Burner board, one stage"', '"Burner board, revised"')
        self.answer(self.client.post("/api/documents", changed, content_type="application/json"), 200)
        self.assertEqual(self.get("board/TVH-2210-B")["revision"], 2)
        self.assertEqual(self.get(f"jobs/{self.job(3).pk}")["original_board"]["revision"], 1)
        self.assertEqual(self.get(f"jobs/{self.job(3).pk}/boards/original")["title"], "Burner board, one stage")


class WholeJob(WorldTestCase):
    def test_from_opening_to_closing(self) -> None:
        self.sign_in()
        new = {"id": str(uuid4()), "machine": "Deck oven 9, Tidegate Bakery", "complaint": "dead"}
        job = self.post("jobs", new)
        self.assertEqual(self.post("jobs", new)["code"], job["code"])

        def add(target: str, after: Any, **more: Any) -> Any:
            body = {"id": str(uuid4()), "target": target, "after": after, **more}
            return self.post(f"jobs/{job['id']}/entries", body)

        add("confirmed.rule_out", {"note": "fuse fine, 231 V"})
        add("original", "TVH-2210-B")
        best = self.get(f"jobs/{job['id']}/candidates")
        self.assertEqual(best["judged_on"], "factory settings")
        self.assertEqual(best["items"][0]["closeness"], "identical")
        last = best["items"][-1]
        self.assertEqual((last["part_number"], last["verdict"]), ("TVH-2210-X", "no"))
        add("replacement", "TVH-2214-A")
        self.make_dead(Job.objects.get(pk=job["id"]))
        add("found.S1", "010110", read_how="by eye")
        self.record_plugs(Job.objects.get(pk=job["id"]))
        add("confirmed.record", {"note": ""})
        comparison = self.get(f"jobs/{job['id']}/comparison")
        self.assertEqual(comparison["plan"], {"SW1": "0111", "R1": "6"})
        self.assertEqual(comparison["proof"]["verdict"], "identical")
        worse = add("override.R1", "0") and self.get(f"jobs/{job['id']}/comparison")
        self.assertEqual(worse["other_misses"], 1)
        self.assertIn("90 s shorter", [row["difference"] for row in worse["rows"]])
        add("override.R1", None, before="0")
        add("confirmed.carry_over", {"note": ""})
        played = self.post(f"jobs/{job['id']}/play", {"steps": [{"at": 0, "set": {"call": True}}], "until": 40})
        self.assertEqual(played["original"], [{**e, "states": s["states"]} for e, s in zip(
            played["replacement"], played["original"], strict=True)])  # fmt: skip
        self.fit(Job.objects.get(pk=job["id"]))
        add("confirmed.prove", {"note": "baked a tray"})
        closed = add("confirmed.hand_over", {"note": ""})
        self.assertTrue(closed["closed"])
        self.assertEqual(closed["left"], {"SW1": "0111", "R1": "6"})
        self.assertEqual(self.get("jobs?show=closed&search=Deck oven 9")["total"], 1)
