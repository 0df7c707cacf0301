"""Prove on the machine: the plan, measured runs judged, readings, overrides, and the stream from the port."""

import json
from collections.abc import Iterator
from typing import Any
from uuid import uuid4

from django.conf import settings

from jobs.ports.reading import BoardPort
from jobs.ports.streaming import MOST_STREAMS, stream_port
from jobs.tests.steps.test_fit import FitTestCase
from jobs.tests.steps.test_record_port import patch_time_out
from jobs.tests.world import WorldTestCase
from standins.board_port import PortServer, SteppedClock, live_board
from twincore.service_port import port_map


class OnTheMachine(FitTestCase):
    def setUp(self) -> None:
        super().setUp()
        self.fit(self.open)

    def run_of(self, name: str) -> Any:
        return next(each for each in self.of("proving")["runs"] if each["id"] == name)

    def keep(self, node: dict[str, Any], status: int = 200) -> Any:
        return self.add(f"run.{uuid4()}", node, status)

    def last(self) -> Any:
        return self.of("runs")["items"][0]

    def test_every_input_says_how_it_is_made_here_or_that_it_cannot_be(self) -> None:
        plan = self.of("proving")
        self.assertEqual([run["id"] for run in plan["runs"]][:2], ["no-gas", "bake"])
        steps = self.run_of("bake")["steps"]
        self.assertEqual([(s["input"], s["way"], bool(s["how"])) for s in steps][:3],
                         [("call", "hand", True), ("airflow", "follows", True), ("flame", "follows", True)])  # fmt: skip
        self.assertEqual(self.run_of("too-hot")["cannot"], ["Deck temperature"])
        told = {each["what"]: each["why"] for each in plan["unproved"]}
        self.assertIn("cannot be made here", told["Deck too hot, then cooled"])

    def test_a_run_as_the_board_makes_it_is_as_the_original(self) -> None:
        self.keep(self.measured(self.open, self.run_of("bake")))
        last = self.last()
        self.assertEqual((last["verdict"], last["basis"], last["board"]), ("as the original", "original", "TVH-2214-A"))
        self.assertEqual(self.run_of("bake")["last"], "as the original")
        self.assertEqual(self.of("proving")["doubts"], [])
        self.assertTrue(last["original"] and last["replacement"] and last["measured"])

    def test_a_late_event_is_named_with_its_band_and_likely_reasons_and_stands_in_the_way(self) -> None:
        self.keep(self.measured(self.open, self.run_of("no-gas"), late_s=12, only=("valve",)))
        last = self.last()
        late = next(each for each in last["events"] if each["verdict"] == "late")
        self.assertEqual((last["verdict"], late["output"]), ("off", "valve"))
        self.assertGreater(late["seen_at"] - late["uncertainty"], late["high"])
        self.assertIn("look at C1", late["reasons"][0])
        self.assertTrue(any("%" in each for each in late["reasons"]))
        self.assertIn("Gas valve on late", self.add("confirmed.prove", {"note": ""}, 400)["detail"])
        self.keep(self.measured(self.open, self.run_of("no-gas")))
        self.assertEqual(self.of("proving")["doubts"], [])
        self.add("confirmed.prove", {"note": ""})
        self.assertEqual(self.of("runs")["total"], 2)

    def test_a_short_run_of_ones_own_settles_nothing_that_is_planned(self) -> None:
        run = self.measured(self.open, self.run_of("bake"))
        cut = {name: [each for each in run[name] if each["at"] < 20] for name in ("steps", "seen")}
        own = self.keep({**run, **cut, "until": 20, "plan": "", "title": "Ours"})
        self.assertEqual(len(self.of("proving")["doubts"]), 1, own["id"])
        self.assertIn("only runs of one's own", self.of("proving")["doubts"][0])
        # a planned run that is cut short shows what it showed until then
        self.keep({**run, **cut, "until": 20})
        self.assertEqual(self.of("proving")["doubts"], ["A normal bake: stopped after 20 s of 13 min 20 s"])
        self.keep(run)
        self.assertEqual(self.of("proving")["doubts"], [])

    def test_a_meter_that_shows_ol_is_a_reading(self) -> None:
        self.add("reading.flame", {}, 422)
        shown = self.add("reading.flame", {"beyond": "above"})
        self.assertEqual(shown["readings"]["flame"]["beyond"], "above")
        reading = next(each for each in self.of("proving")["readings"] if each["id"] == "flame")
        # at least 1.5 µA is wanted
        self.assertEqual((reading["verdict"], reading["read"]), ("inside", "more than the meter reads (OL)"))
        self.add("reading.flame", {"value": 1, "beyond": "below"}, before={"beyond": "above"})
        reading = next(each for each in self.of("proving")["readings"] if each["id"] == "flame")
        self.assertEqual((reading["verdict"], reading["read"]), ("outside", "less than 1 µA"))

    def test_nothing_run_takes_a_word(self) -> None:
        self.assertIn("nothing was run", self.add("confirmed.prove", {"note": ""}, 400)["detail"])
        self.add("confirmed.prove", {"note": "Bakery opens in ten minutes"})

    def test_a_check_list_is_gone_through_in_any_order_and_says_what_it_does_not_show(self) -> None:
        plan = self.of("proving")
        lines = [each["id"] for each in plan["checks"]]
        self.assertTrue({"output/fan", "supply", "codes", "leaks"} <= set(lines))
        own = f"own/{uuid4()}"
        self.add("check.leaks", {"ok": False, "note": "drips"})
        self.add(f"check.{own}", {"ok": True, "what": "Door lamp between two positions"})
        plan = self.of("proving")
        self.assertIn("No leak, no smell, nothing hot or loose: not as it should be", plan["doubts"])
        self.assertEqual([(each["words"], each["ok"]) for each in plan["checks"] if each["own"]], [
            ("Door lamp between two positions", True)])  # fmt: skip
        self.add("check.leaks", {"ok": True}, before={"ok": False, "note": "drips"})
        for line in lines:
            if line != "leaks":
                self.add(f"check.{line}", {"ok": True})
        self.assertEqual(
            self.of("proving")["doubts"],
            ["nothing was timed on the machine: that it works does not show that it works as before"],
        )
        self.add("check.weather", {"ok": True}, 422)
        self.add(f"check.own/{uuid4()}", {"ok": True}, 422)

    def test_a_run_that_is_none_is_refused_with_its_place(self) -> None:
        run = self.measured(self.open, self.run_of("bake"))
        for change in ({"seen": [{"at": 5, "output": "oven", "on": True}]}, {"seen": [{"at": 5, "output": "fan", "on": False}]},
                       {"until": 1}, {"steps": [{"at": 3, "set": {"wind": True}}]}):  # fmt: skip
            self.assertTrue(self.keep({**run, **change}, 422)["faults"], change)
        self.keep({**run, "more": 1}, 422)
        self.add("run.mine", run, 422)
        self.keep({**run, "seen": run["seen"] * 200}, 422)

    def test_readings_are_judged_by_the_band_and_what_they_are_read_with(self) -> None:
        shown = {}
        for value in (231.0, 253.5, 260.0):
            self.entry(self.open, "reading.supply", {"value": value}, shown.get("reading"))
            shown["reading"] = {"value": value}
            reading = next(each for each in self.of("proving")["readings"] if each["id"] == "supply")
            shown[value] = reading["verdict"]
        # IEC 60038: 207 to 253 V; read to 1.5 V
        self.assertEqual([shown[v] for v in (231.0, 253.5, 260.0)], ["inside", "cannot tell", "outside"])
        self.assertIn("Supply under load outside", " ".join(self.of("proving")["doubts"]))
        self.add("reading.wind", {"value": 3}, 422)
        self.add("reading.fan", {"value": "3"}, 422)

    def test_an_override_must_be_off_before_the_job_is_proved_or_handed_over(self) -> None:
        name = f"forced.{uuid4()}"
        self.add(name, {"what": "Door switch held", "off": False, "of": "door-held"})
        self.assertEqual(self.get(f"jobs/{self.open.pk}")["forced"][name[7:]]["time_out_s"], 300)
        self.assertIn("Door switch held", self.add("confirmed.prove", {"note": "fine"}, 400)["detail"])
        self.entry(self.open, name, {"what": "Door switch held", "off": True, "of": "door-held"},
                   {"what": "Door switch held", "off": False, "of": "door-held", "time_out_s": 300})  # fmt: skip
        self.add("confirmed.prove", {"note": "fine"})
        # locked off in the middle: that an override is off can be said all the same
        name = f"forced.{uuid4()}"
        self.add(name, {"what": "a bridge", "off": False})
        self.add("hold.isolate", {"where": "main switch", "tag": "9"})
        self.entry(self.open, name, {"what": "a bridge", "off": True}, {"what": "a bridge", "off": False})
        for after in ({"what": "", "off": False}, {"what": "x"}, {"what": "x", "off": False, "time_out_s": -1}):
            self.add(f"forced.{uuid4()}", after, 422)


class CounterCase(WorldTestCase):
    def test_it_comes_first_and_a_board_that_shows_it_on_the_machine_is_found_out(self) -> None:
        self.sign_in()
        job = self.job(5)
        plan = self.get(f"jobs/{job.pk}/proving")
        first = plan["runs"][0]
        self.assertEqual((first["why"], first["cannot"]), ("The counter-case", []))
        self.entry(job, f"run.{uuid4()}", self.measured(job, first))
        run = self.get(f"jobs/{job.pk}/runs")["items"][0]
        self.assertEqual(run["verdict"], "off")
        self.assertIn("The counter-case", " ".join(self.get(f"jobs/{job.pk}/proving")["doubts"]))


class Stream(WorldTestCase):
    def setUp(self) -> None:
        demo = settings.ROOT / "demo"
        self.live = live_board(
            demo / "families/deck-oven.family.json", demo / "boards/OFN-U5.board.json", None, clock=SteppedClock()
        )
        self.server = PortServer(self.live).start()
        self.addCleanup(lambda: self.server.stop())
        self.enterContext(patch_time_out())
        port = port_map(self.live.board)
        assert port is not None
        self.at = BoardPort(self.live.board, port, f"127.0.0.1:{self.server.port}")

    def events(self) -> Iterator[tuple[str, Any]]:
        for text in stream_port(self.at, wait=lambda _: None):
            if text.startswith("event: "):
                name, _, data = text.partition("\n")
                yield name.removeprefix("event: "), json.loads(data.removeprefix("data: "))

    def test_changes_come_as_they_happen_and_a_port_that_dies_and_comes_back_is_told(self) -> None:
        events = self.events()
        name, now = next(events)
        self.assertEqual((name, now["outputs"]), ("now", []))
        self.live.change("call", True)
        name, now = next(events)
        self.assertEqual((name, now["outputs"], "call" in now["inputs"]), ("now", ["fan"], True))
        self.assertGreaterEqual(now["within"], 0)
        port = self.server.port
        self.server.stop()
        self.assertEqual(next(events)[0], "lost")
        self.live.change("call", False)
        self.server = PortServer(self.live, port).start()
        self.assertEqual(next(events)[0], "back")
        name, now = next(events)
        self.assertEqual((name, now["outputs"]), ("now", []))
        events.close()  # type: ignore[attr-defined]

    def test_a_stream_ends_and_no_more_than_a_few_run_at_once(self) -> None:
        ticks = iter(range(1000))
        ended = list(stream_port(self.at, wait=lambda _: None, clock=lambda: float(next(ticks)), longest_s=5))
        self.assertTrue(ended[-1].startswith("event: end"))
        # and within a beat once nobody who may look is signed in any more
        ticks = iter(range(1000))
        left = list(
            stream_port(
                self.at, wait=lambda _: None, clock=lambda: float(next(ticks)), longest_s=500, allowed=lambda: False
            )
        )
        self.assertLess(len(left), 6)
        open_ones = [stream_port(self.at, wait=lambda _: None) for _ in range(MOST_STREAMS)]
        for each in open_ones:
            next(each)
        with self.assertRaises(Exception) as caught:
            stream_port(self.at)
        self.assertIn("Too many screens", str(caught.exception))
        for each in open_ones:
            each.close()  # type: ignore[attr-defined]
        again = stream_port(self.at, wait=lambda _: None)
        next(again)
        again.close()  # type: ignore[attr-defined]


class OwnSwitch(WorldTestCase):
    def test_a_boards_own_test_switch_must_be_read_back_as_off(self) -> None:
        self.sign_in()
        job = self.job(6)
        self.entry(job, "original", "TVH-2210-B")
        self.entry(job, "replacement", "TVH-2210-B")
        name = f"forced.{uuid4()}"
        on = {"what": "Test run", "off": False, "of": "switch/S1.6"}
        shown = self.entry(job, name, on)
        # it ends by itself after ten minutes, and that is not taken on trust
        self.assertEqual(shown["forced"][name.removeprefix("forced.")]["time_out_s"], 600)
        off = {**on, "off": True}
        self.assertIn("Read S1 back", self.entry(job, name, off, {**on, "time_out_s": 600}, 422)["detail"])
        for read in ("000001", "00000?"):
            refused = self.entry(job, name, {**off, "read": read}, {**on, "time_out_s": 600}, 422)
            self.assertIn("S1.6 is not off", refused["detail"])
        shown = self.entry(job, name, {**off, "read": "010110"}, {**on, "time_out_s": 600})
        self.assertEqual(shown["forced"][name.removeprefix("forced.")]["read"], "010110")


class PutBack(WorldTestCase):
    def test_what_a_test_moved_is_said_to_be_back_whether_or_not_the_machine_has_power_again(self) -> None:
        self.sign_in()
        job = self.job(6)
        self.entry(job, "family", "deck-oven")
        self.make_dead(job)
        shown = self.entry(job, "test.look", {"result": "nothing", "as_found": "C1 left"})
        self.assertTrue(shown["tests"]["look"]["undo"])
        self.entry(job, "power", "on", "off")
        # the test itself needs the machine dead; to say that what it moved is back does not, and resets no hold point
        self.entry(
            job,
            "test.look",
            {"result": "damage", "as_found": "C1 left"},
            {"result": "nothing", "as_found": "C1 left"},
            400,
        )
        back = {"result": "nothing", "as_found": "C1 left", "restored": True}
        shown = self.entry(job, "test.look", back, {"result": "nothing", "as_found": "C1 left"})
        self.assertTrue(shown["tests"]["look"]["restored"])
        self.assertEqual(self.get(f"jobs/{job.pk}/rule-out")["to_restore"], [])
        self.assertEqual(self.partings(self.job(6)), [])
