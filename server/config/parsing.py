"""What a request says, read strictly: numbers that are numbers, texts that can be kept, and no deeper than anybody nests."""

import json
from typing import Any

from django.http import HttpRequest
from django.utils.datastructures import MultiValueDict
from ninja.parser import Parser

from twincore.profile.document import DEEPEST, depth_of
from twinshown.refusals import Refused

NUL = "\x00"


class Unreadable(Refused):
    """A request that does not say what it is supposed to."""

    status, title = 400, "This cannot be read"


class OtherKind(Unreadable):
    """A body of a kind that is not taken here: a form of another site sends none of the kind that is."""

    status = 415


class StrictParser(Parser):
    """JSON as the standard has it (RFC 8259), and texts that a database keeps."""

    def parse_body(self, request: HttpRequest) -> dict[str, Any]:
        """The body of a request. Raises Unreadable with what is wrong in it."""
        if request.content_type != "application/json":
            raise OtherKind(f"Expected application/json, found {(request.content_type or 'nothing')[:60]}.")
        try:
            data = json.loads(request.body, parse_constant=_no_number, parse_float=_number)
        except UnicodeDecodeError as error:
            raise Unreadable("Expected UTF-8 text.") from error
        except RecursionError as error:
            raise Unreadable(f"Expected at most {DEEPEST} levels of nesting.") from error
        except json.JSONDecodeError as error:
            raise Unreadable(f"Expected JSON: {error.msg}, line {error.lineno} column {error.colno}.") from error
        if depth_of(data) > DEEPEST:
            raise Unreadable(f"Expected at most {DEEPEST} levels of nesting.")
        _check_texts(data)
        return data

    def parse_querydict(
        self, data: MultiValueDict[str, Any], list_fields: list[str], request: HttpRequest
    ) -> dict[str, Any]:
        """What stands in an address. Raises Unreadable."""
        found: dict[str, Any] = super().parse_querydict(data, list_fields, request)
        _check_texts({name: value for name, value in found.items() if isinstance(value, str | list)})
        return found


def _no_number(name: str) -> Any:
    raise Unreadable(f"Expected numbers, found {name}.")


def _number(text: str) -> float:
    number = float(text)
    if number in (float("inf"), float("-inf")):
        raise Unreadable(f"Expected a number that can be kept, found {text[:20]}.")
    return number


def _check_texts(root: Any) -> None:
    waiting = [root]
    while waiting:
        node = waiting.pop()
        if isinstance(node, dict):
            waiting += [*node.keys(), *node.values()]
        elif isinstance(node, list):
            waiting += node
        elif isinstance(node, str) and not is_text(node):
            raise Unreadable("Expected text without a NUL character, every letter whole.")


def is_text(text: str) -> bool:
    """Whether a text can be kept and written: no NUL, no half of a pair of surrogates."""
    return NUL not in text and not any("\ud800" <= letter <= "\udfff" for letter in text)
