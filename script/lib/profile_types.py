"""The types of a family's and a board's document, written from their schemas: `python script/lib/profile_types.py`."""

import json
from keyword import iskeyword
from pathlib import Path
from typing import Any

CORE = Path(__file__).resolve().parents[2] / "core/twincore/profile"
OUT = CORE / "documents.py"
HEAD = '''"""What the documents of families and boards hold, as their schemas say it. Written by `script/api`; do not edit it.

Numbers are exact. What an element, a function or a behaviour holds in detail is read by `elements`, `functions` and `behaviour`.
"""

from typing import Any, Literal, NotRequired, TypedDict

from twincore.profile.values import Number, Value
'''
SIMPLE = {"string": "str", "number": "Number", "integer": "int", "boolean": "bool"}
BUILT = ("settings", "functions", "behaviour", "scenarios")
"""Parts that modules of their own read: their detail is typed there."""


class Writer:
    """Writes the types of one document, the innermost first."""

    def __init__(self, kind: str, schema: dict[str, Any]) -> None:
        self._kind, self._defs = kind.title(), schema["$defs"]
        self.classes: dict[str, str] = {}

    def of(self, node: Any, name: str) -> str:
        """The type of a part of the schema; `name` is what an object in it is called."""
        if not isinstance(node, dict):
            return "Any"
        if "$ref" in node:
            target = node["$ref"].rpartition("/")[2]
            return "Value" if target == "value" else self.of(self._defs[target], self._kind + target.title())
        if "enum" in node and all(isinstance(each, str) for each in node["enum"]):
            return f"Literal[{', '.join(json.dumps(each) for each in node['enum'])}]"
        match node.get("type"):
            case str(plain) if plain in SIMPLE:
                return SIMPLE[plain]
            case "array":
                return f"list[{self.of(node.get('items'), _singular(name))}]"
            case "object" if "allOf" in node:
                return "dict[str, Any]"
            case "object" if "properties" in node:
                return self._class(node, name)
            case "object":
                return f"dict[str, {self.of(node.get('additionalProperties'), _singular(name))}]"
        return "Any"

    def _class(self, node: dict[str, Any], name: str) -> str:
        must = node.get("required", ())
        rows = {}
        for key, part in node["properties"].items():
            kind = self.of(part, name.removesuffix("Document") + "".join(word.title() for word in key.split("_")))
            rows[key] = kind if key in must else f"NotRequired[{kind}]"
        if any(iskeyword(key) for key in rows):
            inner = "".join(f'        "{key}": {kind},\n' for key, kind in rows.items())
            text = f'{name} = TypedDict(\n    "{name}",\n    {{\n{inner}    }},\n)\n'
        else:
            text = f"class {name}(TypedDict):\n" + "".join(f"    {key}: {kind}\n" for key, kind in rows.items())
        self.classes[name] = text
        return name


def _singular(name: str) -> str:
    return (
        name[:-3] + "y"
        if name.endswith("ies")
        else name[:-1]
        if name.endswith("s") and not name.endswith("ss")
        else name
    )


def _document(kind: str) -> str:
    schema = json.loads((CORE / f"schemas/{kind}.schema.json").read_text())
    for part in BUILT:
        if part in schema["properties"]:
            is_list = schema["properties"][part].get("type") == "array"
            schema["properties"][part] = (
                {"type": "array", "items": {"type": "object"}} if is_list else {"type": "object"}
            )
    writer = Writer(kind, schema)
    writer.of(schema, f"{kind.title()}Document")
    return "\n\n".join(writer.classes.values())


def written() -> str:
    """The whole module."""
    return "\n\n".join([HEAD, _document("family"), _document("board")])


if __name__ == "__main__":
    OUT.write_text(written())
