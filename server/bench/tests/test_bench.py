import json
from datetime import UTC, datetime
from typing import Any

from django.conf import settings

from catalogue.actions import load_document
from jobs.tests.world import WorldTestCase
from twinshown.with_you import bag


class Bench(WorldTestCase):
    def setUp(self) -> None:
        self.sign_in()

    def test_two_boards_without_a_job(self) -> None:
        found = self.post(
            "bench/compare", {"original": "TVH-2210-B", "replacement": "OFN-U3", "found": {"S1": "010110"}}
        )
        self.assertEqual(found["plan"], {"SW1": "0111", "R1": "6"})
        self.assertEqual(found["proof"]["verdict"], "different")
        self.assertEqual(
            found["proof"]["told"],
            [
                "At 0 s: Call for heat begins.",
                "At 30 s: Supply on ends, then begins again.",
                "At 30 s the original shows: Alarm lamp, Alarm relay (Locked out).",
                "The replacement shows: Fan (Proving airflow).",
            ],
        )
        copied = next(school for school in found["schools"] if school["id"] == "positions")
        self.assertEqual(copied["says"], ["No place for: S1.5, S1.6."])

    def test_wrong_input_is_refused_with_its_place(self) -> None:
        pair = {"original": "TVH-2210-B", "replacement": "OFN-U3"}
        self.post("bench/compare", {**pair, "replacement": "none"}, 404)
        problem = self.post("bench/compare", {**pair, "found": {"S1": "01"}}, 422)
        self.assertEqual(problem["faults"][0]["place"], "positions.S1")
        self.post("bench/compare", {**pair, "plan": {"R1": "99"}}, 422)
        bad = {"steps": [{"at": 5, "set": {"nothing": True}}, {"at": 1, "set": {}}], "until": 0}
        places = [fault["place"] for fault in self.post("bench/play", {"pair": pair, "scenario": bad}, 422)["faults"]]
        self.assertEqual(places, ["steps[0].set.nothing", "steps[1].at", "until"])
        self.post("bench/play", {"pair": pair, "scenario": {"steps": [{"at": -1, "set": {}}], "until": 1}}, 422)
        unread = {**pair, "found": {"S1": "??????"}}
        self.assertIn(
            "purge.pre", self.post("bench/play", {"pair": unread, "scenario": {"steps": [], "until": 1}}, 422)["detail"]
        )

    def test_both_tracks_of_a_scenario(self) -> None:
        pair = {"original": "TVH-2210-B", "replacement": "OFN-U3", "found": {"S1": "010110"}}
        steps = [
            {"at": 0, "set": {"call": True}},
            {"at": 30, "set": {"power": False}},
            {"at": 31.5, "set": {"power": True}},
        ]
        played = self.post("bench/play", {"pair": pair, "scenario": {"steps": steps, "until": 40}})
        self.assertEqual(played["original"][-1], {"at": 31.5, "on": ["alarm", "relay"], "states": ["Locked out"]})
        self.assertEqual(played["replacement"][-1], {"at": 31.5, "on": ["fan"], "states": ["Proving airflow"]})
        limits = [
            (each["level"], each["at"], each["original"] and each["replacement"]) for each in played["thresholds"]
        ]
        self.assertEqual(limits, [("deck", 305, True), ("deck", 320, True)])

    def test_what_a_browser_plays_is_what_is_played_here_to_the_byte(self) -> None:
        steps = [
            {"at": 0, "set": {"call": True}},
            {"at": 30, "set": {"power": False}},
            {"at": 31.5, "set": {"power": True}},
        ]
        scenarios = [{"steps": steps, "until": 40}, {"steps": [{"at": 5, "set": {"nothing": True}}], "until": 0}, {}]
        pairs: list[dict[str, Any]] = [
            {"original": "TVH-2210-B", "replacement": "OFN-U3"},
            {"original": "TVH-2210-B", "replacement": "OFN-U3", "found": {"S1": "010110"}, "plan": {"R1": "3"}},
            {"original": "TVH-2210-B", "replacement": "OFN-U3", "found": {"S1": "??????"}},
            {"original": "TVH-2205", "replacement": "TVH-2210-B", "plan": {"S1": "1"}},
        ]
        for pair in pairs:
            family = self.get(f"board/{pair['original']}")["family"]
            files = [f"families/{family}/file", *(f"board-file/{pair[side]}" for side in ("original", "replacement"))]
            bag.put_in_pair("pair", *(self.client.get(f"/api/{each}").content.decode() for each in files))
            for scenario in scenarios:
                given = {"pair": pair, "scenario": scenario}
                with self.subTest(given):
                    there = self.client.post("/api/bench/play", json.dumps(given), content_type="application/json")
                    status, body = bag.play_pair("pair", json.dumps(given))
                    self.assertEqual(status, there.status_code)
                    if scenario:  # where the form itself is wrong, the places are told otherwise
                        self.assertEqual(body, there.content.decode())

    def test_a_round_without_end_of_one_of_several_machines_is_told_and_played_up_to_it(self) -> None:
        node = json.loads((settings.ROOT / "demo/boards/UMC_40-118.board.json").read_text())
        door = next(each for each in node["behaviour"]["machines"] if each["id"] == "door")
        for state, to in (("shut", "open"), ("open", "shut")):
            door["states"][state]["go"].insert(0, {"to": to, "if": {"dry": True, "cold": True}})
        load_document(None, json.dumps({**node, "part_number": "UMC 40-118-R"}).encode(), datetime.now(UTC))
        pair = {"original": "UMC 40-118", "replacement": "UMC 40-118-R"}
        proof = self.post("bench/compare", pair)["proof"]
        self.assertEqual((proof["verdict"], proof["counter_case"]), ("not proved", None))
        [endless] = proof["endless"]
        self.assertIn("UMC 40-118-R goes round without end: Door shut, Door open, and again.", endless["told"][-1])
        at = endless["at"]
        steps = [{"at": 0, "set": {"cold": True}}, *[{**step, "at": step["at"] + 30} for step in endless["steps"]]]
        played = self.post("bench/play", {"pair": pair, "scenario": {"steps": steps, "until": 60 + at}})
        self.assertEqual(
            [(e["side"], e["at"], set(e["states"])) for e in played["rounds"]],
            [("replacement", 30 + at, {"Door shut", "Door open"})],
        )
        self.assertIn("compressor", played["replacement"][0]["on"])
        self.assertLess(played["replacement"][-1]["at"], 30 + at)

    def test_where_each_board_reads_a_level_and_why_they_part_there(self) -> None:
        pair = {"original": "UMC 40-118", "replacement": "UMC 44-011"}
        steps = [{"at": 0, "set": {"cold": True}}, {"at": 5, "set": {"coil": 10}}]
        played = self.post("bench/play", {"pair": pair, "scenario": {"steps": steps, "until": 40}})
        self.assertEqual(
            played["thresholds"],
            [
                {"level": "coil", "at": 8, "original": True, "replacement": False},
                {"level": "coil", "at": 12, "original": False, "replacement": True},
            ],
        )
        why = self.post("bench/compare", pair)["proof"]["why"]
        self.assertIn("because “Coil temperature” is at 8 °C or above", why[0])
        self.assertIn("The replacement stays in “Defrosting”", why[1])
