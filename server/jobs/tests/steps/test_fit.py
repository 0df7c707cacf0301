"""Fit: what must be there, set, moved and looked at; power back in order; and with power, keys and port."""

from typing import Any

from django.conf import settings
from django.test import override_settings

from jobs.models import Job
from jobs.tests.steps.test_record_port import patch_time_out
from jobs.tests.world import WorldTestCase
from standins.board_port import PortServer, SteppedClock, live_board
from twincore.profile import parse_board
from twincore.profile.values import plain
from twincore.service_port import registers_of


class FitTestCase(WorldTestCase):
    """A one-stage oven whose plan is confirmed, at the dead machine."""

    original, replacement, bank = "TVH-2210-B", "TVH-2214-A", "010110"

    def setUp(self) -> None:
        self.sign_in()
        self.open = self.job(3)
        self.planned()

    def planned(self) -> None:
        job = self.open
        self.entry(job, "found.S1", self.bank, read_how="by eye")
        self.record_plugs(job)
        self.entry(job, "confirmed.record", {"note": ""})
        self.entry(job, "confirmed.carry_over", {"note": ""})

    def of(self, what: str) -> Any:
        return self.get(f"jobs/{self.open.pk}/{what}")

    def add(self, target: str, after: Any, status: int = 200, **more: Any) -> Any:
        return self.entry(self.open, target, after, status=status, **more)

    def release(self) -> list[str]:
        return [each["id"] for each in self.of("fitting")["release"]]


class DeadWork(FitTestCase):
    def test_what_is_missing_before_power_is_named_and_power_waits_for_it_or_for_a_reason(self) -> None:
        missing = self.of("fitting")["missing_dead"]
        self.assertIn("set and read back: SW1, R1", missing)
        self.assertTrue(any("not moved" in each for each in missing))
        problem = self.add("energised", {"released": self.release()}, 400)
        self.assertIn("the board not mounted", problem["detail"])
        self.assertEqual(problem["missing"], missing)
        shown = self.add("energised", {"released": self.release()}, reason="Only to see the lamp")
        self.assertEqual(shown["energised"]["left"], missing)
        self.assertIn("Only to see the lamp", " ".join(self.of("hand-over")["decisions"]))

    def test_hold_points_are_released_from_the_last_to_the_first(self) -> None:
        order = self.release()
        self.assertEqual((order[-1], order[0]), ("isolate", "static"))
        for wrong in (order[::-1], order[1:], [*order, "isolate"]):
            self.assertIn("from the last to the first", self.add("energised", {"released": wrong}, 422)["detail"])
        self.put_back_on(self.open)
        again = self.job(3)
        self.assertEqual(again.state["energised"]["released"], order)
        self.assertEqual(set(again.state["energised"]["held"]) | {"stored"}, set(order))

    def test_a_position_read_back_otherwise_than_planned_is_told_and_stands_in_the_way(self) -> None:
        self.add("readback.SW1", {"value": "0110"}, read_how="by eye")
        fitting = self.of("fitting")
        self.assertEqual(fitting["differing"], ["SW1"])
        self.assertIn("reads otherwise than planned: SW1", fitting["missing_dead"])
        self.add("readback.R1", {"value": "77"}, 422)
        self.add("readback.R1", "6", 422)
        self.add("readback.S9", {"value": "01"}, 422)
        self.entry(self.open, "readback.SW1", {"value": "0111"}, {"value": "0110"}, read_how="by eye")
        self.assertEqual(self.of("fitting")["differing"], [])

    def test_the_kit_is_counted_and_what_is_missing_is_named(self) -> None:
        for line in self.of("fitting")["kit"]:
            self.add(f"kit.{line['item']}", 0)
        short = [line["item"] for line in self.of("fitting")["kit"] if line["needed"] == "needed"]
        told = " ".join(self.of("fitting")["missing_dead"])
        for item in short:
            self.assertIn(item, told)
        self.add("kit.golden screws", 1, 422)
        for after in (-1, True, "two", 1.5):
            self.add(f"kit.{short[0]}" if short else "kit.x", after, 422)

    def test_wires_move_only_while_the_machine_is_dead(self) -> None:
        self.put_back_on(self.open)
        step = self.of("wiring")["steps"][0]["key"]
        self.assertIn("make safe", self.entry(self.open, f"ticked.{step}", None, True, 400)["detail"])
        self.entry(self.open, "hold.isolate", {"where": "main switch", "tag": "9"})
        shown = self.get(f"jobs/{self.open.pk}")
        self.assertEqual((shown["energised"], shown["step"]), (None, "make_safe"))
        self.make_dead(self.open)
        self.entry(self.open, f"ticked.{step}", None, True)

    def test_what_killed_the_old_board_keeps_the_new_one_without_power(self) -> None:
        self.add("cause.short", {"note": "fan winding to earth", "cleared": False})
        problem = self.entry(self.open, "energised", {"released": self.release()}, reason="in a hurry", status=400)
        self.assertIn("cause", problem["detail"])

    def test_another_choice_starts_the_fitting_anew_and_keeps_the_runs(self) -> None:
        self.fit(self.open)
        run = self.measured(self.open, self.of("proving")["runs"][0])
        self.add("run.0b0e5f3e-54bb-4d0a-9f0b-0c3f0f2b7a01", run)
        shown = self.entry(self.open, "replacement", "OFN-U3", before="TVH-2214-A", reason="did not light")
        self.assertEqual((shown["readbacks"], shown["looks"], shown["ticked"], shown["energised"]), ({}, {}, {}, None))
        self.assertEqual(shown["run_count"], 1)


class LastLook(FitTestCase):
    """The same board with a plug of another style: its wires need new ends."""

    def planned(self) -> None:
        self.sign_in("corm")
        text = self.client.get("/api/board-file/TVH-2214-A").content.decode()
        changed = text.replace('"style": "KM-6"', '"style": "XX-6"').replace('"QL-8"', '"XX-8"')
        self.assertNotEqual(text, changed)
        self.answer(self.client.post("/api/documents", changed, content_type="application/json"), 200)
        self.sign_in()
        self.entry(self.open, "replacement", "TVH-2214-A", before="TVH-2214-A", again=True, reason="as changed")
        super().planned()

    def entry(self, job: Job, target: str, after: Any, before: Any = None, status: int = 200, **more: Any) -> Any:
        more.pop("again", None)
        if target == "replacement":
            super().entry(job, "replacement", None, before)
            before = None
        return super().entry(job, target, after, before, status, **more)

    def test_nothing_is_cut_before_somebody_had_a_last_look(self) -> None:
        fitting = self.of("fitting")
        self.assertTrue(fitting["no_plugs"])
        told = fitting["no_plugs"][0]
        self.assertIn("No plug of the new board", told["words"][0])
        problem = self.add(f"ticked.{told['step']}", True, 400)
        self.assertIn("last look", problem["detail"])
        # one last look for all wires of a plug
        lasts = [look["key"] for look in fitting["looks"] if look["group"] == "last look"]
        self.assertEqual((len(lasts), lasts[0]), (len({each["look"] for each in fitting["no_plugs"]}), told["look"]))
        self.add(f"look.{told['look']}", True)
        self.add(f"ticked.{told['step']}", True)
        self.assertIn("new ends to crimp", [line["item"] for line in fitting["kit"]])


class PowerTestCase(WorldTestCase):
    """The two-stage oven with a board that is set by keys or over its port."""

    def setUp(self) -> None:
        self.sign_in()
        self.open = self.job(2)
        Job.objects.filter(pk=self.open.pk).update(closed_at=None)
        self.open.refresh_from_db()
        state = self.open.state
        for step in ("fit", "prove", "hand_over"):
            del state["confirmed"][step]
        state |= {"readbacks": {}, "reentered": {}, "left": None}
        self.open.save()

    def of(self, what: str) -> Any:
        return self.get(f"jobs/{self.open.pk}/{what}")


class WithPower(PowerTestCase):
    def test_the_simulated_panel_follows_the_plan_press_by_press(self) -> None:
        presses = self.of("presses")["panels"]
        actions: list[str] = []
        for line in presses[0]["presses"]:
            if line["action"] == "open":
                continue
            actions += [line["action"]] * line["times"]
            now = self.post(f"jobs/{self.open.pk}/panel", {"panel": 0, "actions": actions})
            self.assertEqual(now["shows"], line["shows"])
        self.assertTrue(now["reached"])
        planned = self.of("fitting")["planned"]
        self.assertEqual(now["stored"], {name: str(planned[name]) for name in now["stored"]})
        self.post(f"jobs/{self.open.pk}/panel", {"panel": 9, "actions": []}, 400)

    def test_something_else_seen_finds_the_slip_and_the_way_back(self) -> None:
        lines = [line for line in self.of("presses")["panels"][0]["presses"] if line["action"] != "open"]
        made = [line["action"] for line in lines[:3] for _ in range(line["times"])]
        # the last key was pressed once too often: what the panel then shows is what somebody would type
        truth = [*made, made[-1]]
        seen = self.post(f"jobs/{self.open.pk}/panel", {"panel": 0, "actions": truth})["shows"]
        slips = self.post(
            f"jobs/{self.open.pk}/panel/slips", {"panel": 0, "actions": made, "seen": f" {seen.lower()} "}
        )
        found = next(each for each in slips if each["actions"] == truth)
        self.assertIn("once too often", found["words"])
        back = [line["action"] for line in found["back"] for _ in range(line["times"])]
        after = self.post(f"jobs/{self.open.pk}/panel", {"panel": 0, "actions": truth + back})
        self.assertTrue(after["reached"])
        none = self.post(f"jobs/{self.open.pk}/panel/slips", {"panel": 0, "actions": made, "seen": "HELP"})
        self.assertEqual(none, [])
        self.post(f"jobs/{self.open.pk}/panel/slips", {"panel": 0, "actions": ["dance"], "seen": "x"}, 400)

    def test_with_power_everything_is_read_back_and_entered_again(self) -> None:
        missing = " ".join(self.of("fitting")["missing_powered"])
        self.assertIn("not read back: P01", missing)
        self.assertIn("Clock and bake programs", missing)
        self.assertNotIn("Burner starts", missing)
        problem = self.entry(self.open, "confirmed.fit", {"note": ""}, status=400)
        self.assertIn("Clock and bake programs", problem["detail"])
        self.entry(self.open, "reentered.starts", "4182", status=422)
        self.entry(self.open, "reentered.clock", "14:05, programs 1 to 6")
        self.entry(self.open, "confirmed.fit", {"note": "Owner keys the rest"})

    def test_a_learning_run_waits_for_what_must_be_true_before_it(self) -> None:
        self.entry(self.open, "learned", {"cycles": 1, "shown": "1"}, status=422)
        self.open.state["school"] = "learning"
        self.open.save()
        fitting = self.of("fitting")
        self.assertEqual((fitting["learning"]["can_be_stopped"], fitting["learning"]["cycles"]), (False, 1))
        self.assertIn("the learning run", fitting["missing_powered"])
        problem = self.entry(self.open, "learned", {"cycles": 1, "shown": "1"}, status=400)
        self.assertIn("oven cold", problem["detail"])
        for look in fitting["looks"]:
            if look["group"] == "learning":
                self.entry(self.open, f"look.{look['key']}", True)
        for wrong in ({"cycles": -1, "shown": "1"}, {"cycles": 1, "shown": ""}, {"cycles": 1}):
            self.entry(self.open, "learned", wrong, status=422)
        shown = self.entry(self.open, "learned", {"cycles": 1, "shown": "1"})
        self.assertEqual(shown["learned"]["shown"], "1")
        self.assertNotIn("the learning run", self.of("fitting")["missing_powered"])
        # what it found is the plan from then on: in positions, in functions, and in what the twin check says
        (found,) = self.of("fitting")["learned"]
        planned = self.of("fitting")["planned"]
        self.entry(self.open, f"readback.{found}", {"value": 40}, read_how="by eye")
        self.assertEqual(self.of("fitting")["planned"], {**planned, found: 40})
        self.assertEqual(self.of("fitting")["differing"], [])
        self.assertEqual(self.of("comparison")["plan"][found], 40)


class OverThePort(PowerTestCase):
    def setUp(self) -> None:
        super().setUp()
        demo = settings.ROOT / "demo"
        self.live = live_board(
            demo / "families/deck-oven.family.json", demo / "boards/OFN-U5.board.json", None, clock=SteppedClock()
        )
        self.server = PortServer(self.live).start()
        self.addCleanup(self.server.stop)
        self.enterContext(override_settings(NEW_BOARD_PORT=f"127.0.0.1:{self.server.port}"))
        self.enterContext(patch_time_out())

    def write(self, status: int = 200) -> Any:
        return self.post(f"jobs/{self.open.pk}/port/write", {}, status)

    def standing(self) -> Any:
        return plain(dict(self.live.record.points))

    def test_what_is_written_is_read_back_and_compared(self) -> None:
        planned = self.of("fitting")["planned"]
        done = self.write()
        self.assertEqual((done["fault"], done["differ"], done["undone"]), ("", [], None))
        self.assertEqual(done["values"], {name: value for name, value in planned.items() if name != "J1"})
        held = registers_of(self.live.board, self.live.record, {}, 0, 0)
        self.assertEqual(held[16], planned["P01"])

    def test_a_board_that_forgets_is_put_back_and_said_to_be(self) -> None:
        before = self.standing()
        self.live.mood = "forgetful"
        done = self.write()
        self.assertIn("Read back otherwise", done["fault"])
        self.assertEqual((done["undone"], self.standing()), (True, before))

    def test_a_board_that_dies_in_the_middle_leaves_no_doubt_about_how_it_stands(self) -> None:
        self.live.mood = "dead"
        self.assertIn("does not answer", self.write()["fault"])
        self.live.mood = "healthy"
        before, write = self.standing(), self.live.write_setting
        calls: list[int] = []

        def dying(address: int, value: int) -> bool:
            calls.append(address)
            if len(calls) == 3:
                return False  # it refuses one in the middle
            return write(address, value)

        self.live.write_setting = dying  # type: ignore[method-assign]
        done = self.write()
        self.assertIn("refuses", done["fault"])
        self.assertEqual((done["undone"], self.standing()), (True, before))

    def test_nothing_is_written_into_another_board_or_one_without_power(self) -> None:
        other = parse_board(
            (settings.ROOT / "demo/boards/OFN-U5.board.json").read_bytes().replace(b'"OFN-U5"', b'"OFN-U6"')
        )
        before = self.standing()
        self.live.board = other
        self.assertIn("calls itself OFN-U6", self.write(400)["detail"])
        self.assertEqual(self.standing(), before)
        self.open.state["energised"] = None
        self.open.save()
        self.assertIn("no power", self.write(400)["detail"])
