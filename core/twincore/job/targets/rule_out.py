"""Rule out: what is said of symptoms, tests and what killed the board."""

from typing import Annotated, Any, Literal, NotRequired, get_args

from pydantic import Field, StrictBool
from typing_extensions import TypedDict

from twincore.job.target import SIGNED, EntryMade, Keep, Numbered, Signed, Target
from twincore.job.targets.make_safe import supply_is_back
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


KEEP_CAUSE = Keep(lambda value, entry, before, state: {**value, "blocks": entry.adds.get("blocks", True)}, ("blocks",))


def _after_test(state: dict[str, Any], name: str, value: Any, entry: EntryMade) -> None:
    """A test that was made on a machine with power."""
    if entry.adds.get("powered"):
        supply_is_back(state)


TARGETS = (
    Target(
        "family", "rule_out", Word, "family", "kind", supply="any", named=False, forgets="kind", captures=True, chooses=True
    ),
    Target("symptom", "rule_out", YesNo, "symptoms", "kind", supply="any", takes_back=("rule_out",)),
    Target("report", "rule_out", Text, "report", "machine", supply="any", names=get_args(Report)),
    Target(
        "test", "rule_out", TestSaid, "tests", "kind", supply="any", takes_back=("rule_out",),
        keep=Keep(_keep_test, ("undo", "n", "by", "at")), follows=_after_test, captures=True, untold=("power", "holds", "confirmed"),
    ),
    Target(
        "repair", "rule_out", RepairSaid, "repairs", "machine", supply="any", ids=True,
        takes_back=("prove",), waits_for=(), keep=SIGNED,
    ),
    Target(
        "cause", "rule_out", CauseSaid, "causes", "kind", supply="any", keep=KEEP_CAUSE, captures=True, untold=("causes",)
    ),
)  # fmt: skip
