import json
from typing import Any

import jsonschema
from django.test import SimpleTestCase

from tests.builders import CASES, DEMO, encoded, small_board, small_family
from twincore import profile
from twincore.errors import DocumentError
from twincore.profile.document import KINDS, schema_path


def faults(data: bytes, kind: str = "board", family: dict[str, Any] | None = None) -> list[str]:
    try:
        if kind == "board":
            board = profile.parse_board(data)
            profile.check_board_in_family(board, profile.parse_family(encoded(family or small_family())))
        elif kind == "family":
            profile.parse_family(data)
        else:
            profile.parse_scenario(data, {"power": None, "a": None, "b": None})
    except DocumentError as error:
        return [str(fault) for fault in error.faults]
    return []


def machine(**states: Any) -> dict[str, Any]:
    return {"start": next(iter(states)), "states": states}


def go(**arrow: Any) -> dict[str, Any]:
    return {"on": [], "go": [{"to": "s", **arrow}]}


class PublishedSchemas(SimpleTestCase):
    def test_the_titles_of_states_that_several_machines_have_are_those_of_the_machine_meant(self) -> None:
        def machine(name: str, *states: str) -> dict[str, Any]:
            return {"id": name, "start": states[0], "states": {each: {"title": f"{name} {each}"} for each in states}}

        node = small_board({"machines": [machine("fan", "off", "on"), machine("heat", "off", "wait")]})
        behaviour = profile.parse_board(encoded(node)).behaviour
        assert behaviour is not None
        self.assertEqual(behaviour.titles_of(("wait", "off")), ["heat wait", "heat off"])
        self.assertEqual(behaviour.titles_of(("on", "off")), ["fan on", "fan off"])
        self.assertEqual(behaviour.titles_of(("on", "wait")), ["fan on", "heat wait"])

    def test_are_valid_2020_12_and_published(self) -> None:
        for kind in KINDS:
            schema = json.loads(schema_path(kind).read_text())
            jsonschema.Draft202012Validator.check_schema(schema)
            self.assertEqual(
                (DEMO.parent / f"docs/formats/{kind}.schema.json").read_text(), schema_path(kind).read_text()
            )

    def test_accept_the_demo_world_by_an_independent_validator(self) -> None:
        for path in [*DEMO.rglob("*.json"), *CASES.rglob("*.board.json"), *CASES.rglob("scenario.json")]:
            document = json.loads(path.read_text())
            kind = document["format"].removeprefix("worthy-twin/")
            jsonschema.Draft202012Validator(json.loads(schema_path(kind).read_text())).validate(document)


class DemoWorld(SimpleTestCase):
    def test_every_board_fits_its_family_and_layouts_agree(self) -> None:
        families = [profile.parse_family(path.read_bytes()) for path in (DEMO / "families").iterdir()]
        by_id = {family.id: family for family in families}
        boards = [profile.parse_board(path.read_bytes()) for path in sorted((DEMO / "boards").iterdir())]
        self.assertGreaterEqual(len(boards), 60)
        for board in boards:
            profile.check_board_in_family(board, by_id[board.family])
            self.assertEqual(profile.warnings_of(board), [])
            for other in boards:
                profile.check_layouts_agree(board, other)


class Fitting(SimpleTestCase):
    def test_ratings_and_what_is_accepted_must_mean_something(self) -> None:
        document = json.loads((DEMO / "boards/TVH-2210-B.board.json").read_text())
        document["relays"][0]["rating"] = "strong"
        document["accepts"] = [{"fact": "fan.volts"}, {"fact": "fan.volts", "one_of": [1], "between": [1, 2]}]
        with self.assertRaises(DocumentError) as caught:
            profile.parse_board(encoded(document))
        places = [fault.place for fault in caught.exception.faults]
        self.assertEqual(places, ["relays[0].rating", "accepts[0]", "accepts[1]"])


class Refusals(SimpleTestCase):
    """Each rule of the format, broken once: the fault names the place and what was expected there."""

    def check(self, data: bytes, *expected: str, kind: str = "board", family: dict[str, Any] | None = None) -> None:
        found = faults(data, kind, family)
        self.assertTrue(found, "nothing was refused")
        for part in expected:
            self.assertTrue(any(part in fault for fault in found), f"{part!r} is not in {found}")

    def board(self, *expected: str, behaviour: dict[str, Any] | None = None, **more: Any) -> None:
        self.check(encoded(small_board(behaviour, **more)), *expected)

    def test_structure(self) -> None:
        self.board("expected only keys", "surprise", surprise=1)
        self.board("status: expected one of", status="new")
        self.check(encoded({"format": "worthy-twin/board", "version": 1}), 'expected "part_number" here')
        self.check(encoded({**small_board(None), "version": 2}), "version: expected 1, found 2")
        self.check(encoded({"format": "other"}), 'format: expected "worthy-twin/board"')

    def test_hostile_input_is_refused_at_once(self) -> None:
        text = json.dumps(small_board(None))
        self.check(b"\xff\xfe", "UTF-8")
        self.check(b"[" * 100_000, "levels of nesting")
        self.check(b'{"a":' * 40 + b"1" + b"}" * 40, "levels of nesting")
        self.check(b" " * 3_000_000, "at most 2,000,000 bytes")
        self.check(text.replace('"fixed": 5', '"fixed": NaN').encode(), "found NaN")
        self.check(text.replace('"fixed": 5', '"fixed": 1e999999999').encode(), "number between")
        self.check(text.replace('"fixed": 5', '"fixed": ' + "9" * 5000).encode(), "40 characters")
        self.check(text.replace('"fixed": 5', '"fixed": 0.12345678901').encode(), "9 decimals")
        self.check(text.replace('"maker": "m"', '"maker": "m", "maker": "n"').encode(), 'found "maker" twice')
        self.check(b'{"format": ', "line 1 column")
        self.board("settings[0].step: expected at most", settings=[
            {"id": "P", "kind": "parameter", "min": 0, "max": 1e9, "step": 1e-6, "factory": 0}])  # fmt: skip

    def test_elements(self) -> None:
        dip = {"id": "S", "kind": "dip", "positions": 2, "factory": "00"}
        self.board("settings[0].factory: expected 2 places", settings=[{**dip, "factory": "000"}])
        self.board("settings[0].locked[0]: expected a place from 1 to 2", settings=[{**dip, "locked": [3]}])
        self.board("settings[1].id", "again", settings=[dip, dip])
        self.board("settings[0].factory: expected one of", settings=[
            {"id": "R", "kind": "rotary", "values": ["0"], "factory": "9"}])  # fmt: skip
        self.board("settings[0].factory: expected a number that min and step reach", settings=[
            {"id": "P", "kind": "parameter", "min": 0, "max": 9, "step": 2, "factory": 3}])  # fmt: skip
        wheels = {"id": "W", "kind": "thumbwheel", "wheels": 2, "factory": "00"}
        self.board("settings[0].factory: expected 2 places", settings=[{**wheels, "factory": "007"}])
        self.board("settings[0].factory", settings=[{**wheels, "factory": "0A"}])
        self.board("settings[0].wheels", settings=[{**wheels, "wheels": 5, "factory": "00000"}])
        self.board("settings[0].coding: expected one of", settings=[{**wheels, "coding": "gray"}])
        self.board("settings[0].locked[0]: expected a place from 1 to 2", settings=[{**wheels, "locked": [3]}])
        self.board("each with a name of its own", settings=[
            dip, {"id": "S.1", "kind": "rotary", "values": ["0"], "factory": "0"}])  # fmt: skip

    def test_functions(self) -> None:
        dip = [{"id": "S", "kind": "dip", "positions": 2, "factory": "00"}]
        rows = lambda *when: {"t": {"table": [{"when": w, "value": 1} for w in when]}}  # noqa: E731
        self.board("functions.t.table[1].when: expected a row that cannot hold together with table[0]",
                   settings=dip, functions=rows({"S.1": "on"}, {"S.2": "on"}))  # fmt: skip
        self.board("functions.t.table[1].when", settings=dip, functions=rows({"S.1": "on"}, {"S.1": "on"}))
        self.board("functions.t.table[0].when.S.3: expected a point", settings=dip, functions=rows({"S.3": "on"}))
        self.board("functions.t.from: expected a point or thumbwheels", settings=dip, functions={"t": {"from": "S"}})
        self.board(
            "functions.t.table[0].when.S.1: expected one of off, on", settings=dip, functions=rows({"S.1": True})
        )
        self.board("functions.t.from", "read as numbers", settings=dip, functions={"t": {"from": "S.1"}})
        self.board("functions.t.fixed: expected seconds of at least 0", functions={"t": {"fixed": -1}})
        self.board("functions.q: expected a function of the family", functions={"q": {"fixed": 1}})

    def test_names_in_behaviour(self) -> None:
        state = {"on": [], "go": []}
        self.board("behaviour.start", behaviour={"start": "q", "states": {"s": state}})
        self.board("behaviour.states.s.go[0].to", behaviour=machine(s={"on": [], "go": [{"to": "q", "after": 1}]}))
        self.board("behaviour.states.s.on[0]: expected an output", behaviour=machine(s={"on": ["q"], "go": []}))
        self.board("behaviour.states.s.go[0].if.q: expected an input", behaviour=machine(s=go(**{"if": {"q": True}})))
        self.board("behaviour.states.s.go[0].after", behaviour=machine(s=go(after="q")))
        self.board("behaviour.states.s.go[0].clock", behaviour=machine(s=go(after=1, clock="q")))
        self.board("behaviour.states.s.go[0].count: expected counters", behaviour=machine(s=go(after=1, add=["q"])))
        self.board("behaviour.survive_power_loss", behaviour={**machine(s=state), "survive_power_loss": ["q"]})
        counted = {"counters": [{"id": "n"}], **machine(s=go(after=1, add=["n"], clear=["n"]))}
        self.board('behaviour.states.s.go[0].add: expected "n" to be cleared or added to', behaviour=counted)
        both = {"counters": [{"id": "n"}], **machine(s=go(after=1, count={"counter": "n", "reached": 1, "below": 2}))}
        self.board("behaviour.states.s.go[0].count", behaviour=both)
        clash = {"internal": ["x"], **machine(s=state)}
        self.board("behaviour.internal[0]", behaviour=clash)

    def test_a_function_that_neither_board_nor_family_gives(self) -> None:
        waits = machine(s=go(after="t"))
        self.check(encoded(small_board(waits, functions={})), "behaviour.states.s.go[0].after", "if_absent")
        family = small_family(functions=[{"id": "t", "type": "duration", "importance": "safety", "if_absent": 3}])
        self.assertEqual(faults(encoded(small_board(waits, functions={})), family=family), [])

    def test_a_loop_that_always_happens(self) -> None:
        ring = machine(s={"go": [{"to": "r"}]}, r={"go": [{"to": "s", "after": 0}, {"to": "s", "if": {"a": True}}]})
        self.board("goes round without end", behaviour=ring)
        leaves = machine(s={"go": [{"to": "r"}]}, r={"go": [{"to": "s", "if": {"a": True}}]})
        self.assertEqual(faults(encoded(small_board(leaves))), [])

    def test_unreachable_state_is_a_warning(self) -> None:
        board = profile.parse_board(encoded(small_board(machine(s={"go": []}, r={"go": []}))))
        self.assertEqual([fault.place for fault in profile.warnings_of(board)], ["behaviour.states.r"])

    def test_what_is_read_though_it_does_not_matter_is_a_warning(self) -> None:
        functions = [
            {"id": "t", "type": "duration", "importance": "behaviour", "matters_if": {"flow": True}},
            {"id": "flow", "type": "flag", "importance": "behaviour", "if_absent": False},
        ]
        family = profile.parse_family(encoded({**small_family(), "functions": functions}))

        def places(always: dict[str, Any], **go: Any) -> list[str]:
            states = {
                "s": {"go": [{"to": "r", "if": {"a": True}, **always}]},
                "r": {"go": [{"to": "s", "after": "t", **go}]},
            }
            board = profile.parse_board(encoded(small_board({"start": "s", "states": states})))
            return [fault.place for fault in profile.warnings_of(board, family)]

        self.assertEqual(places({}), ["behaviour.states.r.go[0]"])
        self.assertEqual(places({}, when={"flow": True}), [])
        self.assertEqual(places({"when": {"flow": True}}), [])  # with flow off nothing leads there

    def test_one_layout_with_two_meanings(self) -> None:
        one = small_board(None, settings_layout="L", functions={"t": {"fixed": 1}})
        other = small_board(None, "S-2", settings_layout="L", functions={"t": {"fixed": 2}})
        with self.assertRaisesRegex(DocumentError, r"functions\.t: expected the meaning that S-1"):
            profile.check_layouts_agree(profile.parse_board(encoded(other)), profile.parse_board(encoded(one)))

    def test_family_and_scenario(self) -> None:
        self.check(encoded(small_family(rest={"q": True})), "rest.q", kind="family")
        self.check(encoded(small_family(never_together=[{"power": True}])), "never_together[0]", kind="family")
        self.check(encoded(small_family(outputs=[{"id": "a"}])), "outputs[0].id", kind="family")
        choice = {"id": "c", "type": "choice", "importance": "comfort"}
        self.check(encoded(small_family(functions=[choice])), "functions[0].choices", kind="family")
        absent = {**choice, "choices": ["p"], "if_absent": "q"}
        self.check(encoded(small_family(functions=[absent])), "functions[0].if_absent", kind="family")
        steps = [{"at": 5, "set": {"q": True}}, {"at": 4, "set": {}}]
        scenario = {"format": "worthy-twin/scenario", "version": 1, "steps": steps, "until": 1}
        self.check(encoded(scenario), "steps[0].set.q", "steps[1].at", "until", kind="scenario")


class Records(SimpleTestCase):
    def read(self, **positions: Any) -> list[str]:
        board = profile.parse_board((DEMO / "boards/TVH-2205.board.json").read_bytes())
        document = {"format": "worthy-twin/settings", "version": 1, "part_number": "0-2205-00", "positions": positions}
        try:
            profile.parse_record(encoded(document), board)
        except DocumentError as error:
            return [str(fault) for fault in error.faults]
        return []

    def test_unreadable_is_allowed_and_anything_else_is_refused_with_its_place(self) -> None:
        self.assertEqual(self.read(J1="?", S1="1?0"), [])
        self.assertIn("positions.S1: expected 3 places", self.read(S1="10")[0])
        self.assertIn("at place 2", self.read(S1="1x0")[0])
        self.assertIn("positions.J1: expected one of open, 1-2, 2-3 or ?", self.read(J1="3-4")[0])
        self.assertIn("positions.Q: expected an element", self.read(Q="1")[0])
        self.assertIn("positions.R1", self.read(R1=2)[0])
