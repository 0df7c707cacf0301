"""The desk's stand-in over real HTTP, in each of its moods."""

import json
from datetime import timedelta
from threading import Thread
from typing import ClassVar
from unittest.mock import patch

import httpx
from django.test import override_settings

from jobs.tests.world import NOW, WorldTestCase
from parts import desk, queries
from parts.actions import want_offers
from parts.models import Offer
from parts.tasks import ask_parts_desk
from standins.parts_desk import MOODS, serve


class PartsDesk(WorldTestCase):
    url: ClassVar[str]

    @classmethod
    def setUpClass(cls) -> None:
        super().setUpClass()
        server = serve()
        cls.url = f"http://127.0.0.1:{server.server_address[1]}"
        Thread(target=server.serve_forever, daemon=True).start()
        cls.addClassCleanup(server.server_close)
        cls.addClassCleanup(server.shutdown)

    def setUp(self) -> None:
        self.enterContext(override_settings(PARTS_DESK_URL=self.url))
        self.mood("well")

    def mood(self, mood: str, status: int = 200) -> None:
        self.assertEqual(httpx.put(f"{self.url}/mood", json={"mood": mood}).status_code, status)

    def test_well_it_answers_the_same_each_time_and_knows_what_it_does_not_know(self) -> None:
        first, again = desk.ask("TVH-2210-C"), desk.ask("TVH-2210-C")
        assert first
        self.assertEqual(first, again)
        self.assertGreater(first.price, 0)
        self.assertIsNone(desk.ask("SQ-TVH-2210-C"))

    def test_each_other_mood_is_a_desk_that_is_away_and_says_why(self) -> None:
        told = {
            "slow": "took too long",
            "failing": "error 503",
            "nonsense": "made no sense",
            "away": "cannot be reached",
        }
        self.assertEqual({"well", *told}, set(MOODS))
        for mood, words in told.items():
            self.mood(mood)
            with self.subTest(mood), patch.object(desk, "TIME_OUT_S", 0.3), self.assertRaises(desk.DeskAway) as caught:
                desk.ask("TVH-2210-C")
            self.assertIn(words, str(caught.exception))
        self.mood("sulking", 400)

    def test_what_it_said_last_stays_and_ages_while_it_is_away(self) -> None:
        Offer.objects.create(part_number="TVH-2210-C", asked_at=NOW)
        ask_parts_desk.func(["TVH-2210-C"])
        known = Offer.objects.get(part_number="TVH-2210-C")
        assert known.answered_at
        self.mood("failing")
        with self.assertRaises(desk.DeskAway):
            ask_parts_desk.func(["TVH-2210-C"])
        later = queries.offers(["TVH-2210-C"], known.answered_at + timedelta(hours=3))["TVH-2210-C"]
        self.assertEqual((later["price"], later["age_s"]), (float(known.price or 0), 3 * 3600))
        self.assertIn("503", later["fault"])
        self.mood("well")
        ask_parts_desk.func(["TVH-2210-C", "LRT-X"])
        self.assertEqual(Offer.objects.get(part_number="TVH-2210-C").fault, "")

    def test_a_page_never_waits_and_asks_again_only_when_an_answer_is_old(self) -> None:
        with patch("parts.actions.ask_parts_desk.defer") as defer:
            want_offers(["A", "B"], NOW)
            defer.assert_called_once_with(part_numbers=["A", "B"])
            want_offers(["A", "B"], NOW + timedelta(seconds=5))
            self.assertEqual(defer.call_count, 1)
            Offer.objects.filter(part_number="A").update(answered_at=NOW, price=3, stock=1)
            want_offers(["A", "B"], NOW + timedelta(seconds=60))
            defer.assert_called_with(part_numbers=["B"])
            want_offers(["A"], NOW + timedelta(minutes=11))
            defer.assert_called_with(part_numbers=["A"])

    def test_without_a_desk_there_is_none(self) -> None:
        with override_settings(PARTS_DESK_URL=""), self.assertRaises(desk.DeskAway):
            desk.ask("A")

    def test_an_answer_about_another_part_is_not_taken(self) -> None:
        answer = {"part_number": "B", "price": 1, "stock": 1}
        client = httpx.Client(
            transport=httpx.MockTransport(lambda request: httpx.Response(200, content=json.dumps(answer)))
        )
        with self.assertRaises(desk.DeskAway):
            desk.ask("A", client)
