"""The declared values as JSON Schema: one declaration for the API, the client's types and the published formats."""

from typing import Any, Literal

from pydantic import TypeAdapter

from twincore.job.rules.changing import KEPT_BESIDE
from twincore.job.rules.state import ConfirmedSaid
from twincore.job.target import adapter_of
from twincore.job.targets import TARGETS


def published() -> dict[str, Any]:
    """The published schema of what entries may say: JSON Schema 2020-12, by kind of target."""
    schemas = value_schemas("#/$defs/{model}")
    values = schemas.pop("EntryValues")
    return {"$schema": "https://json-schema.org/draft/2020-12/schema", **values, "$defs": schemas}


def value_schemas(ref_template: str) -> dict[str, Any]:
    """Schemas by name: `EntryValues` has a property for each kind of target with what may be said at it; the others are
    those that it refers to, by `ref_template`. Beside the standard there is `x-targets`, where each stands in the state.
    """
    kinds = {kind: target.value for kind, target in TARGETS.items()} | {"confirmed": ConfirmedSaid}
    mode: Literal["validation"] = "validation"
    inputs = [(kind, mode, adapter_of(declared)) for kind, declared in kinds.items()]
    by_kind, shared = TypeAdapter.json_schemas(inputs, ref_template=ref_template)
    values = {
        "title": "EntryValues",
        "description": "What may be said at each kind of target; null takes it back.",
        "type": "object",
        "properties": {kind: by_kind[kind, mode] for kind in kinds},
        "required": list(kinds),
        "x-targets": {kind: {"key": target.key, "named": target.named} for kind, target in TARGETS.items()},
        "x-kept-beside": list(KEPT_BESIDE),
    }
    return {**shared.get("$defs", {}), "EntryValues": values}
