"""The types of profiles say what their schemas say, and mypy reads every key by them."""

import json
import runpy
from pathlib import Path
from typing import Any, get_args, get_origin
from unittest import TestCase

from twincore.profile import documents

ROOT = Path(__file__).resolve().parents[2]
SCHEMAS = ROOT / "core/twincore/profile/schemas"


def classes(names: dict[str, Any]) -> dict[str, Any]:
    return {
        name: ({key: repr(kind) for key, kind in each.__annotations__.items()}, each.__required_keys__)
        for name, each in names.items()
        if hasattr(each, "__required_keys__")
    }


class ProfileTypes(TestCase):
    def test_what_is_kept_is_what_the_schemas_give_today(self) -> None:
        """`script/api` writes them anew."""
        made: dict[str, Any] = {"__name__": documents.__name__}
        exec(runpy.run_path(str(ROOT / "script/lib/profile_types.py"))["written"](), made)
        self.assertEqual(classes(made), classes(vars(documents)))
        self.assertGreater(len(classes(made)), 40)

    def test_every_key_that_a_schema_requires_or_allows_is_in_its_type(self) -> None:
        for kind, of in (("family", documents.FamilyDocument), ("board", documents.BoardDocument)):
            schema = json.loads((SCHEMAS / f"{kind}.schema.json").read_text())
            self._agrees(schema, of, schema["$defs"])

    def _agrees(self, schema: dict[str, Any], of: Any, defs: dict[str, Any]) -> None:
        self.assertEqual(set(schema["properties"]), set(of.__annotations__), of)
        self.assertEqual(set(schema.get("required", ())), set(of.__required_keys__), of)
        for key, node in schema["properties"].items():
            inner: Any = of.__annotations__[key]
            while isinstance(node, dict) and (node.get("type") == "array" or "$ref" in node or get_args(inner)):
                if "$ref" in node:
                    node = defs[node["$ref"].rpartition("/")[2]]
                    continue
                if not get_args(inner):
                    break
                if get_origin(inner) is list:
                    node = node.get("items")
                elif get_origin(inner) is dict:
                    break
                inner = get_args(inner)[0]
            if hasattr(inner, "__required_keys__"):
                assert isinstance(node, dict)
                self._agrees(node, inner, defs)
