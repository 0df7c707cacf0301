"""Rule out: what is said of symptoms, tests and what killed the board."""

from typing import Annotated, Any, Literal, NotRequired, get_args

from pydantic import Field, StrictBool
from typing_extensions import TypedDict

from twincore.job.target import EntryMade, Numbered, Signed, Target, signed
from twincore.job.values import Beyond, Line, Number, Text, Word, YesNo, closed

Report = Literal["code", "since", "pattern", "changed", "does"]


@closed
class TestSaid(TypedDict, total=False):
    """A test's result or reading, how it stood before, whether it is put back."""

    result: Text | None
    value: Number | None
    beyond: Beyond | None
    uncertainty: Number | None
    at_c: Number | None
    note: Text | None
    as_found: Text | None
    restored: StrictBool | None


class TestKept(TestSaid, Numbered, Signed):
    """A test as it is kept."""

    undo: NotRequired[str]
    """What it moved or pulled, to be put back, in words."""


@closed
class CauseSaid(TypedDict):
    """Something that may have killed the board, and whether it is cleared."""

    note: Text
    cleared: StrictBool


class CauseKept(CauseSaid):
    """A cause as it is kept; whether it keeps the power off comes from the family's data."""

    blocks: bool


Repaired = Literal["fuse", "sensor", "setting", "wire", "switch", "other"]
"""What was put right on a machine whose board was cleared."""


@closed
class RepairSaid(TypedDict):
    """What was put right, and the part that went in."""

    kind: Repaired
    what: Annotated[Line, Field(min_length=1)]
    part: NotRequired[Word]


class RepairKept(RepairSaid, Signed):
    """What was put right, by whom and when."""


def _keep_test(value: Any, entry: EntryMade, before: Any, state: dict[str, Any]) -> Any:
    undo = {"undo": entry.adds["undo"]} if entry.adds.get("undo") else {}
    return {**value, **undo, "n": (before or {}).get("n", entry.number), **entry.signed()}


def _keep_cause(value: Any, entry: EntryMade, before: Any, state: dict[str, Any]) -> Any:
    return {**value, "blocks": entry.adds.get("blocks", True)}


TARGETS = (
    Target("family", "rule_out", Word, "family", "kind", named=False),
    Target("symptom", "rule_out", YesNo, "symptoms", "kind", takes_back=("rule_out",)),
    Target("report", "rule_out", Text, "report", "machine", names=get_args(Report)),
    Target("test", "rule_out", TestSaid, "tests", "kind", takes_back=("rule_out",), keep=_keep_test),
    Target(
        "repair",
        "rule_out",
        RepairSaid,
        "repairs",
        "machine",
        ids=True,
        takes_back=("prove",),
        waits_for=(),
        keep=signed,
    ),
    Target("cause", "rule_out", CauseSaid, "causes", "kind", keep=_keep_cause),
)
