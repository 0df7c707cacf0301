"""The plain values that targets are made of, each with its limits and with words for what is none."""

from dataclasses import dataclass
from math import isfinite
from typing import Annotated, Any, Literal, TypeVar

from pydantic import (
    ConfigDict,
    GetCoreSchemaHandler,
    GetJsonSchemaHandler,
    StringConstraints,
    ValidationError,
    with_config,
)
from pydantic_core import CoreSchema, PydanticCustomError, core_schema

from twincore.errors import Fault
from twincore.profile.values import FINEST_DECIMALS

LARGEST = 1e9


def is_name(text: str) -> bool:
    """Whether a text can be a name in a record: no control character in it, as the published schema has it."""
    return all(letter >= " " for letter in text)


def as_fine_as_kept(number: int | float) -> int | float:
    """A number with the decimals that documents keep: 0.1 + 0.2 is 0.3, and a place in a picture has nine of them.

    Raises what pydantic shows as one fault where next to nothing of it would be kept, as of 1e-12.
    """
    kept = number if isinstance(number, int) else round(number, FINEST_DECIMALS)
    if abs(kept - number) > abs(number) * 1e-6:
        raise PydanticCustomError("number", f"a number with at most {FINEST_DECIMALS} decimals")
    return kept


@dataclass(frozen=True, slots=True)
class Within:
    """A number, true and false not among them, from `low` to `high`; whole where that is asked."""

    low: float = -LARGEST
    high: float = LARGEST
    whole: bool = False

    def check(self, value: Any) -> int | float:
        """The number as it was written. Raises what pydantic shows as one fault."""
        wrong = isinstance(value, bool) or not isinstance(value, int if self.whole else int | float)
        if wrong or not isfinite(value) or not self.low <= value <= self.high:
            raise PydanticCustomError("number", self.expected)
        return as_fine_as_kept(value)

    @property
    def expected(self) -> str:
        """What it must be, in words."""
        kind = "a whole number" if self.whole else "a number"
        if self.low == -LARGEST and self.high == LARGEST:
            return kind
        return (
            f"{kind} from {self.low:,.10g} to {self.high:,.10g}"
            if self.high < LARGEST
            else f"{kind} of at least {self.low:,.10g}"
        )

    def __get_pydantic_core_schema__(self, source: Any, handler: GetCoreSchemaHandler) -> CoreSchema:
        return core_schema.no_info_plain_validator_function(self.check)

    def __get_pydantic_json_schema__(self, schema: CoreSchema, handler: GetJsonSchemaHandler) -> dict[str, Any]:
        return {"type": "integer" if self.whole else "number", "minimum": self.low, "maximum": self.high}


@dataclass(frozen=True, slots=True)
class Written:
    """A position or a fact as it is written: a number, a text, yes or no."""

    longest: int = 200
    flags: bool = True
    """Whether yes and no are among them."""
    texts: bool = True
    """Whether texts are among them."""

    def check(self, value: Any) -> Any:
        """The value as it was written. Raises what pydantic shows as one fault."""
        if isinstance(value, str) and self.texts:
            if len(value) > self.longest:
                raise PydanticCustomError("text", f"a text of at most {self.longest} characters")
        elif not isinstance(value, int | float) or not isfinite(value) or (isinstance(value, bool) and not self.flags):
            words = "a number, a text, true or false" if self.flags else "a number or a text"
            raise PydanticCustomError("scalar", words if self.texts else "true or false, or a number")
        elif not isinstance(value, bool):
            if abs(value) > LARGEST:
                raise PydanticCustomError("number", "a number between -1e9 and 1e9")
            return as_fine_as_kept(value)
        return value

    def __get_pydantic_core_schema__(self, source: Any, handler: GetCoreSchemaHandler) -> CoreSchema:
        return core_schema.no_info_plain_validator_function(self.check)

    def __get_pydantic_json_schema__(self, schema: CoreSchema, handler: GetJsonSchemaHandler) -> dict[str, Any]:
        text: list[dict[str, Any]] = [{"type": "string", "maxLength": self.longest}] if self.texts else []
        flag = [{"type": "boolean"}] if self.flags else []
        return {"anyOf": [*text, {"type": "number"}, *flag]}


Beyond = Literal["above", "below"]
"""That a meter says only that it is more, or less, than a value; above none: more than it can read ("OL", "open")."""
YesNo = Literal["yes", "no"]
Word = Annotated[str, StringConstraints(strict=True, strip_whitespace=True, max_length=80)]
Line = Annotated[str, StringConstraints(strict=True, strip_whitespace=True, max_length=200)]
Text = Annotated[str, StringConstraints(strict=True, strip_whitespace=True, max_length=2000)]
Number = Annotated[float, Within()]
Scalar = Annotated[str | bool | float, Written()]
RevisionTaken = Annotated[int, Within(1, whole=True)]
"""The number of a profile's revision."""
InputStands = Annotated[bool | float, Written(texts=False)]
"""How an input stands: on or off, or where a level went."""
Position = Annotated[str | float, Written(flags=False)]
"""How an element stands, as its board writes it."""

Declared = TypeVar("Declared", bound=type)


def closed(declared: Declared) -> Declared:
    """A value with no other keys than those declared."""
    return with_config(ConfigDict(extra="forbid"))(declared)


WORDS = {
    "extra_forbidden": "nothing of that name", "missing": "a value", "string_type": "a text", "bool_type": "true or false",
    "dict_type": "an object", "list_type": "a list", "string_too_short": "a text",
}  # fmt: skip


def faults_of(error: ValidationError, place: str = "") -> list[Fault]:
    """What is wrong with a value, each with its place below `place` and what was expected there."""
    found: dict[str, Fault] = {}
    for each in error.errors(include_url=False):
        where = "".join(f"[{part}]" if isinstance(part, int) else f".{part}" for part in each["loc"])
        found.setdefault(
            f"{place}{where}".removeprefix("."), Fault(f"{place}{where}".removeprefix("."), _expected(each))
        )
    return list(found.values())


def _expected(each: Any) -> str:
    context = each.get("ctx", {})
    match each["type"]:
        case "literal_error":
            return "expected one of " + str(context["expected"]).replace("'", "").replace(" or ", ", ")
        case "string_too_long":
            return f"expected a text of at most {context['max_length']:,} characters"
        case "too_long":
            return f"expected at most {context['max_length']:,} of these"
    return f"expected {WORDS.get(each['type'], each['msg'])}"
