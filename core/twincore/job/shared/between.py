"""The wires from one board of a machine to another: where each goes once both boards are exchanged, and whether that is sound;
and in which order the boards are taken.
"""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Literal

from twincore.job.case import Case
from twincore.job.rules.boards import names_of
from twincore.job.rules.order import done
from twincore.job.shared.wires import wiring_plan
from twincore.job.targets.record import BetweenSaid
from twincore.wiring import Pin, WirePlan, plugs_of

Wrong = Literal["cut at one end", "other voltage", "nothing drives it", "two drive it"]


@dataclass(frozen=True, slots=True)
class Side:
    """One end of wires between two boards: the place on the old board, what it carries, and where it comes to on the new one.

    `new` is None where that is not known yet, and empty where the wire is tied back.
    """

    board: str
    place: str
    carries: str
    new: tuple[str, ...] | None


@dataclass(frozen=True, slots=True)
class Between:
    """Wires between two boards: a wire from pin to pin, or a whole lead from plug to plug; what is not sound about it."""

    id: str
    what: str
    sides: tuple[Side, Side]
    wrong: tuple[Wrong, ...]


@dataclass(frozen=True, slots=True)
class BoardOrder:
    """The boards as they are taken, and of each that stands before another for a reason, whom it drives, over which places."""

    boards: tuple[str, ...]
    drives: Mapping[str, Mapping[str, tuple[str, ...]]]
    said: bool
    """Whether somebody chose this order."""


@dataclass(frozen=True, slots=True)
class _Place:
    """One end on the old board: its pins, and what kind of signal each carries."""

    pins: tuple[Pin, ...] = ()
    kinds: tuple[str, ...] = ()


@dataclass(frozen=True, slots=True)
class _End:
    """One end, and the plans of the wires that are on it."""

    said: Side
    here: _Place
    planned: tuple[WirePlan, ...]


def wires_between(case: Case) -> list[Between]:
    """What was recorded between the boards, in that order, each with where it goes."""
    cases = {each.state["board"]: each for each in case.boards}
    rows = sorted(case.state["between"].items(), key=lambda each: each[1]["n"])
    here = [(name, said) for name, said in rows if _is_here(said, cases)]
    plans = {board: _wires_planned(each) for board, each in cases.items()} if here else {}
    return [_between(name, said, cases, plans) for name, said in here]


def leads_to(case: Case, plug: str) -> list[str]:
    """The boards to which wires of this board's plug go."""
    found = []
    for said in case.state["between"].values():
        ends = (said["one"], said["other"])
        for end, far in (ends, ends[::-1]):
            if end["board"] == case.state["board"] and _plug_of(end["place"]) == plug:
                found.append(str(far["board"]))
    return list(dict.fromkeys(found))


def order_of_boards(case: Case) -> BoardOrder:
    """In which order the boards are fitted and looked at: as somebody said, else so that what drives comes before what it
    drives (the one with more outputs to the other), else as they came to the job.
    """
    names = names_of(case.state)
    drives = _drives(case)
    if said := case.state["boards_order"]:
        return BoardOrder(tuple(dict.fromkeys([*(each for each in said if each in names), *names])), drives, True)
    left, ordered = list(names), []
    while left:
        # a board that others drive waits for them; where they wait for each other, the one that came first goes first
        free = [each for each in left if not any(each in drives.get(other, {}) for other in left if other != each)]
        ordered.append((free or left)[0])
        left.remove(ordered[-1])
    return BoardOrder(tuple(ordered), drives, False)


def _is_here(said: BetweenSaid, cases: Mapping[str, Case]) -> bool:
    return {said["one"]["board"], said["other"]["board"]} <= set(cases)


def _between(
    name: str, said: BetweenSaid, cases: Mapping[str, Case], plans: Mapping[str, Sequence[WirePlan]]
) -> Between:
    ends = (said["one"], said["other"])
    one, other = (_end(cases[end["board"]], end["place"], plans[end["board"]]) for end in ends)
    return Between(name, said.get("what", ""), (one.said, other.said), tuple(_wrong(one, other)))


def _wires_planned(case: Case) -> Sequence[WirePlan]:
    """Where the wires of a board go; none before the board is recorded."""
    plan = wiring_plan(case) if done(case.state, "record") else None
    return plan.plan.wires if plan else ()


def _place(case: Case, place: str) -> _Place:
    if case.family is None or case.original is None:
        return _Place()
    signals = {each["id"]: each.get("kind", "other") for each in case.family.document.get("signals", ())}
    every = [pin for plug in plugs_of(case.original, case.family).values() for pin in plug.pins.values()]
    pins = tuple(pin for pin in every if place in (pin.place, pin.connector))
    return _Place(pins, tuple(signals.get((pin.carries or "").partition("/")[0], "other") for pin in pins))


def _end(case: Case, place: str, wires: Sequence[WirePlan]) -> _End:
    here = _place(case, place)
    planned = tuple(each for each in wires if place in (each.from_pin.place, each.from_pin.connector))
    new = tuple(dict.fromkeys(_as_told(place, each.to_pin) for each in planned if each.to_pin)) if planned else None
    carries = ", ".join(dict.fromkeys(pin.title for pin in here.pins if pin.carries))
    return _End(Side(case.state["board"], place, carries, new), here, planned)


def _as_told(place: str, pin: Pin) -> str:
    """A whole plug goes to plugs, a wire to a pin."""
    return pin.place if "." in place else pin.connector


def _wrong(one: _End, other: _End) -> list[Wrong]:
    found: list[Wrong] = []
    if one.said.new is not None and other.said.new is not None and bool(one.said.new) != bool(other.said.new):
        found.append("cut at one end")
    ends = [_pin_now(end) for end in (one, other)]
    classes = [end.volts_class for end in ends if end is not None and end.volts_class not in (None, "dry")]
    if len(classes) == 2 and classes[0] != classes[1]:
        found.append("other voltage")
    kinds = {*one.here.kinds, *other.here.kinds}
    if len(one.here.kinds) == len(other.here.kinds) == 1 and len(kinds) == 1:
        found += ["two drive it"] if kinds == {"output"} else ["nothing drives it"] if kinds == {"input"} else []
    return found


def _pin_now(end: _End) -> Pin | None:
    """The pin that a single wire is on: on the new board where that is planned, else on the old one."""
    if len(end.planned) == 1 and end.planned[0].to_pin is not None:
        return end.planned[0].to_pin
    return end.here.pins[0] if len(end.here.pins) == 1 else None


def _drives(case: Case) -> dict[str, dict[str, tuple[str, ...]]]:
    """Which board drives which, and over which places: by the outputs of one that go to inputs of the other."""
    cases = {each.state["board"]: each for each in case.boards}
    over: dict[tuple[str, str], list[str]] = {}
    for said in case.state["between"].values():
        if not _is_here(said, cases):
            continue
        ends = [(end["board"], _place(cases[end["board"]], end["place"])) for end in (said["one"], said["other"])]
        for (board, here), (far, _) in (ends, ends[::-1]):
            places = [pin.place for pin, kind in zip(here.pins, here.kinds, strict=True) if kind == "output"]
            over.setdefault((str(board), str(far)), []).extend(places)
    found: dict[str, dict[str, tuple[str, ...]]] = {}
    for (one, other), places in over.items():
        if len(places) > len(over.get((other, one), ())):
            found.setdefault(one, {})[other] = tuple(places)
    return found


def _plug_of(place: str) -> str:
    return place.partition(".")[0]


def places_of(case: Case) -> Sequence[str] | None:
    """The plugs and pins of a board, as ends may name them; None where its profile names none, and any place may stand."""
    if case.family is None or case.original is None or "connectors" not in case.original.document:
        return None
    plugs = plugs_of(case.original, case.family)
    return [*plugs, *(pin.place for plug in plugs.values() for pin in plug.pins.values())]
