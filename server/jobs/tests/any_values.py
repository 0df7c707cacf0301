"""Values and targets of entries at random: with what their declared form allows, and now and then with what it does not."""

from collections.abc import Iterable
from random import Random
from typing import Any
from uuid import uuid4

from twincore.job import STEPS, TARGETS
from twincore.job.record.schema import published

SCHEMA = published()
VALUES: dict[str, Any] = SCHEMA["properties"]
BEGIN_ANEW = ("family", "original", "replacement", "board", "power", "unread", "confirmed", "signed")
"""After these a job knows less than before: tried seldom, or all that follows would wait for them."""
TEXTS = ("", "x", "S1", "C1.2", "01?1", "é ü", "a\tb", "a\nb", "=1+1", "'", "\u2028", "🙂", "z" * 90, "yes", "0417-22")
NUMBERS = (0, 1, -1, 0.1 + 0.2, 1 / 3, 1e9, -1e9, 1e-9, 0.1234567890123456, 1e20, 45, 2)


class AnyValue:
    """Values of a JSON Schema, at random; now and then one that is none."""

    def __init__(self, rng: Random, positions: Iterable[str]) -> None:
        self.rng = rng
        self.texts = [*TEXTS, *positions]

    def of(self, node: dict[str, Any]) -> Any:
        """A value for this schema, mostly."""
        rng = self.rng
        if rng.random() < 0.04:
            return rng.choice([None, 1, "x", [], {}, {"value": 1}, True, [1], -1.5])
        if "$ref" in node:
            return self.of(SCHEMA["$defs"][node["$ref"].rsplit("/", 1)[1]])
        for key in ("anyOf", "oneOf"):
            if key in node:
                return self.of(rng.choice(node[key]))
        if "enum" in node:
            return rng.choice(node["enum"])
        if "const" in node:
            return node["const"]
        match node.get("type"):
            case "object":
                return self.an_object(node)
            case "array":
                return [self.of(node["items"]) for _ in range(rng.randrange(4))]
            case "boolean":
                return rng.random() < 0.5
            case "number" | "integer":
                return rng.choice([*NUMBERS, node.get("minimum", 0), node.get("maximum", 5), rng.uniform(0, 1)])
            case "null":
                return None
        return rng.choice(self.texts)

    def an_object(self, node: dict[str, Any]) -> dict[str, Any]:
        found = {}
        for name, each in node.get("properties", {}).items():
            if name in node.get("required", ()) or self.rng.random() < 0.6:
                found[name] = self.of(each)
        if "additionalProperties" in node and isinstance(node["additionalProperties"], dict):
            found |= {self.rng.choice(TEXTS): self.of(node["additionalProperties"]) for _ in range(2)}
        return found


def a_target(kind: str, rng: Random, elements: list[str]) -> str:
    """A target of a kind: with a name that there is, mostly."""
    declared = TARGETS.get(kind)
    if declared is not None and not declared.named:
        return kind
    names = declared.names if declared and declared.names else STEPS if declared is None else ()
    if rng.random() < 0.15:
        names = TEXTS[1:8]
    elif not names:
        names = (
            (str(uuid4()),) if declared and declared.ids else (*elements, *(f"{each}.1" for each in elements), "fuel")
        )
    return f"{kind}.{rng.choice(names)}"
