"""Answers about a job that are kept: read again they cost no computing, and nothing that they hang on changes unseen."""

import gzip
from collections.abc import Callable
from datetime import timedelta
from typing import Any
from unittest.mock import patch
from uuid import uuid4

from django.core.cache import caches
from django.test import Client
from django.utils import timezone

from catalogue.models import Board, BoardPicture, Family, Guide
from jobs import kept_answers
from jobs.models import CatalogueChange, Job, KeptAnswer
from jobs.tests.world import WorldTestCase, other_client
from parts.models import Offer
from people.models import Depot, Person
from references.models import Outcome, Statement


class Kept(WorldTestCase):
    def setUp(self) -> None:
        self.sign_in()
        self.open = self.job(4)
        self.address = f"/api/jobs/{self.open.pk}"

    def tag(self, address: str = "", client: Client | None = None) -> str:
        answer = (client or self.client).get(address or self.address)
        self.assertEqual(answer.status_code, 200)
        return answer.headers["ETag"]

    def test_read_again_it_costs_no_computing_for_anybody_of_the_depot(self) -> None:
        first = self.client.get(self.address)
        lead = other_client("corm")
        with patch("jobs.api._shown", side_effect=AssertionError("worked out anew")), self.assertNumQueries(3):
            # session, person, answer with its version
            again = lead.get(self.address)
        self.assertEqual((again.content, again["ETag"]), (first.content, first["ETag"]))
        self.assertEqual(again["Cache-Control"], "no-store")

    def test_who_has_it_is_told_that_it_stands(self) -> None:
        tag = self.tag()
        with self.assertNumQueries(3):
            answer = self.client.get(self.address, headers={"If-None-Match": tag})
        self.assertEqual((answer.status_code, answer.content, answer["ETag"]), (304, b"", tag))
        self.entry(self.open, "serial", "12", self.get(f"jobs/{self.open.pk}")["serial"])
        answer = self.client.get(self.address, headers={"If-None-Match": tag})
        self.assertEqual((answer.status_code, answer.json()["serial"]), (200, "12"))

    def test_an_entry_leaves_the_sheet_that_it_answers(self) -> None:
        shown = self.entry(self.open, "serial", "12", self.get(f"jobs/{self.open.pk}")["serial"])
        with patch("jobs.api._shown", side_effect=AssertionError("worked out anew")):
            self.assertEqual(self.client.get(self.address).json(), shown)

    def test_another_depot_sees_nothing_of_it(self) -> None:
        tag = self.tag()
        answer = other_client("ildro").get(self.address, headers={"If-None-Match": tag})
        self.assertEqual(answer.status_code, 404)
        self.assertEqual(Client().get(self.address, headers={"If-None-Match": tag}).status_code, 401)

    def test_an_id_that_is_none_is_no_job(self) -> None:
        """A defect: what looked like an id and was none was answered as if the server had failed."""
        for odd in ("2FF60C087300DaE-7E0-39AfDe9Fa1C5eea.3", "-" * 36, "0" * 33):
            self.get(f"jobs/{odd}", 404)
        self.get(f"jobs/{self.open.pk}.9", 422)

    def test_whatever_it_hangs_on_makes_it_another_one(self) -> None:
        original = self.job(4).original_revision
        assert original is not None
        board = original.board
        picture = BoardPicture(
            id=uuid4(), depot=self.open.depot, part_number=board.part_number, of="board", under=True, width=4, height=3,
            digest="0" * 64, added_at=timezone.now(), file="x.png",
        )  # fmt: skip
        changes: dict[str, Callable[[], Any]] = {
            "the job": lambda: Job.objects.filter(pk=self.open.pk).update(complaint="it hums"),
            "its board, withdrawn": lambda: Board.objects.filter(pk=board.pk).update(
                withdrawn={"why": "burns", "successor": "OFN-U3", "same": True, "by": "Corm", "at": "2026-03-01"}
            ),
            "its depot's policies": lambda: Depot.objects.filter(code="SQ").update(school_when_agreed="table"),
            "who opened it": lambda: Person.objects.filter(username="wennick").update(first_name="Wen"),
            "a guide": lambda: Guide.objects.filter(kind="adapters").update(current=None),
        }
        for what, change in changes.items():
            tags = {self.tag(), self.tag(f"{self.address}/wiring")}
            change()
            self.assertTrue(tags.isdisjoint({self.tag(), self.tag(f"{self.address}/wiring")}), what)
        of_the_board: dict[str, Callable[[], Any]] = {
            "a picture under its drawing": picture.save,
            "what its kind is called": lambda: Family.objects.filter(code=board.family_id).update(title="Oven"),
        }
        for what, change in of_the_board.items():
            tag = self.tag(f"{self.address}/boards/original")
            change()
            self.assertNotEqual(self.tag(f"{self.address}/boards/original"), tag, what)
        with patch.object(kept_answers, "SOURCE", "another source"):
            tag = self.tag()
        self.assertNotEqual(self.tag(), tag)

    def test_every_part_that_is_kept_is_what_it_would_be_anew(self) -> None:
        for number in (3, 4, 10):
            job = self.job(number)
            for part in kept_answers.PARTS:
                address = f"/api/jobs/{job.pk}/{part}".rstrip("/")
                first, again = self.client.get(address), self.client.get(address)
                self.assertEqual((first.status_code, first.content), (again.status_code, again.content), address)
                self.assertEqual("ETag" in again, again.status_code == 200, address)

    def test_what_is_only_said_of_handing_over_changes_nothing_of_the_plan(self) -> None:
        for number in (3, 4, 5):
            job = self.job(number)
            addresses = [f"/api/jobs/{job.pk}/{part}" for part in kept_answers.OF_THE_PLAN]
            before = {each: self.client.get(each) for each in addresses}
            self.entry(job, f"defect.{uuid4()}", {"what": "door seal torn", "until": "2026-05-01", "who": "Corm"})
            self.entry(job, "spent.minutes", 42)
            for address, first in before.items():
                self.assertEqual(self.client.get(address).headers.get("ETag"), first.headers.get("ETag"), address)
            KeptAnswer.objects.all().delete()
            for address, first in before.items():
                self.assertEqual(self.client.get(address).content, first.content, address)

    def test_candidates_hang_on_all_of_the_catalogue(self) -> None:
        address = f"/api/jobs/{self.job(3).pk}/candidates?page=1&size=12"
        changes: dict[str, Callable[[], Any]] = {
            "a board withdrawn": lambda: Board.objects.filter(part_number="OFN-U3").update(withdrawn={"why": "burns"}),
            "a kind": lambda: Family.objects.filter(code="deck-oven").update(title="Oven"),
            "a guide": lambda: Guide.objects.filter(pk=Guide.objects.all()[0].pk).update(current=None),
            "a statement": lambda: Statement.objects.filter(original="TVH-2210-B").update(words="as it stands"),
            "an outcome": lambda: Outcome.objects.create(original="a", replacement="b", result="worked", at=timezone.now(), job=uuid4()),
            "an offer": lambda: Offer.objects.update_or_create(part_number="OFN-U9", defaults={"price": 4, "answered_at": timezone.now()}),
            "another offer": lambda: Offer.objects.filter(part_number="OFN-U9").update(price=5),
        }  # fmt: skip
        tags = [self.tag(address)]
        self.assertEqual(self.tag(address), tags[0])
        for what, change in changes.items():
            change()
            self.assertNotIn(self.tag(address), tags, what)
            tags.append(self.tag(address))

    def test_that_the_parts_desk_is_asked_changes_nothing_of_what_it_said(self) -> None:
        """A defect: whoever looked first, or after twenty seconds, had the desk asked, and what was kept was of no use to the next."""
        address = f"/api/jobs/{self.job(3).pk}/candidates?page=1&size=12"
        Offer.objects.all().delete()
        first = self.tag(address)
        self.assertTrue(Offer.objects.filter(asked_at__isnull=False, answered_at__isnull=True).exists())
        Offer.objects.update(asked_at=timezone.now() - timedelta(hours=1))
        KeptAnswer.objects.all().delete()
        self.assertEqual(self.tag(address), first)
        self.assertFalse(Offer.objects.filter(asked_at__lt=timezone.now() - timedelta(minutes=30)).exists())

    def test_what_changed_long_ago_is_let_go_and_no_version_comes_back(self) -> None:
        """A defect: a hundred thousand boards loaded one by one made looking for the version cost 170 ms."""
        board, versions = Board.objects.all()[0], []
        address = f"/api/jobs/{self.job(3).pk}/candidates?page=1&size=12"
        for number in range(420):
            board.save(update_fields=["status"])
            if number % 60 == 0:
                versions.append(self.tag(address))
        self.assertLess(CatalogueChange.objects.count(), 210)
        self.assertEqual(len(set(versions)), len(versions))

    def test_what_is_not_whole_is_not_kept(self) -> None:
        address = f"/api/jobs/{self.job(3).pk}/candidates"
        for each in caches.all():  # what is kept needs no time
            each.clear()
        with patch("jobs.candidates.LONGEST_S", -1.0):
            shown = self.client.get(address)
        self.assertEqual((shown.json()["whole"], "ETag" in shown), (False, False))
        self.assertTrue(self.client.get(address).json()["whole"])

    def test_it_goes_packed_to_who_takes_it_so(self) -> None:
        plain = self.client.get(self.address)
        for _ in range(2):
            packed = self.client.get(self.address, headers={"Accept-Encoding": "gzip"})
            self.assertEqual((packed["Content-Encoding"], packed["Vary"]), ("gzip", "Accept-Encoding, Cookie"))
            self.assertEqual(gzip.decompress(packed.content), plain.content)

    def test_only_what_a_page_asks_for_is_kept_and_old_answers_go(self) -> None:
        for query in ("?page=2", "?size=100", "?x=1"):
            self.assertNotIn("ETag", self.client.get(f"{self.address}/entries{query}"))
        self.assertEqual(KeptAnswer.objects.count(), 0)
        self.client.get(f"{self.address}/entries?page=1")
        now = timezone.now()
        self.assertEqual(kept_answers.forget_old(now), 0)
        self.assertEqual(kept_answers.forget_old(now + timedelta(days=8)), 1)
