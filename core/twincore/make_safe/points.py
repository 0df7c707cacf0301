"""Which hold points a job needs: the family's own, or the usual ones, and what the boards add to them.

The texts are reminders. Local codes, the maker's instructions and licensed practice come first; nothing here says that
a machine is safe.
"""

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass
from typing import Any

from twincore.make_safe.dead import USUAL_V, Pair, dead_limit, pairs_of
from twincore.measure import StoredEnergy, stored_energy
from twincore.measure.constants import CONSTANTS
from twincore.profile import Board, Family
from twincore.profile.facts import missing_facts

KINDS = {
    "isolate": ("Isolate and lock off", ("where", "tag")),
    "prove dead": ("Prove dead", ("instrument", "checked_before", "reading", "checked_after")),
    "stored energy": ("Stored energy gone", ("reading",)),
    "water": ("Water shut", ("where",)),
    "gas": ("Gas shut", ("where",)),
    "heat": ("Hot parts cooled", ("reading",)),
    "moving": ("Moving parts at rest", ()),
    "hanging": ("Hanging and sprung parts held", ()),
    "static": ("Static led away", ()),
}
"""The kinds of hold point: their usual title, and what a person has to say for one to hold."""
FLAGS = ("checked_before", "checked_after")
UNITS = {"prove dead": "V", "stored energy": "V", "heat": "°C"}
USUAL: tuple[dict[str, Any], ...] = (
    {"id": "isolate", "kind": "isolate"},
    {"id": "dead", "kind": "prove dead"},
    {"id": "static", "kind": "static"},
)
"""Where a family names none (common practice, no source)."""
STATIC = (
    "Wear the strap and clip it to the bare metal of the machine's frame.",
    "No foam, plastic bag or film near the board; lay it on the mat or in its own bag.",
    "Hold it by the edges; touch no pins.",
)
"""What handling a board asks for (common practice, no source)."""


@dataclass(frozen=True, slots=True)
class HoldPoint:
    """One thing that must be confirmed. `limit` is what a reading must be below, in `unit`; `wait_s` runs first. Where there are
    `pairs` of terminals, each has a reading of its own.
    """

    id: str
    kind: str
    title: str
    say: tuple[str, ...]
    asks: tuple[str, ...]
    limit: float | None = None
    unit: str = ""
    wait_s: float = 0.0
    energy: StoredEnergy | None = None
    pairs: tuple[Pair, ...] = ()


def hold_points(
    families: Iterable[Family], boards: Iterable[Board], facts: Mapping[str, Any], dead_v: float = USUAL_V
) -> list[HoldPoint]:
    """The hold points of a job in their order: family first, then what the boards store; the usual ones where no
    family names one that holds here. `dead_v` is what the depot lets an instrument show of a machine that is dead.

    A family's hold point with conditions (`if`) is left out where the facts say that it does not apply, and kept where
    a fact is missing. Boards of several families in one machine are made safe once: a further family adds the kinds of
    hold point that none before it has, each in its place in the order of the kinds; what they say of supplies adds up.
    """
    families, boards = list(families), list(boards)
    supplies = _supplies(families, facts)
    nodes: list[Mapping[str, Any]] = []
    for family in families:
        there = {node["kind"] for node in nodes}
        for node in family.document.get("hold_points", USUAL):
            if node["kind"] not in there and missing_facts(node.get("if", {}), dict(facts)) is not None:
                nodes.insert(_place_of(node, nodes) if there else len(nodes), node)
    nodes = nodes or list(USUAL)
    energy = _stored(boards)
    limit_v = dead_limit(supplies, families, boards, dead_v)
    found = [_point(node, energy, limit_v, supplies) for node in nodes]
    if energy is not None and all(point.kind != "stored energy" for point in found):
        after = next((i for i, point in enumerate(found, 1) if point.kind == "prove dead"), len(found))
        found.insert(after, _point({"id": "stored", "kind": "stored energy"}, energy, limit_v, []))
    return found


def _supplies(families: Iterable[Family], facts: Mapping[str, Any]) -> list[Mapping[str, Any]]:
    """The supplies that enter the cabinet, as the families' hold points name them, each once."""
    found: dict[str, Mapping[str, Any]] = {}
    for family in families:
        for node in family.document.get("hold_points", ()):
            for each in node.get("supplies", ()) if missing_facts(node.get("if", {}), dict(facts)) is not None else ():
                found.setdefault(each["id"], each)
    return list(found.values())


def _place_of(node: Mapping[str, Any], nodes: Sequence[Mapping[str, Any]]) -> int:
    order = list(KINDS)
    later = (i for i, each in enumerate(nodes) if order.index(each["kind"]) > order.index(node["kind"]))
    return next(later, len(nodes))


def _stored(boards: Iterable[Board]) -> StoredEnergy | None:
    """Of what the boards store, the one that takes longest; None where no profile speaks of any."""
    found = []
    for board in boards:
        node = board.document.get("stored_energy")
        if node is None:
            continue
        wait = node.get("wait_s")
        bleed = node.get("bleed_kohm")
        found.append(
            stored_energy(
                float(node.get("capacitance_uf", 0)),
                float(node.get("volts", 0)),
                None if bleed is None else float(bleed),
                None if wait is None else float(wait),
            )
        )
    return max(found, key=lambda each: each.wait_s, default=None)


def _point(
    node: Mapping[str, Any], energy: StoredEnergy | None, dead_v: float, supplies: Sequence[Mapping[str, Any]]
) -> HoldPoint:
    kind = node["kind"]
    title, asks = KINDS[kind]
    pairs = pairs_of(supplies) if kind == "prove dead" else ()
    stored = energy if kind == "stored energy" else None
    limits = {"stored energy": CONSTANTS["touch_voltage"]["limit_v"],
              "heat": CONSTANTS["touch_heat"]["limit_c"]}  # fmt: skip
    limit = node.get("limit", limits.get(kind))
    if kind == "prove dead":
        limit = min(dead_v, node.get("limit", dead_v))
    say = tuple(node.get("say", STATIC if kind == "static" else ()))
    wait = stored.wait_s if stored else CONSTANTS["drive_wait"]["wait_s"] if kind == "stored energy" else 0.0
    if pairs:
        asks = tuple("readings" if name == "reading" else name for name in asks)
    return HoldPoint(
        node["id"], kind, node.get("title", title), say, asks, None if limit is None else float(limit),
        UNITS.get(kind, ""), wait, stored, pairs,
    )  # fmt: skip
