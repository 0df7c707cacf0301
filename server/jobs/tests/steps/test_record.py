"""The record over the API: what needs power, wires and the diagram, blind readings, pictures, and the choice again."""

import io
import tempfile
from http.server import ThreadingHTTPServer
from threading import Thread
from typing import Any
from unittest.mock import patch
from uuid import uuid4

import httpx
from django.conf import settings
from django.test import override_settings
from PIL import Image, ImageDraw

from catalogue.models import Board
from jobs.models import Picture
from jobs.ports.reading import TIME_OUT_S
from jobs.tests.world import FrontTestCase
from standins.board_port import MOODS, PortServer, SteppedClock, control_of, live_board
from twincore.job import as_said
from twincore.profile import factory_record, open_document


class Recording(FrontTestCase):
    def setUp(self) -> None:
        super().setUp()
        self.open = self.job(3)

    def wire(self, name: str, connector: str, pin: Any, status: int = 200, **more: Any) -> Any:
        return self.entry(self.open, f"wire.{name}", {"connector": connector, "pin": str(pin), **more}, status=status)

    def test_wires_are_checked_against_the_board_and_the_diagram_is_settled_before_carrying_on(self) -> None:
        self.assertIn("pin", self.wire("w1", "C1", 44, 422)["faults"][0]["place"])
        self.wire("w1", "C9", 1, 422)
        self.wire("w1", "C1", 1, 422, mm2=-2)
        for pin in range(1, 9):
            self.wire(f"w{pin}", "C1", pin, tag=str(pin), colour="black", mm2=1.5)
        self.assertEqual(self.of("record")["findings"], [])
        self.entry(self.open, "wire.w5", {"connector": "C1", "pin": "5", "signal": "alarm.lamp"},
                   self.get(f"jobs/{self.open.pk}")["wires"]["w5"])  # fmt: skip
        found = self.of("record")["findings"]
        self.assertEqual([(f["place"], f["words"]) for f in found],
                         [("C1.5", "The diagram says Gas valve, line side; the wire goes to Alarm lamp.")])  # fmt: skip
        self.assertIn("not settled with the wiring diagram: C1.5", self.of("record")["missing"])
        self.entry(self.open, "settled.C1.5", {"as": "it looked odd"}, status=422)
        self.assertIn(
            "is recorded on C1.5",
            self.entry(self.open, "settled.C1.5", {"as": "no wire was there"}, status=400)["detail"],
        )
        self.entry(self.open, "settled.C1.55", {"as": "no wire was there"}, status=422)
        self.entry(self.open, "settled.C1.4", {"as": "was wired wrong"}, status=422)
        by_pin = self.plan("C1.5", "machine was modified")
        self.assertEqual(by_pin, "C1.5")
        self.assertEqual(self.plan("C1.5", "was wired wrong"), "C1.6")

    def plan(self, place: str, how: str) -> Any:
        before = self.get(f"jobs/{self.open.pk}")["settled"].get(place)
        self.entry(self.open, f"settled.{place}", {"as": how, "note": "followed to the end"}, before)
        return next(w["to_place"] for w in self.of("wiring")["wires"] if w["id"] == "w5")

    def test_a_plug_that_goes_on_one_way_needs_no_wires(self) -> None:
        self.entry(self.open, "plug.C1", "whole")
        # a plug of one pin goes on one way, keyed or not
        self.entry(self.open, "plug.C3", "whole")
        self.entry(self.open, "plug.C3", None, "whole")
        self.assertIn("moves without a record", self.wire("w1", "C1", 1, 400)["detail"])
        self.entry(self.open, "plug.C3", "one by one")
        self.assertEqual([w["treatment"] for w in self.of("wiring")["wires"] if w["id"] == "C3.1"], ["single"])
        self.entry(self.open, "plug.C3", None, "one by one")
        self.wire("ht", "C3", 1)
        self.assertIn("wires not recorded: C2", self.of("record")["missing"])

    def test_a_pin_without_a_wire_waits_until_somebody_says_that_none_was_there(self) -> None:
        for pin in range(1, 8):
            self.wire(f"w{pin}", "C1", pin)
        self.wire("l1", "C2", 2)
        found = {each["place"]: each["missing"] for each in self.of("record")["findings"]}
        self.assertEqual(found, {"C2.3": True, "C2.4": True, "C2.6": True})
        told = "no wire recorded, and not said that none was there: C2.3, C2.4, C2.6"
        self.assertIn(told, self.of("record")["missing"])
        for place in found:
            self.entry(self.open, f"settled.{place}", {"as": "no wire was there", "note": ""})
        self.assertEqual(self.of("record")["missing"], ["not read: S1", "wires not recorded: C3"])

    def test_wires_do_not_go_straight_where_one_of_them_has_no_place(self) -> None:
        self.assertTrue(all(plug["one_by_one"] for plug in self.of("record")["plugs"]))
        other = self.get("board/TVH-2214-A")["document"]
        other["connectors"][2]["pins"][0].pop("signal")
        self.sign_in("corm")
        self.post("documents", other)
        self.sign_in()
        self.entry(self.open, "replacement", "TVH-2214-A", "TVH-2214-A", reason="its new revision")
        self.assertEqual([p["id"] for p in self.of("record")["plugs"] if not p["one_by_one"]], ["C3"])
        self.assertIn("Record its wires", self.entry(self.open, "plug.C3", "one by one", status=400)["detail"])

    def test_a_second_reading_is_blind_and_a_difference_is_settled_by_reading_again(self) -> None:
        self.assertIn("first", self.entry(self.open, "blind.S1", "010110", status=400)["detail"])
        self.add("found.S1", "010110", read_how="by eye")
        self.entry(self.open, "blind.S1", "011110")
        found = self.of("record")["differing"]
        self.assertEqual([(d["element"], d["first"], d["second"]) for d in found], [("S1", "010110", "011110")])
        self.assertIn("two readings differ: S1", self.of("record")["missing"])
        self.add("found.S1", "011110", before="010110", read_how="by eye, twice")
        self.assertEqual(self.of("record")["differing"], [])

    def test_a_test_mode_found_on_is_a_temporary_state_and_is_not_carried_over(self) -> None:
        self.add("found.S1", "010111", read_how="by eye")
        self.assertEqual(
            self.of("record")["acting"], ["S1.6: Test run, waiting times cut short, ends by itself after ten minutes"]
        )
        self.assertEqual(self.of("comparison")["acting"][0]["point"], "S1.6")
        self.entry(self.open, "temporary.link", {"what": "Shorting link on the air switch pins"})
        self.entry(self.open, "temporary.link2", {"what": " "}, status=422)

    def test_what_comes_off_is_logged_in_order_and_leftovers_are_counted(self) -> None:
        names = [str(uuid4()) for _ in range(3)]
        for name, kind, count in zip(names, ("panel", "screw", "screw"), (1, 4, 2), strict=True):
            self.entry(self.open, f"removed.{name}", {"what": kind, "kind": kind, "count": count, "place": "front"})
        self.entry(self.open, f"removed.{uuid4()}", {"what": "x", "kind": "magnet"}, status=422)
        self.entry(self.open, "removed.1", {"what": "x", "kind": "screw"}, status=422)
        log = self.get(f"jobs/{self.open.pk}")["removed"]
        self.assertEqual(sorted(log, key=lambda name: log[name]["n"]), names)
        self.assertEqual(self.of("record")["removed_left"], 7)
        self.entry(self.open, f"removed.{names[1]}", {**as_said(log[names[1]]), "back": True}, log[names[1]])
        self.assertEqual(self.of("record")["removed_left"], 3)

    def test_the_complete_record_reopens_a_choice_that_is_worse_now(self) -> None:
        self.open = self.job(6)
        self.add("original", "TVH-2210-B")
        self.add("replacement", "TVH-2205")
        self.make_dead(self.open)
        # it has the factory's times, but not those that are found
        self.add("found.S1", "111110", read_how="by eye")
        self.record_plugs(self.open)
        shown = self.add("confirmed.record", {"note": ""})
        again = shown["rejudged"]
        self.assertEqual([(c["board"], c["what"]) for c in again["changes"]][:1], [("TVH-2205", "worse")])
        step = {s["id"]: s for s in shown["steps"]}
        self.assertIn("choose", step["carry_over"]["waits_for"])
        kept = self.add(
            "replacement", "TVH-2205", before="TVH-2205", reason="The post-purge that it misses is not used here"
        )
        self.assertIsNone(kept["rejudged"])
        self.assertNotIn("choose", {s["id"]: s for s in kept["steps"]}["carry_over"]["waits_for"])

    def test_a_criterion_that_came_later_speaks_against_nobodys_choice(self) -> None:
        self.open = self.job(6)
        self.add("original", "TVH-2210-B")
        self.add("replacement", "TVH-2210-C")
        # as if chosen before anybody looked at surroundings, and of a board that does not say what it stands
        job = self.job(6)
        for each in job.state["choice"]["alternatives"]:
            del each["cells"]["surroundings"]
        job.save()
        self.enterContext(patch.dict("jobs.candidates._kept", clear=True))  # what was read of boards before
        board = Board.objects.get(part_number="TVH-2210-C")
        board.traits = {name: value for name, value in board.traits.items() if name != "surroundings"}
        board.save()
        self.make_dead(self.open)
        self.add("found.S1", "000000", read_how="by eye")
        self.record_plugs(self.open)
        self.assertIsNone(self.add("confirmed.record", {"note": ""})["rejudged"])
        listed = self.get(f"jobs/{self.open.pk}/candidates")["items"]
        mine = next(each for each in listed if each["part_number"] == "TVH-2210-C")
        self.assertEqual(mine["verdict"], "to check")  # it does count for whoever looks now


def jpeg(width: int = 60, height: int = 30, orientation: int | None = None, place: bool = False) -> bytes:
    image = Image.new("RGB", (width, height), "white")
    exif = Image.Exif()
    if orientation:
        exif[0x0112] = orientation
    if place:
        exif.get_ifd(0x8825)[2] = (51.0, 30.0, 0.0)
    out = io.BytesIO()
    image.save(out, "JPEG", exif=exif)
    return out.getvalue()


class Pictures(FrontTestCase):
    def setUp(self) -> None:
        super().setUp()
        self.open = self.job(3)
        folder = self.enterContext(tempfile.TemporaryDirectory())
        self.enterContext(override_settings(MEDIA_ROOT=folder))

    def send(self, data: bytes, status: int = 200, name: str | None = None) -> Any:
        name = name or str(uuid4())
        path = f"/api/jobs/{self.open.pk}/pictures/{name}"
        return self.answer(self.client.post(path, data, content_type="image/jpeg"), status)

    def test_a_picture_is_turned_upright_and_loses_where_it_was_taken(self) -> None:
        kept = self.send(jpeg(60, 30, orientation=6, place=True))
        self.assertEqual((kept["width"], kept["height"]), (30, 60))
        data = b"".join(self.client.get(f"/api/jobs/{self.open.pk}/pictures/{kept['id']}").streaming_content)
        image = Image.open(io.BytesIO(data))
        self.assertEqual((image.size, dict(image.getexif())), ((30, 60), {}))
        marked = {"caption": "C1 before", "of": "C1", "marks": [{"x": 0.5, "y": 0.25, "text": "brown"}]}
        shown = self.entry(self.open, f"picture.{kept['id']}", marked)
        self.assertEqual(shown["pictures"][kept["id"]]["marks"][0]["text"], "brown")
        self.entry(self.open, f"picture.{uuid4()}", marked, status=422)
        self.entry(self.open, f"picture.{kept['id']}", {**marked, "marks": [{"x": 2, "y": 0}]}, marked, 422)

    def test_sending_twice_keeps_one_and_a_large_one_is_made_smaller(self) -> None:
        name = str(uuid4())
        self.assertEqual(self.send(jpeg(), name=name), self.send(jpeg(90, 90), name=name))
        self.assertEqual(Picture.objects.count(), 1)
        self.assertEqual(self.send(jpeg(4800, 1200))["width"], 2400)

    def test_what_is_no_picture_is_refused_and_nothing_is_kept(self) -> None:
        gif = io.BytesIO()
        Image.new("P", (9, 9)).save(gif, "GIF")
        for data in (b"", b"not a picture", jpeg()[:200], gif.getvalue(), b"<svg xmlns='http://www.w3.org/2000/svg'/>"):
            self.assertIn("expected JPEG, PNG or WebP", self.send(data, 422)["detail"])
        huge = io.BytesIO()
        Image.new("1", (9000, 9000)).save(huge, "PNG")
        self.assertIn("million pixels", self.send(huge.getvalue(), 422)["detail"])
        self.assertEqual(Picture.objects.count(), 0)

    def test_a_bank_is_proposed_from_its_corners_and_bad_corners_are_told(self) -> None:
        bank = Image.new("L", (240, 80), 60)
        for place, on in enumerate((0, 1, 0, 1, 1, 0)):
            bank.paste(215, (place * 40 + 10, 6 if on else 42, place * 40 + 30, 38 if on else 74))
        out = io.BytesIO()
        bank.convert("RGB").save(out, "PNG")
        kept = self.send(out.getvalue())
        corners = [{"x": x, "y": y} for x, y in ((0, 0), (1, 0), (1, 1), (0, 1))]
        path = f"jobs/{self.open.pk}/pictures/{kept['id']}/bank"
        read = self.post(path, {"element": "S1", "corners": corners})
        self.assertEqual(read["written"], "010110")
        self.assertTrue(all(each["confidence"] > 0.8 for each in read["sliders"]))
        self.assertIn("clockwise", self.post(path, {"element": "S1", "corners": corners[::-1]}, 422)["detail"])
        self.post(path, {"element": "S9", "corners": corners}, 400)
        self.assertEqual(self.get(f"jobs/{self.open.pk}")["found"], {})

    def test_thumbwheels_are_proposed_digit_by_digit(self) -> None:
        self.open = self.job(6)
        self.add("original", "QN7-0056")
        windows = Image.new("L", (96, 64), 235)
        pen = ImageDraw.Draw(windows)
        pen.line([(24, 12), (24, 52)], fill=20, width=6)
        pen.line([(60, 12), (86, 12), (70, 52)], fill=20, width=6)
        out = io.BytesIO()
        windows.save(out, "PNG")
        kept = self.send(out.getvalue())
        corners = [{"x": x, "y": y} for x, y in ((0, 0), (1, 0), (1, 1), (0, 1))]
        path = f"jobs/{self.open.pk}/pictures/{kept['id']}/bank"
        read = self.post(path, {"element": "W1", "corners": corners, "sliders": "dark"})
        self.assertEqual((read["written"], [each["mark"] for each in read["sliders"]]), ("17", ["1", "7"]))
        # digits lighter than their ground: there are none here
        self.assertEqual(self.post(path, {"element": "W1", "corners": corners})["written"], "??")
        self.assertIn("no row of thumbwheels", self.post(path, {"element": "R1", "corners": corners}, 400)["detail"])


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
