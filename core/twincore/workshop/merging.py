"""A kind of machine that two drafts changed: what each added stands in the end, and nobody's word is lost."""

from collections.abc import Mapping
from copy import deepcopy
from typing import Any

from twincore.errors import Refusal
from twincore.workshop.draft import same_json


def merged_family(base: Mapping[str, Any], mine: Mapping[str, Any], theirs: Mapping[str, Any]) -> dict[str, Any]:
    """A family document with what is otherwise in `mine` than in `base` put into `theirs`.

    Lists are merged by the ids of what stands in them. Raises Refusal where both changed the same thing otherwise.
    """
    merged = deepcopy(dict(theirs))
    for key in dict.fromkeys([*base, *mine]):
        was, now, there = base.get(key), mine.get(key), theirs.get(key)
        if same_json(was, now) or same_json(now, there):
            continue
        if all(_named(each) for each in (was or [], now or [], there or [])):
            merged[key] = _merged_list(key, was or [], now or [], there or [])
        elif same_json(was, there):
            merged[key] = deepcopy(now)
            if now is None:
                del merged[key]
        else:
            raise Refusal(f"Somebody else changed {key} of this kind of machine meanwhile. Look at it again.")
    return merged


def _named(node: Any) -> bool:
    return isinstance(node, list) and all(isinstance(each, dict) and "id" in each for each in node)


def _merged_list(key: str, was: list[Any], now: list[Any], there: list[Any]) -> list[Any]:
    old, mine = {each["id"]: each for each in was}, {each["id"]: each for each in now}
    result = {each["id"]: each for each in there}
    for name in dict.fromkeys([*old, *mine]):
        if same_json(old.get(name), mine.get(name)) or same_json(mine.get(name), result.get(name)):
            continue
        if name not in old and name in result:
            continue  # both added it: what is published stands, and the draft is held against that
        if not same_json(old.get(name), result.get(name)):
            raise Refusal(f"Somebody else changed {name} of this kind of machine meanwhile. Look at it again.", key=key)
        if name in mine:
            result[name] = mine[name]
        else:
            result.pop(name, None)
    return deepcopy(list(result.values()))
