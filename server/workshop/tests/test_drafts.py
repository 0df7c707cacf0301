import io
import json
from typing import Any
from uuid import uuid4

from django.utils import timezone

from catalogue.models import Board
from jobs.models import Job
from jobs.tests.world import WorldTestCase
from people.models import Depot, Person
from workshop.demo import load_workshop
from workshop.models import Draft, Edit

OVEN = "TVH-2210-B"
LINES = "S1 bank 4, on up, from left; R1 dial 0..3; C1 plug 3, keyed"
TWO = ["S1.1", "S1.2"]


class Drafts(WorldTestCase):
    def setUp(self) -> None:
        self.sign_in("wennick")

    def opened(self, part_number: str = OVEN) -> Any:
        return self.get(f"drafts/{self.post('drafts', {'part_number': part_number})['id']}")

    def sketched(self) -> Any:
        self.post("sketches", {"part_number": "K7-100", "kind": "Tray washer", "lines": LINES})
        draft = self.opened("K7-100")
        return self.put(draft, "place", path=["family", "functions", 0], after={
            "id": "rinse", "title": "Rinse", "type": "duration", "unit": "s", "importance": "behaviour"})  # fmt: skip

    def put(self, draft: Any, what: str, status: int = 200, **given: Any) -> Any:
        return self.post(f"drafts/{draft['id']}/{what}", {"seen": draft["version"], **given}, status)

    def meaning(self, draft: Any, cells: list[str], status: int = 200, **more: Any) -> Any:
        given = {"function": "rinse", "points": TWO, "cells": cells} | more
        return self.put(draft, "meaning", status, **given)

    def step(self, draft: Any, to: str, note: str, status: int = 200) -> Any:
        return self.post(f"drafts/{draft['id']}/step", {"to": to, "note": note}, status)

    def publish(self, draft: Any, status: int = 200, reason: str = "by the leaflet") -> Any:
        given = {"seen": draft["version"], "over": draft["current"], "reason": reason}
        return self.post(f"drafts/{draft['id']}/publish", given, status)

    def test_every_demo_board_opened_and_taken_out_is_the_same_file(self) -> None:
        boards = Board.objects.filter(depot=None).select_related("current")
        self.assertGreater(len(boards), 40)
        for board in boards:
            draft = self.opened(board.part_number)
            self.assertEqual([each for each in draft["findings"] if each["weight"] == "fault"], [])
            assert board.current is not None
            self.assertEqual(self.client.get(f"/api/drafts/{draft['id']}/file").content, bytes(board.current.document))

    def test_a_board_has_one_draft_in_a_depot_and_another_depot_does_not_see_it(self) -> None:
        draft = self.opened()
        self.assertEqual(self.opened()["id"], draft["id"])
        self.assertEqual(self.get("drafts")["total"], 1)
        elsewhere = Depot.objects.create(name="Low Harbour", code="LH")
        Person.objects.create_user("other", password="torchlight-42", depot=elsewhere)
        self.sign_in("other")
        self.get(f"drafts/{draft['id']}", 404)
        self.put(draft, "undo", 404)
        self.assertEqual(self.get("drafts")["total"], 0)
        self.assertNotEqual(self.opened()["id"], draft["id"])

    def test_a_sketch_gets_meanings_cell_by_cell_and_becomes_a_board_that_carries_over(self) -> None:
        draft = self.meaning(self.sketched(), ["15", "30 s", "soon", "1:00"])
        cells = draft["functions"][0]["cells"]
        self.assertEqual([each["text"] for each in cells], ["15", "30", "soon", "60"])
        self.assertEqual([each["wrong"] for each in cells], ["", "", "expected seconds of at least 0", ""])
        self.assertEqual(draft["findings"][0]["place"], "functions.rinse.table[2].value")
        self.sign_in("corm")
        self.assertIn("faults", self.publish(draft, 422))
        draft = self.meaning(draft, ["15", "30 s", "45", "1:00"])
        changes = self.get(f"drafts/{draft['id']}/changes")
        self.assertEqual([(each["title"], each["how"]) for each in changes["functions"]], [("Rinse", "new")])
        self.assertEqual(self.publish(draft, 200)["state"], "published")
        board = self.get("board/K7-100")
        self.assertEqual(board["revision"], 2)
        self.assertEqual(
            board["document"]["functions"]["rinse"]["table"][3], {"when": {"S1.1": "on", "S1.2": "on"}, "value": 60}
        )
        self.assertEqual(Board.objects.get(part_number="K7-100").depot, Person.objects.get(username="corm").depot)
        self.put(draft, "undo", 400)

    def test_sketches_wait_in_a_list_until_somebody_completes_them(self) -> None:
        self.post("sketches", {"part_number": "K7-300", "kind": "Tray washer", "lines": LINES})
        self.assertEqual([each["part_number"] for each in self.get("sketches")["items"]], ["K7-300"])
        self.opened("K7-300")
        self.assertEqual(self.get("sketches")["total"], 0)
        elsewhere = Depot.objects.create(name="Low Harbour", code="LH")
        Person.objects.create_user("other", password="torchlight-42", depot=elsewhere)
        self.sign_in("other")
        self.assertEqual(self.get("sketches")["total"], 0)

    def test_a_grid_is_filled_by_a_rule_or_read_from_a_dial(self) -> None:
        draft = self.meaning(self.sketched(), [], fill=[10, 5])
        self.assertEqual([each["text"] for each in draft["functions"][0]["cells"]], ["10", "15", "20", "25"])
        draft = self.meaning(draft, [], points=[], reads="R1", scale=15, offset=30)
        shown = draft["functions"][0]
        self.assertEqual((shown["reads"], shown["scale"], shown["offset"]), ("R1", 15, 30))
        self.assertEqual([each for each in draft["findings"] if each["weight"] == "fault"], [])

    def test_what_one_edited_the_other_is_told_and_neither_loses_anything(self) -> None:
        draft = self.sketched()
        self.meaning(draft, ["15", "30", "45", "60"])
        self.sign_in("corm")
        problem = self.meaning(draft, ["1", "2", "3", "4"], 409)
        self.assertRegex(problem["detail"], r"^Wennick Tarl changed the meaning of rinse at \d\d:\d\d\.")
        # another place goes through, though the version is an old one
        draft = self.put(draft, "place", path=["board", "title"], after="Main board")
        self.assertEqual(draft["functions"][0]["cells"][3]["text"], "60")
        self.assertEqual([(each["by"], each["what"]) for each in draft["edits"][:2]],
                         [("Corm Haddle", "title"), ("Wennick Tarl", "the meaning of rinse")])  # fmt: skip
        # each takes back one's own
        self.sign_in("wennick")
        draft = self.post(f"drafts/{draft['id']}/undo", {})
        self.assertEqual((draft["functions"][0]["said"], draft["document"]["title"]), (False, "Main board"))

    def test_undo_goes_back_step_by_step_and_says_when_it_cannot(self) -> None:
        draft = self.sketched()
        for title in ("One", "Two"):
            draft = self.put(draft, "place", path=["board", "title"], after=title)
        titles = [self.post(f"drafts/{draft['id']}/undo", {})["document"]["title"] for _ in range(2)]
        self.assertEqual(titles, ["One", ""])
        self.assertFalse(self.post(f"drafts/{draft['id']}/undo", {})["can_undo"])
        self.post(f"drafts/{draft['id']}/undo", {}, 400)
        self.assertEqual(Edit.objects.filter(draft=draft["id"]).count(), 6)

    def test_what_was_sent_twice_is_done_once_whatever_it_is(self) -> None:
        draft = self.opened("TVH-2214-A")
        row = {"columns": [{"heading": "S1", "role": "set", "name": "SW1"}], "rows": [["0110"]]}
        for index in (1, 2):
            draft = self.put(draft, "chart", index=index, title=f"Sheet {index}", **row)
        act = str(uuid4())
        for _ in range(2):
            draft = self.put(draft, "chart", id=act, index=1, columns=[], rows=[])
        self.assertEqual([each["title"] for each in draft["charts"][1:]], ["Sheet 2"])
        act = str(uuid4())
        for _ in range(2):
            draft = self.post(f"drafts/{draft['id']}/undo", {"id": act})
        self.assertEqual([each["title"] for each in draft["charts"][1:]], ["Sheet 1", "Sheet 2"])

    def test_what_was_done_at_once_is_taken_back_at_once(self) -> None:
        draft = self.sketched()
        columns = [{"heading": "Model", "role": "fact"}, {"heading": "S1", "role": "set", "name": "S1"}]
        draft = self.put(draft, "chart", index=0, title="Sheet", columns=columns, rows=[["TW2", "0110"]])
        self.assertEqual([each["title"] for each in draft["facts"]], ["Model"])
        draft = self.post(f"drafts/{draft['id']}/undo", {})
        self.assertEqual((draft["charts"], draft["facts"]), ([], []))

    def test_a_chart_of_a_leaflet_is_pasted_its_columns_guessed_and_its_faults_shown(self) -> None:
        draft = self.opened("TVH-2214-A")
        columns = self.post(f"drafts/{draft['id']}/columns", {"headings": ["Model", "Year", "SW1", "Dial", "Remarks"]})
        self.assertEqual([(each["role"], each["name"]) for each in columns],
                         [("fact", "model"), ("fact", "made"), ("set", "SW1"), ("set", "R1"), ("note", "")])  # fmt: skip
        self.put(draft, "chart", 422, index=1, columns=[{"heading": "Bank", "role": "set"}], rows=[])
        rows = [
            ["DK1", "to 1999", "● ○ ○ ●", "2", "old"],
            ["DK1", "2000-", "0110", "", ""],
            ["DK1", "2003", "1111", "", ""],
        ]
        draft = self.put(draft, "chart", index=len(draft["charts"]), title="Leaflet 12", columns=columns, rows=rows)
        place = f"charts[{len(draft['charts']) - 1}].rows[2]"
        self.assertEqual([each["place"] for each in draft["findings"] if each["weight"] == "fault"], [place])
        self.assertEqual(draft["charts"][-1]["rows"][0], ["DK1", "to 1999", "1001", "2", "old"])
        last = len(draft["charts"]) - 1
        first = draft["charts"][0]
        draft = self.put(draft, "chart", index=0, columns=[], rows=[])
        self.assertEqual(len(draft["charts"]), last)
        draft = self.post(f"drafts/{draft['id']}/undo", {})
        self.assertEqual(draft["charts"][0], first)
        draft = self.put(draft, "chart", index=last, columns=[], rows=[])
        self.assertEqual(draft["findings"], [])
        self.put(draft, "chart", 400, index=40, columns=columns, rows=rows)

    def test_facts_that_a_chart_asks_for_are_added_to_the_kind_with_it(self) -> None:
        draft = self.sketched()
        headings, rows = ["Model", "Heating", "l"], [["TW2", "steam", "0011"], ["TW2", "electric", "0010"],
                                                     ["TW3", "steam", "0111"], ["TW3", "electric", "0110"]]  # fmt: skip
        columns = self.post(f"drafts/{draft['id']}/columns", {"headings": headings, "rows": rows})
        draft = self.put(draft, "chart", index=0, title="Sheet 2", columns=columns, rows=rows)
        self.assertEqual([each["choices"] for each in draft["facts"]], [["TW2", "TW3"], ["steam", "electric"]])
        self.assertEqual([each for each in draft["findings"] if each["weight"] == "fault"], [])
        self.assertEqual(draft["charts"][0]["rows"], rows)

    def test_pins_are_named_by_signal_or_title_and_an_unknown_signal_stays_in_its_cell(self) -> None:
        """A defect: one unknown signal refused the whole plug, and a reload lost all that had been typed."""
        draft = self.sketched()
        rows = [["1", "L", "Supply, line"], ["2", "", "fan.line"], ["3", "", ""], ["", "", ""]]
        draft = self.put(draft, "pins", index=0, rows=rows)
        self.assertEqual([each["signal"] for each in draft["plugs"][0]["pins"]], ["supply.line", "fan.line", ""])
        rows = [["1", "", "Moonlight, left"], ["2", "F", "fan.line"]]
        draft = self.put(draft, "pins", index=0, rows=rows)
        self.assertEqual([each["signal"] for each in draft["plugs"][0]["pins"]], ["Moonlight, left", "fan.line"])
        faults = [each["place"] for each in draft["findings"] if each["weight"] == "fault"]
        self.assertEqual(faults, ["connectors[0].pins[0].signal"])
        # once the signal is there, the cell has it
        signal = {"id": "moon.left", "title": "Moonlight, left", "kind": "output"}
        draft = self.put(draft, "place", path=["family", "signals", len(draft["signals"])], after=signal)
        self.assertEqual([each["signal"] for each in draft["plugs"][0]["pins"]], ["moon.left", "fan.line"])
        self.assertEqual([each for each in draft["findings"] if each["weight"] == "fault"], [])

    def test_behaviour_is_the_usual_of_its_kind_or_grows_state_by_state_and_is_played(self) -> None:
        draft = self.sketched()
        self.put(draft, "borrow", 400, part="behaviour")
        draft = self.put(draft, "state", name="idle", arrows=[{"to": "wash", "inputs": "Called for on"}])
        self.assertIn("behaviour.states.idle.go[0].to", [each["place"] for each in draft["findings"]])
        draft = self.put(draft, "state", name="wash", on="motor, valve if stop off", arrows=[
            {"to": "idle", "inputs": "call off"}, {"to": "idle", "after": "2 min"}])  # fmt: skip
        self.assertEqual([each for each in draft["findings"] if each["weight"] == "fault"], [])
        draft = self.put(
            draft, "state", was="wash", name="washing", on="motor", arrows=[{"to": "idle", "after": "120"}]
        )
        self.assertEqual(draft["machines"][0]["states"][0]["arrows"][0]["to"], "washing")
        steps = [{"at": 5, "set": {"call": True}}, {"at": 6, "set": {"call": False}}]
        played = self.post(f"drafts/{draft['id']}/play", {"steps": steps, "until": 200})
        self.assertEqual(
            [(each["at"], each["on"]) for each in played["replacement"]], [(0, []), (5, ["motor"]), (125, [])]
        )
        self.assertEqual(played["original"], [])
        draft = self.put(draft, "state", was="washing", name="washing", gone=True)
        self.assertEqual(len(draft["machines"][0]["states"]), 1)

    def test_the_usual_behaviour_comes_with_where_it_is_from(self) -> None:
        draft = self.opened()
        bare = self.put(draft, "place", path=["board", "behaviour"], after=None)
        back = self.put(bare, "borrow", part="behaviour")
        self.assertTrue(back["machines"])
        self.assertEqual({each["worth"] for each in back["sources"] if each["part"] == "behaviour"}, {"usual"})

    def test_what_changes_is_shown_with_the_open_jobs_and_the_counter_case(self) -> None:
        draft = self.opened()
        self.assertTrue(self.get(f"drafts/{draft['id']}/changes")["nothing"])
        table = draft["document"]["functions"]["purge.post"]["table"]
        after = [{**row, "value": row["value"] + 60} for row in table]
        draft = self.put(draft, "place", path=["board", "functions", "purge.post", "table"], after=after)
        changes = self.get(f"drafts/{draft['id']}/changes")
        self.assertEqual([each["id"] for each in changes["functions"]], ["purge.post"])
        self.assertTrue(changes["counter_case"])
        jobs = Job.objects.filter(closed_at=None, original_revision__board__part_number=OVEN)
        self.assertEqual(len(changes["open_jobs"]), jobs.count())
        self.assertTrue(changes["open_jobs"])

    def test_a_technician_proposes_and_the_parts_lead_publishes_what_was_looked_at(self) -> None:
        draft = self.meaning(self.sketched(), ["15", "30", "45", "60"])
        self.publish(draft, 403)
        proposed = self.step(draft, "proposed", "from the door sticker")
        self.assertEqual((proposed["state"], proposed["note"]), ("proposed", "from the door sticker"))
        self.sign_in("corm")
        self.step(draft, "open", " ", 422)
        sent = self.step(draft, "open", "which year?")
        self.assertEqual(sent["state"], "open")
        self.publish(sent, 422, reason="")
        self.post("sketches", {"part_number": "K7-100", "kind": "Tray washer", "lines": LINES + "; J1 jumper 3"})
        self.publish(sent, 409)
        changes = self.get(f"drafts/{draft['id']}/changes")
        self.assertIn(("J1", "gone"), [(each["id"], each["how"]) for each in changes["elements"]])

    def test_a_draft_put_away_leaves_the_board_as_it_is(self) -> None:
        draft = self.meaning(self.sketched(), ["15", "30", "45", "60"])
        self.step(draft, "given_up", "wrong leaflet")
        self.meaning(draft, ["1", "2", "3", "4"], 400)
        self.assertEqual(self.get("board/K7-100")["revision"], 1)
        self.assertEqual((self.get("drafts")["total"], self.get("drafts?live=false")["total"]), (0, 1))
        self.assertNotEqual(self.opened("K7-100")["id"], draft["id"])

    def test_what_two_drafts_add_to_one_kind_both_stand(self) -> None:
        first = self.meaning(self.sketched(), ["15", "30", "45", "60"])
        self.post("sketches", {"part_number": "K7-200", "kind": "Tray washer", "lines": LINES})
        second = self.opened("K7-200")
        second = self.put(second, "place", path=["family", "functions", 0], after={
            "id": "soak", "title": "Soak", "type": "duration", "unit": "s", "importance": "comfort"})  # fmt: skip
        self.sign_in("corm")
        self.publish(first)
        second = self.put(second, "meaning", function="soak", points=TWO, cells=["1", "2", "3", "4"])
        self.assertEqual([each["id"] for each in second["functions"]], ["rinse", "soak"])
        self.publish(second)
        family = self.get(f"families/{second['family']}")
        self.assertEqual([each["id"] for each in family["document"]["functions"]], ["rinse", "soak"])

    def test_hostile_places_and_values_are_refused_whole(self) -> None:
        draft = self.sketched()
        for path, after, status in (
            (["board", "part_number"], "X", 400), (["board", "settings"], "none", 422), (["board", "functions"], 7, 422),
            (["family", "functions", 0, "type"], "sum", 422), (["elsewhere", "x"], 1, 400), (["board", "charts", 9], {}, 400),
            (["board", "behaviour"], {"states": []}, 422), (["board", "charts", 0], {"rows": [{}]}, 422),
        ):  # fmt: skip
            with self.subTest(path):
                self.put(draft, "place", status, path=path, after=after)
        self.assertEqual(self.get(f"drafts/{draft['id']}")["version"], draft["version"])

    def test_numbers_that_are_none_or_too_fine_are_refused(self) -> None:
        draft = self.sketched()
        for more in (
            {"fill": [0.30000000000000004, 1]},
            {"fill": [1e12, 1]},
            {"points": [], "reads": "R1", "scale": 1e300},
        ):
            self.meaning(draft, [], 422, **more)
        raw = f'{{"seen": {draft["version"]}, "function": "rinse", "points": [], "reads": "R1", "scale": NaN}}'
        answer = self.client.post(f"/api/drafts/{draft['id']}/meaning", raw, content_type="application/json")
        self.assertIn(answer.status_code, (400, 422))
        raw = f'{{"seen": {draft["version"]}, "path": ["board", "title"], "after": "half \\ud800"}}'
        answer = self.client.post(f"/api/drafts/{draft['id']}/place", raw, content_type="application/json")
        self.assertIn(answer.status_code, (400, 422))

    def test_the_list_of_drafts_costs_the_same_whatever_its_length(self) -> None:
        self.opened()
        self.opened("TVH-2214-A")
        with self.assertNumQueries(4):  # session, person, page, count
            self.get("drafts")


class Whole(WorldTestCase):
    def test_a_published_board_goes_out_and_in_again_to_the_same(self) -> None:
        self.sign_in("corm")
        draft = self.get(f"drafts/{self.post('drafts', {'part_number': OVEN})['id']}")
        given = {"seen": 0, "path": ["board", "title"], "after": "Oven board"}
        draft = self.post(f"drafts/{draft['id']}/place", given)
        self.post(f"drafts/{draft['id']}/publish", {"seen": 1, "over": draft["current"], "reason": "title"})
        file = self.client.get(f"/api/board-file/{OVEN}").content
        loaded = self.client.post("/api/documents", io.BytesIO(file).read(), content_type="application/json").json()
        self.assertEqual((loaded["new"], json.loads(file)["title"]), (False, "Oven board"))
        self.assertEqual(Draft.objects.get().state, "published")


class DemoWorkshop(WorldTestCase):
    def test_the_demo_has_a_sketch_in_an_open_job_and_a_draft_half_done(self) -> None:
        load_workshop(timezone.now(), lambda _: None)
        self.sign_in("wennick")
        drafts = self.get("drafts")["items"]
        self.assertEqual([each["part_number"] for each in drafts], ["SFT 9-4"])
        draft = self.get(f"drafts/{drafts[0]['id']}")
        self.assertEqual({each["weight"] for each in draft["findings"]}, {"fault"})
        self.assertEqual(draft["findings"][0]["place"], "charts[0].rows[1].set.S1")
        self.assertEqual(draft["findings"][0]["where"], "Sifter boards, sheet 4, row 2, S1")
        self.assertEqual(draft["findings"][0]["says"], "expected 6 places of 0, 1, or - for one left open")
        self.assertEqual([each["said"] for each in draft["functions"]], [True, True, False])
        jobs = self.get("jobs?search=bowl")["items"]
        self.assertEqual([(each["original"], each["step"]) for each in jobs], [("HLB-20", "choose")])
