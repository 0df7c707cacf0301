"""What a live board tells over its service port while it is recorded."""

from http.server import ThreadingHTTPServer
from threading import Thread
from typing import Any
from unittest.mock import patch
from uuid import uuid4

import httpx
from django.conf import settings
from django.test import override_settings

from jobs.ports.reading import TIME_OUT_S
from jobs.tests.world import FrontTestCase
from standins.board_port import MOODS, PortServer, SteppedClock, control_of, live_board
from twincore.profile import factory_record, open_document


class Port(FrontTestCase):
    """The board's stand-in over a real connection, in each of its moods."""

    def setUp(self) -> None:
        super().setUp()
        demo = settings.ROOT / "demo"
        self.live = live_board(
            demo / "families/deck-oven.family.json", demo / "boards/TVH-2420-A.board.json", None, clock=SteppedClock()
        )
        self.server = PortServer(self.live).start()
        self.addCleanup(self.server.stop)
        self.enterContext(override_settings(BOARD_PORT=f"127.0.0.1:{self.server.port}"))
        self.enterContext(patch_time_out())
        self.open = self.job(6)
        self.add("original", "TVH-2420-A")

    def read(self) -> Any:
        return self.post(f"jobs/{self.open.pk}/port/read", {})

    def test_a_healthy_board_tells_and_nothing_is_written_over(self) -> None:
        self.add("found.P01", 45, read_how="by eye")
        self.add("found.prog", "1", read_how="by eye")
        read = self.read()
        self.assertEqual((read["identity"], read["fault"]), ("TVH-2420-A", ""))
        values = {each["target"]: each for each in read["values"]}
        self.assertEqual((values["found.P01"]["value"], values["found.P01"]["differs"]), (30, True))
        self.assertFalse(values["found.prog"]["differs"])
        self.assertEqual(values["kept.starts"]["value"], "4182")
        self.assertEqual(self.get(f"jobs/{self.open.pk}")["found"], {"P01": 45, "prog": "1"})
        self.add("found.P02", values["found.P02"]["value"], read_how="read over the port")
        self.add("kept.starts", "4182", read_how="read over the port")
        # a bank that the port tells is not touched: it needs no dead machine, looking at it does
        self.add("found.S1", "00", 400, read_how="by eye")
        self.add("found.S1", values["found.S1"]["value"], read_how="read over the port")
        self.add("kept.nothing", "4182", 422)

    def test_each_mood_ends_cleanly_in_reading_by_eye(self) -> None:
        told = {"dead": "does not answer", "late": "does not answer", "wrong checks": "own check", "locked": "locked"}
        for mood in (each for each in MOODS[1:] if each != "forgetful"):  # that one reads well
            with self.subTest(mood):
                self.live.mood = mood
                read = self.read()
                self.assertIn(told[mood], read["fault"])
                self.assertIn("by eye", read["fault"])
                self.assertEqual(read["values"], [])
        self.live.mood = "healthy"
        with override_settings(BOARD_PORT="127.0.0.1:9"):
            self.assertIn("does not answer", self.read()["fault"])
        with override_settings(BOARD_PORT=""):
            self.post(f"jobs/{self.open.pk}/port/read", {}, 400)

    def test_another_board_on_the_port_is_noticed(self) -> None:
        # the map stays; only the name differs
        other = self.live.board.__class__(**{**{n: getattr(self.live.board, n) for n in self.live.board.__slots__},
                                             "part_number": "TVH-9999"})  # fmt: skip
        self.live.board, self.live.record = other, factory_record(other)
        self.assertIn("calls itself TVH-9999", self.read()["fault"])

    def test_what_was_seen_to_happen_is_kept_as_a_trace(self) -> None:
        trace = {"title": "start", "steps": [{"at": 2, "set": {"call": True}}], "until": 20, "timed": "over the port",
                 "seen": [{"at": 2.1, "output": "fan", "on": True, "within_s": 0.3}]}  # fmt: skip
        name = str(uuid4())
        self.add(f"trace.{name}", {**trace, "seen": [{"at": 90, "output": "fan", "on": True}]}, 422)
        self.add(f"trace.{name}", trace)
        self.assertIn("Choose a replacement", self.of("traces")[0]["fault"])
        self.add("replacement", "OFN-U5")
        for element, value in (("P01", 30), ("P02", 60), ("P03", 60), ("P04", 15), ("prog", "1")):
            self.add(f"found.{element}", value, read_how="by eye")
        shown = self.of("traces")[0]
        self.assertEqual((shown["agrees"], [e["verdict"] for e in shown["events"]]), (True, ["in time"]))
        sheet = open_document(self.client.get(f"/api/jobs/{self.open.pk}/sheet.json").content, "job").root
        self.assertIn(f"trace.{name}", [entry["target"] for entry in sheet["entries"]])
        self.post(f"jobs/{self.open.pk}/draft", {}, 403)
        self.sign_in("corm")
        draft = self.post(f"jobs/{self.open.pk}/draft", {})
        self.assertEqual(draft["made"], {name: True})
        behaviour = draft["behaviour"]
        path = f"jobs/{self.open.pk}/draft"
        states = behaviour["states"]
        silent = {**behaviour, "states": {each: {**state, "on": []} for each, state in states.items()}}
        self.assertEqual(self.post(f"{path}/check", {"behaviour": silent})["made"], {name: False})
        self.assertIn("does not make every run", self.post(f"{path}/load", {"behaviour": silent}, 400)["detail"])
        broken = {**behaviour, "start": "nowhere"}
        self.assertTrue(self.post(f"{path}/check", {"behaviour": broken}, 422)["faults"])
        self.assertIn("written down already", self.post(f"{path}/load", {"behaviour": behaviour}, 400)["detail"])
        self.sign_in()
        self.post(f"{path}/load", {"behaviour": behaviour}, 403)

    def test_the_controls_take_moods_and_inputs_and_refuse_the_rest(self) -> None:
        control = ThreadingHTTPServer(("127.0.0.1", 0), control_of(self.live))
        Thread(target=control.serve_forever, daemon=True).start()
        self.addCleanup(control.server_close)
        self.addCleanup(control.shutdown)
        at = f"http://127.0.0.1:{control.server_address[1]}"
        self.assertEqual(httpx.put(f"{at}/mood", json={"mood": "locked"}).json()["mood"], "locked")
        self.assertTrue(httpx.put(f"{at}/inputs", json={"call": True}).json()["inputs"]["call"])
        for path, body in (("mood", {"mood": "cheerful"}), ("inputs", {"nothing": True}), ("other", {})):
            self.assertEqual(httpx.put(f"{at}/{path}", json=body).status_code, 400)


def patch_time_out() -> Any:
    """A shorter patience than people have, so that a silent board does not hold up the tests."""
    assert TIME_OUT_S > 0.5
    return patch("jobs.ports.reading.TIME_OUT_S", 0.5)
