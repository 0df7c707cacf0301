"""That the generators of the tests draw everything that the published schemas allow, and that the product takes all of it."""

from collections import Counter
from collections.abc import Callable
from random import Random
from typing import Any

from django.test import SimpleTestCase

from tests import random_boards
from tests.builders import encoded
from tests.drawing import Hooks, Node, Schema, sprinkled
from twincore import behaviour, profile, wiring
from twincore.errors import DocumentError, EndlessLoopError, TwinError

ROUNDS = 2_000
NAMES = ("title", "notes", "often")

SET_BY = {
    "parameter": ["menu", "dial", "guided"], "program": ["menu", "cycle", "dial", "guided"], "code": ["digits"],
    "rotary": ["menu", "cycle", "dial", "guided"], "link": ["menu", "guided"], "memory": ["menu", "cycle", "guided"],
}  # fmt: skip
"""Which panels set an element of each kind."""

LEFT_OUT = {
    "family": {},
    "board": {},
    "scenario": {},
    "settings": {},
    "wiring": {},
}  # fmt: skip
"""What is never drawn, with the reason."""


class Drawn(SimpleTestCase):
    """Two thousand documents of each format, as far as the product takes them."""

    @classmethod
    def setUpClass(cls) -> None:
        super().setUpClass()
        cls.met: dict[str, set[str]] = {kind: set() for kind in LEFT_OUT}
        cls.outcomes: Counter[str] = Counter()
        cls.schemas = {kind: Schema(kind) for kind in LEFT_OUT}
        for seed in range(ROUNDS):
            cls._draw(Random(seed))

    @classmethod
    def _draw(cls, rng: Random) -> None:
        family = cls._completed("family", rng, a_family(rng), family_hooks, taken_as_family)
        board = random_boards.board_document(rng, family, "A")
        if any(each.get("level") for each in family["inputs"]):
            board = random_boards.reading_level(rng, board)
        if rng.random() < 0.2:
            board = random_boards.with_running_time(rng, board)
        read = profile.parse_family(encoded(family))

        def taken(document: Node) -> Any:
            built = profile.parse_board(encoded(document))
            profile.check_board_in_family(built, read)
            return built

        board = cls._completed("board", rng, board, lambda node: board_hooks(node, family), taken)
        built = taken(board)
        stand = random_boards.positions(rng, board, 0.1)
        settings = {"format": "worthy-twin/settings", "version": 1, "part_number": "A", "positions": stand}
        settings = sprinkled(rng, cls.schemas["settings"], settings, NAMES, 0.2)
        record = profile.parse_record(encoded(settings), built)
        cls.met["settings"] |= cls.schemas["settings"].met(settings)
        scenario = cls._completed(
            "scenario",
            rng,
            a_scenario(rng, read),
            lambda _: {},
            lambda node: profile.parse_scenario(encoded(node), read.inputs),
        )
        wires = cls._wired(rng, built, read)
        cls._used(built, record, read, profile.parse_scenario(encoded(scenario), read.inputs), wires)

    @classmethod
    def _completed(cls, kind: str, rng: Random, document: Node, hooks: Callable[[Node], Hooks], taken: Any) -> Node:
        """The document with more of what its format allows, as far as it is taken; what it makes is marked."""
        schema = cls.schemas[kind]
        document = sprinkled(rng, schema, document, NAMES, 0.08)
        for key in schema.root["properties"]:
            if key in document or key in schema.root["required"] or rng.random() > 0.35:
                continue
            for _ in range(8):
                more = document | {key: schema.draw(rng, schema.at(key), hooks(document), f".{key}")}
                try:
                    taken(more)
                except DocumentError:
                    continue
                document = more
                break
        taken(document)
        cls.met[kind] |= schema.met(document)
        return document

    @classmethod
    def _wired(cls, rng: Random, board: profile.Board, family: profile.Family) -> wiring.WiringRecord | None:
        plugs = board.document.get("connectors", [])
        pins = [(plug["id"], pin["pin"]) for plug in plugs for pin in plug["pins"]]
        if not pins:
            return None
        hooks: Hooks = {
            ".wires[].connector": lambda rng: rng.choice(pins)[0], ".wires[].pin": lambda rng: rng.choice(pins)[1],
            ".wires[].signal": lambda rng: rng.choice([None, *(each["id"] for each in family.document.get("signals", ()))]),
            ".without_record[]": lambda rng: rng.choice(plugs)["id"], ".as_moved[]": lambda rng: rng.choice(plugs)["id"],
        }  # fmt: skip
        head = {"format": "worthy-twin/wiring", "version": 1, "part_number": "A", "wires": []}

        def taken(node: Node) -> wiring.WiringRecord:
            return wiring.parse_wiring(encoded(node), board, family)

        schema = cls.schemas["wiring"]
        for _ in range(12):
            drawn = head | {"wires": schema.draw(rng, schema.at("wires"), hooks, ".wires")}
            try:
                taken(drawn)
            except DocumentError:
                continue
            head = drawn
            break
        return taken(cls._completed("wiring", rng, head, lambda _: hooks, taken))

    @classmethod
    def _used(
        cls, board: profile.Board, record: profile.Record, family: profile.Family, scenario: profile.Scenario,
        wires: wiring.WiringRecord | None,
    ) -> None:  # fmt: skip
        """What is drawn is worked with: whatever comes of it, it is an answer."""
        twin = behaviour.make_twin(board, record, board, record, family)
        try:
            cls.outcomes[behaviour.prove(twin, 800).verdict] += 1
            behaviour.simulate(board, record, family, scenario)
        except (EndlessLoopError, TwinError):
            cls.outcomes["refused"] += 1
        if wires:
            wiring.carry_wires(board, wires, board, family)
        profile.warnings_of(board, family)

    def test_everything_that_a_schema_allows_is_drawn(self) -> None:
        for kind, left_out in LEFT_OUT.items():
            missing = self.schemas[kind].marks() - self.met[kind] - left_out.keys()
            self.assertEqual(sorted(missing), [], kind)

    def test_what_is_left_out_is_not_drawn_after_all(self) -> None:
        for kind, left_out in LEFT_OUT.items():
            self.assertEqual(set(left_out) & self.met[kind], set(), kind)

    def test_a_board_beside_itself_is_never_different(self) -> None:
        self.assertNotIn("different", self.outcomes)
        self.assertNotIn("within tolerance", self.outcomes)
        self.assertGreater(self.outcomes["identical"], ROUNDS // 4)


def a_family(rng: Random) -> Node:
    """A family with a function or two more, of any type, which its boards need not have."""
    family = random_boards.family_document(rng)
    if rng.random() < 0.4:
        family = random_boards.with_level(rng, family)
    family["functions"] += [_function(rng, f"more {number}") for number in range(rng.randrange(3))]
    return family


def _function(rng: Random, name: str) -> Node:
    """A function of any type, with a side that is safer, and a condition under which it matters."""
    node: Node = {"id": name, "type": rng.choice(["duration", "number", "count", "choice", "flag"])}
    node["importance"] = rng.choice(["safety", "behaviour", "comfort"])
    values: list[Any] = {"choice": ["p", "q", "r"], "flag": [True, False]}.get(node["type"], [0, 1, 5])
    if node["type"] == "choice":
        node["choices"] = values
    else:
        node |= rng.choice([{}, {"unit": "s"}]) if node["type"] == "duration" else {}
    if node["type"] in ("duration", "number", "count") and rng.random() < 0.6:
        node["tolerance"] = {key: rng.choice([0, 1, 0.5]) for key in ("below", "above") if rng.random() < 0.6}
    if rng.random() < 0.5:
        safest = rng.sample(values, len(values))
        node["safer"] = safest if node["type"] in ("choice", "flag") else rng.choice(["lower", "higher"])
    if rng.random() < 0.5:
        node["if_absent"] = rng.choice(values)
    if rng.random() < 0.4:
        node["matters_if"] = rng.choice([{"mode": "p"}, {"mode": ["p", "q"], "flow": True}, {"n": [1, 2]}, {"t": 1}])
    return node


def taken_as_family(document: Node) -> profile.Family:
    return profile.parse_family(encoded(document))


def family_hooks(document: Node) -> Hooks:
    """Names that a family may use: its own inputs, outputs and scenarios."""
    inputs = {each["id"]: each.get("level") for each in document["inputs"]}
    outputs = [each["id"] for each in document["outputs"]]

    def changes(rng: Random) -> Node:
        name = rng.choice(list(inputs))
        return {name: rng.choice([0, 5, 10]) if inputs[name] else rng.random() < 0.5}

    scenarios = [each["id"] for each in document.get("scenarios", ())] or ["x"]
    done: list[Callable[[Random], Node]] = [
        lambda rng: {"set": "S.1", "to": rng.choice(["on", 3])}, lambda rng: {"bridge": ["C1.1", "C1.2"]},
        lambda rng: {"unplug": "C1", "notes": []}, lambda rng: {"wait_s": rng.choice([0.5, 86400])}, lambda rng: {"expect": "x"},
    ]  # fmt: skip
    return {
        ".proving.overrides[].does[]": lambda rng: rng.choice(done)(rng),
        ".scenarios[].steps[].set": changes, ".proving.inputs[].input": lambda rng: rng.choice(list(inputs)),
        ".proving.inputs[].with": lambda rng: rng.choice(outputs), ".proving.runs[].scenario": lambda rng: rng.choice(scenarios),
        ".proving.runs[].watch[]": lambda rng: rng.choice(outputs),
    }  # fmt: skip


def board_hooks(board: Node, family: Node) -> Hooks:
    """Names that a board may use: its own elements and points, its family's signals."""
    elements = {each["id"]: each for each in board["settings"]}
    names = list(elements)
    signals = [each["id"] for each in family.get("signals", ())] or ["any"]
    points = {"S.1": "on", "S.2": "off"} | {
        name: node["values"][0] for name, node in elements.items() if "values" in node
    }

    def chart_row(rng: Random) -> Node:
        return {
            name: random_boards.positions(rng, {"settings": [elements[name]]})[name]
            for name in names
            if rng.random() < 0.7
        }

    def panel(rng: Random) -> Node:
        kind = rng.choice(SET_BY.get(elements.get("E", {}).get("kind", ""), ["menu"]))
        schema = Schema("board")
        found: Node = schema.draw(rng, schema.root["$defs"][f"panel_{kind}"], {".steps": dialogue, ".start": lambda _: "first",
                                  ".element": lambda _: "E", ".items[]": lambda _: "E"}, "")  # fmt: skip
        notes = found["keys"].pop("notes", None)
        found["keys"] = dict(zip(found["keys"], rng.sample("ABCDEFGHIJ", len(found["keys"])), strict=True))
        return found | {"keys": found["keys"] | ({"notes": notes} if notes else {})}

    def dialogue(rng: Random) -> Node:
        values = elements.get("E", {}).get("values", ["?"])
        asks = {"asks": "?", "sets": "E", "then": rng.choice(["end", dict.fromkeys(values, "end")])}
        wait = {"do": rng.choice(["hold", "wait"])} | {
            key: value
            for key, value in {"press": "P", "hold_s": rng.choice([0, 5]), "until": "a beep", "shows": "88", "notes": 1,
                               "blinks": rng.choice([1, 3, 99]), "then": "end"}.items()
            if rng.random() < 0.5
        }  # fmt: skip
        return {"first": rng.choice([asks, wait]), "end": {"do": "leave"}}

    return {
        ".acts[].point": lambda rng: rng.choice(list(points)), ".acts[].when": lambda rng: rng.choice(list(points.values())),
        ".charts[].rows[].set": chart_row, ".panels[]": panel,
        ".service_port.registers[].gives": lambda rng: rng.choice([*names, *(e["id"] for e in board.get("remembers", ()))]),
        ".kit[].replaces[]": lambda rng: rng.choice(signals),
        ".connectors[].pins[].signal": lambda rng: rng.choice([*signals, None]),
        ".relays[].rating": lambda rng: rng.choice(["B300", "A150"]),
    }  # fmt: skip


def a_scenario(rng: Random, family: profile.Family) -> Node:
    at, steps = 0, []
    for _ in range(rng.randrange(5)):
        at += rng.choice([0, 0.5, 1, 3])
        name = rng.choice(list(family.inputs))
        level = family.inputs[name]
        steps.append({"at": at, "set": {name: rng.choice([0, 3.5, 10]) if level else rng.random() < 0.5}})
    return {"format": "worthy-twin/scenario", "version": 1, "steps": steps, "until": at + rng.choice([0, 5])}
