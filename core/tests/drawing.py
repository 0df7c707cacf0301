"""Documents drawn from the published schemas, and which of what a schema allows was drawn.

A schema's *marks* are every key that may be left out, every value of an enumeration, every null, and both ends of every range of
numbers. What is drawn freely need not make sense; whoever draws keeps what the product takes.
"""

import json
from collections.abc import Callable, Iterator
from functools import cache
from random import Random
from typing import Any

import jsonschema_rs

from twincore.profile.document import schema_path

Node = dict[str, Any]
Hooks = dict[str, Callable[[Random], Any]]
"""By the place in the schema (`charts[].rows[].set`), what is drawn there: names that mean something."""

WORDS = ["a", "S1", "0", "-", "?", "x y", "Öl", "⚠", "'", '"', "1.5", "true", "%s", "\\", "\u202e", "😀"]
PATTERNS = {
    "^[^\\x00-\\x1f]*$": WORDS, "^\\d{4}-\\d{2}-\\d{2}$": ["2024-02-29"], "^[01]+$": ["0", "1"], "^[0-9]+$": ["0", "9"],
}  # fmt: skip


@cache
def schema_of(kind: str) -> Node:
    """The published schema of a format."""
    found: Node = json.loads(schema_path(kind).read_text())
    return found


class Schema:
    """A published schema: what it allows, drawn and marked."""

    def __init__(self, kind: str) -> None:
        self.root = schema_of(kind)
        self._validators: dict[int, Any] = {}

    def _plain(self, node: Any) -> Any:
        """A node with its references followed."""
        while isinstance(node, dict) and "$ref" in node:
            target = self.root
            for part in node["$ref"].removeprefix("#/").split("/"):
                target = target[part]
            node = target
        return node

    def at(self, path: str) -> Any:
        """The node of a key of the document."""
        return self._plain(self.root["properties"][path])

    # marks ---------------------------------------------------------------------------------------------------------

    def marks(self) -> set[str]:
        """Everything that the schema allows, as marks."""
        return set(self._marks(self.root, ""))

    def _marks(self, node: Any, path: str) -> Iterator[str]:
        node = self._plain(node)
        if not isinstance(node, dict):
            return
        yield from (f"{path} = {value!r}" for value in node.get("enum", ()))
        if "null" in (types := node.get("type", "")) and isinstance(types, list):
            yield f"{path} = None"
        yield from (f"{path} {key}" for key in ("minimum", "maximum") if key in node)
        for branch in self._branches(node):
            yield from self._marks(branch, path)
        for key, child in node.get("properties", {}).items():
            if key not in node.get("required", ()):
                yield f"{path}.{key} there"
            yield from self._marks(child, f"{path}.{key}")
        yield from self._marks(node.get("additionalProperties"), f"{path}.*")
        yield from self._marks(node.get("items"), f"{path}[]")
        for child in node.get("prefixItems", ()):
            yield from self._marks(child, f"{path}[]")

    def _branches(self, node: Node) -> list[Any]:
        found = [branch for key in ("oneOf", "anyOf", "allOf") for branch in node.get(key, ())]
        return found + [node[key] for key in ("then", "else") if key in node]

    def met(self, value: Any) -> set[str]:
        """The marks that a document makes."""
        return set(self._met(self.root, value, ""))

    def _met(self, node: Any, value: Any, path: str) -> Iterator[str]:
        node = self._plain(node)
        if not isinstance(node, dict):
            return
        yield from (
            f"{path} = {each!r}" for each in node.get("enum", ()) if each == value and type(each) is type(value)
        )
        if value is None:
            yield f"{path} = None"
        yield from (f"{path} {key}" for key in ("minimum", "maximum") if key in node and value == node[key])
        for branch in self._holding(node, value):
            yield from self._met(branch, value, path)
        if isinstance(value, dict):
            known = node.get("properties", {})
            for key, child in value.items():
                yield f"{path}.{key} there"
                where = f"{path}.{key}" if key in known else f"{path}.*"
                yield from self._met(known.get(key, node.get("additionalProperties")), child, where)
        if isinstance(value, list):
            first = node.get("prefixItems", ())
            for number, child in enumerate(value):
                yield from self._met(first[number] if number < len(first) else node.get("items"), child, f"{path}[]")

    def _holding(self, node: Node, value: Any) -> list[Any]:
        """The branches of a node that hold for a value."""
        several = [branch for key in ("oneOf", "anyOf") for branch in node.get(key, ()) if self._fits(branch, value)]
        found = [*several, *node.get("allOf", ())]
        if "if" in node:
            key = "then" if self._fits(node["if"], value) else "else"
            found += [node[key]] if key in node else []
        return found

    def _fits(self, node: Node, value: Any) -> bool:
        validator = self._validators.get(id(node))
        if validator is None:
            whole = {**node, "$defs": self.root.get("$defs", {})}
            validator = self._validators[id(node)] = jsonschema_rs.Draft202012Validator(whole)
        return bool(validator.is_valid(value))

    # drawing -------------------------------------------------------------------------------------------------------

    def draw(self, rng: Random, node: Any, hooks: Hooks, path: str) -> Any:
        """Something that a node of the schema allows, at this place."""
        if path in hooks:
            return hooks[path](rng)
        node = self._plain(node)
        if node is True:
            return rng.choice([None, 1, "note", {"a": [1, None]}, []])
        if "const" in node:
            return node["const"]
        if "enum" in node:
            return rng.choice(node["enum"])
        if branches := [*node.get("oneOf", ()), *node.get("anyOf", ())]:
            chosen = self._plain(rng.choice(branches))
            return self.draw(
                rng, _joined({k: v for k, v in node.items() if k not in ("oneOf", "anyOf")}, chosen), hooks, path
            )
        if "if" in node:
            return self._draw_either(rng, node, hooks, path)
        types = node.get("type", "object")
        match rng.choice(types) if isinstance(types, list) else types:
            case "null":
                return None
            case "boolean":
                return rng.random() < 0.5
            case "integer" | "number" as kind:
                return _number(rng, node, kind == "integer")
            case "string":
                return _text(rng, node)
            case "array":
                return self._list(rng, node, hooks, path)
        return self._object(rng, node, hooks, path)

    def _draw_either(self, rng: Random, node: Node, hooks: Hooks, path: str) -> Any:
        plain = {key: value for key, value in node.items() if key not in ("if", "then", "else")}
        if rng.random() < 0.5:
            return self.draw(rng, _joined(plain, _joined(node["if"], self._plain(node["then"]))), hooks, path)
        return self.draw(rng, _joined(plain, self._plain(node["else"])), hooks, path)

    def _list(self, rng: Random, node: Node, hooks: Hooks, path: str) -> list[Any]:
        first = node.get("prefixItems", [])
        found = [self.draw(rng, each, hooks, f"{path}[]") for each in first]
        least = max(node.get("minItems", 0), len(first))
        length = min(node.get("maxItems", 3), least + rng.randrange(3))
        while len(found) < length:
            each = self.draw(rng, node["items"], hooks, f"{path}[]")
            if not node.get("uniqueItems") or each not in found:
                found.append(each)
            elif rng.random() < 0.2:
                break
        return found

    def _object(self, rng: Random, node: Node, hooks: Hooks, path: str) -> Node:
        found = {}
        for key, child in node.get("properties", {}).items():
            if key in node.get("required", ()) or rng.random() < 0.45:
                found[key] = self.draw(rng, child, hooks, f"{path}.{key}")
        more = node.get("additionalProperties")
        if isinstance(more, dict):
            for _ in range(max(node.get("minProperties", 0), rng.randrange(3))):
                key = self.draw(rng, node.get("propertyNames", {"type": "string"}), hooks, f"{path}.* name")
                found[str(key)] = self.draw(rng, more, hooks, f"{path}.*")
        return found


def _joined(one: Node, other: Node) -> Node:
    """Two nodes that both hold."""
    joined = {**one, **other}
    for key in ("properties", "required"):
        if key in one and key in other:
            joined[key] = {**one[key], **other[key]} if key == "properties" else [*one[key], *other[key]]
    return joined


def _number(rng: Random, node: Node, whole: bool) -> Any:
    least, most = node.get("minimum"), node.get("maximum")
    floor = least if least is not None else node.get("exclusiveMinimum", -5)
    within = [floor + 1, floor + 2, floor + 60, *(() if whole else (floor + 0.5, floor + 0.001))]
    fits = [each for each in within if most is None or each <= most]
    ends = [each for each in (least, most) if each is not None]
    # an end is drawn as often as all that lies between
    return rng.choice(ends if ends and (not fits or rng.random() < 0.5) else fits)


def _text(rng: Random, node: Node) -> str:
    words = PATTERNS.get(node.get("pattern", ""), WORDS)
    found = "".join(rng.choice(words) for _ in range(rng.randrange(3))) if "pattern" not in node else rng.choice(words)
    return (found or ("" if not node.get("minLength") else "x"))[: node.get("maxLength", 80)]


def sprinkled(rng: Random, schema: Schema, document: Node, names: tuple[str, ...], share: float) -> Node:
    """The document with keys of these names put in where the schema allows them and they are not there."""
    copy: Node = json.loads(json.dumps(document))
    _sprinkle(rng, schema, schema.root, copy, names, share)
    return copy


def _sprinkle(rng: Random, schema: Schema, node: Any, value: Any, names: tuple[str, ...], share: float) -> None:
    node = schema._plain(node)
    if not isinstance(node, dict):
        return
    for branch in schema._holding(node, value):
        _sprinkle(rng, schema, branch, value, names, share)
    known = node.get("properties", {})
    if isinstance(value, dict):
        for name in names:
            if name in known and name not in value and rng.random() < share:
                value[name] = schema.draw(rng, known[name], {}, "")
        for key, child in value.items():
            if key not in names:
                _sprinkle(rng, schema, known.get(key, node.get("additionalProperties")), child, names, share)
    elif isinstance(value, list):
        for child in value:
            _sprinkle(rng, schema, node.get("items"), child, names, share)
