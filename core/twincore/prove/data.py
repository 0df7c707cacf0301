"""What a family says of proving: how each input is made to happen, what is run, what is read, what is overridden."""

from collections.abc import Mapping
from dataclasses import dataclass
from math import inf
from typing import Any

from twincore.measure import Band
from twincore.profile import Board, Family
from twincore.profile.facts import missing_facts
from twincore.settings import acts_of, resting

TEST_SWITCH = "switch/"
"""What the names of overrides begin with that are switches of the board itself."""
FORCED = ("hand", "follows", "cannot")
"""An input is made by hand, follows by itself from what the machine does, or cannot be made to happen here."""


@dataclass(frozen=True, slots=True)
class Forcing:
    """How one input is made to happen on this kind of machine; `why` says why it cannot be."""

    input: str
    way: str
    begin: str = ""
    end: str = ""
    undo: str = ""
    risk: str = "none"
    why: str = ""
    known: bool = True
    output: str = ""
    """Of an input that follows: the output that it follows."""
    make_begin: str = ""
    make_end: str = ""
    """How a hand makes it begin or end while that output says otherwise."""
    keep_off: str = ""
    """What a hand does beforehand so that it stays away while the output is on; `undo` lets it come again."""


@dataclass(frozen=True, slots=True)
class ReadingWanted:
    """A reading to take once the machine runs, with the band that it is judged by."""

    id: str
    title: str
    unit: str
    band: Band
    uncertainty: float
    how: tuple[str, ...]
    risk: str
    source: str


@dataclass(frozen=True, slots=True)
class Override:
    """Something switched on for a test only: it runs out after `time_out_s`, and must be off before handing over."""

    id: str
    what: str
    how: str
    time_out_s: float | None
    undo: str
    point: str = ""
    """Of a board's own test switch: the point that acts, which must be read back as put to rest."""
    does: tuple[dict[str, Any], ...] = ()
    """What is set, bridged, pulled, waited for and expected, as data."""


def forcing_of(family: Family) -> dict[str, Forcing]:
    """How each input of the family is made; one of which nobody wrote anything down is for the person's own hand."""
    found = {name: Forcing(name, "hand", known=False) for name in family.inputs}
    for node in _proving(family).get("inputs", ()):
        if node["input"] in found:
            found[node["input"]] = Forcing(
                node["input"], node["way"], node.get("begin", ""), node.get("end", ""), node.get("undo", ""),
                node.get("risk", "none"), node.get("why", ""), output=node.get("with", ""),
                make_begin=node.get("make_begin", ""), make_end=node.get("make_end", ""), keep_off=node.get("keep_off", ""),
            )  # fmt: skip
    return found


def runs_of(family: Family, facts: Mapping[str, Any]) -> list[dict[str, Any]]:
    """The family's checkout runs that this machine does not rule out."""
    return [
        node for node in _proving(family).get("runs", ()) if missing_facts(node.get("if", {}), dict(facts)) is not None
    ]


def readings_of(family: Family, facts: Mapping[str, Any]) -> list[ReadingWanted]:
    """The readings to take on this machine."""
    return [
        ReadingWanted(
            node["id"], node["title"], node["unit"],
            Band(float(node["band"].get("from", -inf)), float(node["band"].get("to", inf))),
            float(node.get("uncertainty", 0)), tuple(node.get("how", ())), node.get("risk", "none"), node["source"],
        )
        for node in _proving(family).get("readings", ())
        if missing_facts(node.get("if", {}), dict(facts)) is not None
    ]  # fmt: skip


def overrides_of(family: Family) -> list[Override]:
    """What may be overridden for a test."""
    return [
        Override(
            n["id"],
            n["what"],
            n.get("how", ""),
            float(n["time_out_s"]),
            n.get("undo", ""),
            does=tuple(n.get("does", ())),
        )
        for n in _proving(family).get("overrides", ())
    ]


def own_switches(board: Board) -> list[Override]:
    """The positions in which a board acts by itself for a test, each as an override."""
    return [
        Override(
            f"{TEST_SWITCH}{act.point}",
            f"{act.point}: {act.what}",
            f"Set {act.point} to {act.when}",
            act.time_out_s,
            f"Set {act.point} back to {resting(board, act)}, and read it back",
            act.point,
        )
        for act in acts_of(board)
    ]


def _proving(family: Family) -> Mapping[str, Any]:
    return family.document.get("proving", {})
