from datetime import timedelta
from uuid import uuid4

from django.test import override_settings

from jobs.models import Job
from jobs.tests.world import NOW, WorldTestCase
from people.models import Person


class Lists(WorldTestCase):
    def setUp(self) -> None:
        self.sign_in()

    def more(self, count: int) -> None:
        seed = self.job(6)
        Job.objects.bulk_create(
            Job(
                id=uuid4(), depot=seed.depot, number=100 + n, machine=f"Oven {n}", opened_at=NOW, state=seed.state,
                changed_at=NOW + timedelta(minutes=n), opened_by=seed.opened_by,
            )
            for n in range(count)
        )  # fmt: skip

    def test_every_job_is_on_exactly_one_page(self) -> None:
        self.more(60)
        seen: list[str] = []
        for page in (1, 2, 3):
            seen += [job["id"] for job in self.get(f"jobs?page={page}&size=25")["items"]]
        self.assertEqual((len(seen), len(set(seen))), (67, 67))
        self.assertEqual(self.get("jobs?page=9")["items"], [])

    def test_open_closed_and_all(self) -> None:
        totals = {show: self.get(f"jobs?show={show}")["total"] for show in ("open", "closed", "all")}
        self.assertEqual(totals, {"open": 7, "closed": 3, "all": 10})
        self.get("jobs?show=some", 422)
        self.get("jobs?size=1000", 422)

    def test_search_by_machine_number_and_board(self) -> None:
        def found(text: str) -> set[str]:
            return {job["code"] for job in self.get(f"jobs?show=all&search={text}")["items"]}

        self.assertEqual(found("tidegate"), {"SQ-0004", "SQ-0007"})
        self.assertEqual(found("SQ-0003"), {"SQ-0003"})
        self.assertEqual(found("TVH-2420"), {"SQ-0002"})
        self.assertEqual(found("nothing like it"), set())

    def test_what_a_job_waits_for_stands_in_the_list(self) -> None:
        steps = {job["code"]: job["step"] for job in self.get("jobs")["items"]}
        self.assertEqual(
            steps,
            {"SQ-0003": "record", "SQ-0004": "carry_over", "SQ-0005": "prove", "SQ-0006": "rule_out",
             "SQ-0007": "choose", "SQ-0009": "rule_out", "SQ-0010": "make_safe"},
        )  # fmt: skip

    def test_the_history_is_paged_newest_first(self) -> None:
        job = self.job(2)
        first = self.get(f"jobs/{job.pk}/entries?size=5")
        second = self.get(f"jobs/{job.pk}/entries?size=5&page=2")
        numbers = [entry["number"] for entry in first["items"] + second["items"]]
        self.assertEqual(numbers, list(range(first["total"], first["total"] - 10, -1)))

    def test_somebody_without_a_depot_sees_nothing_and_opens_nothing(self) -> None:
        nobody = Person.objects.create_user("nobody", password="waiting-room-1")
        self.client.force_login(nobody, "django.contrib.auth.backends.ModelBackend")
        self.assertEqual(self.get("jobs?show=all")["total"], 0)
        self.post("jobs", {"id": str(uuid4()), "machine": "Oven"}, 403)

    @override_settings(DATA_UPLOAD_MAX_MEMORY_SIZE=1000)
    def test_what_is_too_large_is_refused_as_a_problem(self) -> None:
        self.sign_in("corm")
        response = self.client.post("/api/documents", "x" * 2000, content_type="application/json")
        self.answer(response, 413)
