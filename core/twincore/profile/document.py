"""Open a document that came from outside: hostile until its size, depth, numbers and structure are checked."""

import json
import re
from collections import Counter
from dataclasses import dataclass
from functools import cache
from pathlib import Path
from typing import Any

from twincore.errors import AbsentError, DocumentError, Fault
from twincore.heavy import load
from twincore.profile.values import exact, plain

LARGEST_BYTES = 2_000_000
MOST_VALUES = 150_000
"""Of a document of the largest size: numbers, texts, lists and objects, counted by commas and brackets before it is read."""
DEEPEST = 32
MOST_FAULTS = 50
ALL_FAULTS_OF = 10_000
"""A document of more values than that is told its first fault alone: one that is wrong throughout has ten for every value."""
KINDS = (
    "family", "board", "settings", "scenario", "trace", "job", "rule-out", "nameplates", "statements", "wiring",
    "adapters", "package", "boards", "certificate", "tasks",
)  # fmt: skip
PREFIX = "worthy-twin/"
VALIDATOR = "jsonschema_rs"


@dataclass(frozen=True, slots=True)
class Document:
    """A document whose structure agrees with its published schema; numbers in `root` are exact."""

    kind: str
    root: dict[str, Any]


def open_document(
    data: bytes, kind: str | None = None, largest: int = LARGEST_BYTES, most_values: int = MOST_VALUES
) -> Document:
    """Read a UTF-8 JSON document and check it against the published schema of its format. Where the validator is not installed
    the structure is taken as it is: only what was checked before gets to such a place.

    `kind` is the format expected (without its prefix); None takes whatever format the document names.
    `largest` is how many bytes it may have, `most_values` how many numbers, texts, lists and objects. Raises DocumentError with the place of every structural fault.
    """
    root, values = _read_json(data, largest, most_values)
    if not isinstance(root, dict):
        raise DocumentError([Fault("", 'expected a JSON object with "format" and "version"')])
    named = root.get("format")
    found = named[len(PREFIX) :] if isinstance(named, str) and named.startswith(PREFIX) else None
    if found not in KINDS or kind not in (None, found):
        wanted = f'"{PREFIX}{kind}"' if kind else "one of " + ", ".join(f'"{PREFIX}{known}"' for known in KINDS)
        raise DocumentError([Fault("format", f"expected {wanted}, found {_shown(named)}")])
    if faults := _faults(_validator(found), plain(root), values):
        raise DocumentError(sorted(faults, key=lambda fault: fault.place)[:MOST_FAULTS])
    return Document(found, root)


def _faults(validator: Any, root: Any, values: int) -> list[Fault]:
    if validator is None:
        return []
    if values <= ALL_FAULTS_OF:
        return [_fault(error) for error in validator.iter_errors(root)]
    try:
        validator.validate(root)
    except load(VALIDATOR).ValidationError as error:
        return [_fault(error)]
    return []


def parse_facts(data: bytes) -> dict[str, Any]:
    """Facts about a machine: one flat JSON object of names and values."""
    root, _ = _read_json(data)
    if not isinstance(root, dict):
        raise DocumentError([Fault("", "expected a JSON object of facts and their values")])
    wrong = [name for name, value in root.items() if isinstance(value, dict | list) or value is None]
    if wrong:
        raise DocumentError([Fault(name, "expected a number, a text, true or false") for name in wrong])
    return root


def dump(node: Any) -> str:
    """A JSON text of exact values, one trailing line end."""
    return json.dumps(plain(node), ensure_ascii=False, indent=1) + "\n"


def jsonable(node: Any) -> Any:
    """The same value as plain JSON data: numbers as ints and floats, lists instead of tuples."""
    return json.loads(json.dumps(plain(node)))


def schema_path(kind: str) -> Path:
    """Where the published JSON Schema of a format lies."""
    return Path(__file__).parent / "schemas" / f"{kind}.schema.json"


@cache
def _validator(kind: str) -> Any:
    try:
        package = load(VALIDATOR)
    except AbsentError:
        return None
    return package.Draft202012Validator(json.loads(schema_path(kind).read_text()))


def _read_json(data: bytes, largest: int = LARGEST_BYTES, most_values: int = MOST_VALUES) -> tuple[Any, int]:
    """What a JSON text says, and how many values it has at most."""
    if len(data) > largest:
        raise DocumentError([Fault("", f"expected at most {largest:,} bytes, found {len(data):,}")])
    try:
        text = data.decode("utf-8-sig")
    except UnicodeDecodeError as error:
        raise DocumentError([Fault(f"byte {error.start}", "expected UTF-8 text")]) from error
    values = 1 + sum(map(text.count, ",[{"))
    if values > most_values:
        raise DocumentError([Fault("", f"expected at most {most_values:,} values, found about {values:,}")])
    try:
        root = json.loads(text, parse_float=exact, parse_int=exact, parse_constant=_refuse, object_pairs_hook=_object)
    except json.JSONDecodeError as error:
        raise DocumentError(
            [Fault(f"line {error.lineno} column {error.colno}", f"expected JSON: {error.msg}")]
        ) from error
    except RecursionError as error:
        raise DocumentError([Fault("", f"expected at most {DEEPEST} levels of nesting")]) from error
    except ValueError as error:
        raise DocumentError([Fault("", f"expected {error}")]) from error
    _check_depth(root)
    if SURROGATE.search(text):
        _check_texts(root, [])
    return root, values


SURROGATE = re.compile(r"\\u[dD][89a-fA-F]")
"""How JSON writes half a character; only then is every text looked at."""


def _check_texts(node: Any, path: list[str | int]) -> None:
    """Refuse half a character: a text with one cannot be kept, nor sent."""
    if isinstance(node, str):
        try:
            node.encode()
        except UnicodeEncodeError as error:
            raise DocumentError([Fault(place_of(path), "expected text, found half a character")]) from error
    elif isinstance(node, dict):
        for key, child in node.items():
            _check_texts(key, path)
            _check_texts(child, [*path, key])
    elif isinstance(node, list):
        for index, child in enumerate(node):
            _check_texts(child, [*path, index])


def _refuse(name: str) -> Any:
    raise ValueError(f"numbers only, found {name}")


def _object(pairs: list[tuple[str, Any]]) -> dict[str, Any]:
    node = dict(pairs)
    if len(node) != len(pairs):
        twice = Counter(key for key, _ in pairs).most_common(1)[0][0]
        raise ValueError(f'every key once in an object, found "{twice[:60]}" twice')
    return node


def _check_depth(root: Any) -> None:
    if depth_of(root) > DEEPEST:
        raise DocumentError([Fault("", f"expected at most {DEEPEST} levels of nesting")])


def depth_of(root: Any) -> int:
    """How many levels of objects and lists a JSON value has, itself among them; no more than DEEPEST + 1 are counted."""
    level, depth = [root], 0
    while level and depth <= DEEPEST:
        depth += 1
        level = [
            child
            for node in level
            if isinstance(node, dict | list)
            for child in (node.values() if isinstance(node, dict) else node)
        ]
    return depth


def place_of(path: list[str | int]) -> str:
    """A place as people write it: `behaviour.states.run.go[2].after`."""
    place = ""
    for part in path:
        place += f"[{part}]" if isinstance(part, int) else f".{part}" if place else str(part)
    return place


def _fault(error: Any) -> Fault:
    place = place_of(list(error.instance_path))
    kind = type(error.kind).__name__.rsplit("_", 1)[-1]
    message: str = error.message
    if kind == "Required":
        return Fault(place, f"expected {error.kind.property!r} here".replace("'", '"'))
    if kind == "AdditionalProperties":
        unknown = ", ".join(f'"{name}"' for name in error.kind.unexpected[:5])
        return Fault(place, f'expected only keys of the published schema (or "notes"), found {unknown}')
    expectation = _expectation(kind, error.kind)
    if expectation:
        return Fault(place, f"expected {expectation}, found {_shown(error.instance)}")
    return Fault(place, message[:200])


def _expectation(kind: str, detail: Any) -> str | None:
    match kind:
        case "Type":
            names = detail.types if isinstance(detail.types, list) else [detail.types]
            articles = {"object": "an object", "array": "a list", "integer": "a whole number", "string": "a text"}
            return " or ".join(articles.get(str(name), f"a {name}") for name in names)
        case "Enum":
            return "one of " + ", ".join(_shown(option) for option in detail.options)
        case "Constant":
            return _shown(detail.expected_value)
        case "Minimum" | "ExclusiveMinimum":
            return f"a number {'of at least' if kind == 'Minimum' else 'above'} {detail.limit}"
        case "Maximum" | "ExclusiveMaximum":
            return f"a number {'of at most' if kind == 'Maximum' else 'below'} {detail.limit}"
        case "Pattern":
            return f"a text like {detail.pattern}"
        case "MaxLength":
            return f"at most {detail.limit} characters"
        case "MinLength":
            return f"at least {detail.limit} character"
        case "MaxItems" | "MinItems":
            return f"{'at most' if kind == 'MaxItems' else 'at least'} {detail.limit} entries"
    return None


def _shown(value: Any) -> str:
    text = json.dumps(plain(value), ensure_ascii=False)
    return text if len(text) <= 60 else text[:57] + "..."
