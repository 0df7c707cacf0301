"""Whether a job takes an entry as it stands: what holds wherever it is entered."""

from collections.abc import Callable, Mapping
from dataclasses import dataclass
from datetime import datetime, timedelta
from typing import Any
from uuid import UUID

from twincore.job import (
    FIRST,
    TARGETS,
    State,
    Void,
    about_supply,
    as_said,
    board_of,
    supply_needed,
    target_waits_for,
    value_at,
)
from twinshown.refusals import Changed, Refused
from twinshown.sheet.step_lines import waiting_words
from twinshown.words.entries import value_words


@dataclass(frozen=True, slots=True)
class NewEntry:
    """What a client sends: what it changes, what it believed to stand there, what shall stand there, and why."""

    id: UUID
    target: str
    before: Any
    after: Any
    reason: str = ""
    read_how: str = ""
    maker: str = ""
    """The username of who made it, where the client says so."""
    board: str = FIRST
    """The board of the job whose sheet it was made on."""
    upon: UUID | None = None
    """The maker's own entry at this target that this one follows; what the server made of that one is nobody else's change."""
    made_at: datetime | None = None
    """When it was made, by the clock of the device."""
    clock_ahead_ms: int = 0
    """By how much that clock was ahead of the depot's."""
    seen: int | None = None
    """How many entries of the job the device had from the depot when it was made."""
    device: str = ""
    """Tells the devices of a person apart."""


@dataclass(frozen=True, slots=True)
class LastSaid:
    """The last entry at a target."""

    ids: tuple[UUID | None, ...]
    by: str
    told: Mapping[str, Any]


AT_ONCE = timedelta(seconds=5)
"""What was made no longer ago than that came at once."""


def made_before(new: NewEntry, now: datetime) -> datetime | None:
    """When an entry was made by the depot's clock, as the device tells it; None where it came at once."""
    if new.made_at is None:
        return None
    told = new.made_at - timedelta(milliseconds=new.clock_ahead_ms)
    return None if now - told < AT_ONCE else told


def rests_on_supply(state: State, new: NewEntry) -> bool:
    """Whether an entry says how the supply stands, or is only true as long as it stands as its maker saw it."""
    return about_supply(new.target) or supply_needed(state, new.target, new.read_how) is not None


def check_open(state: State, closed: bool, brought_in: bool, target: str) -> None:
    """Refuse what would change a job that is closed, handed over, or only kept here for another depot."""
    declared_here = TARGETS.get(target.partition(".")[0])
    if brought_in:
        raise Refused("This job was brought from another depot as it stood there. Open a new job for further work.")
    if declared_here is not None and declared_here.later:
        if not closed:
            raise Refused("This is said of a job that is closed. As long as it is open, change what is wrong.")
        return
    if closed:
        raise Refused(
            "This job is closed; nothing in it changes any more. Add a correction, or open a new job for further work."
        )
    handed = "hand_over" in state["confirmed"] and target not in ("signed", "confirmed.hand_over")
    if handed:
        raise Refused("This job is handed over and waits for a second person. Take the hand-over back to change it.")


def takes_back(void: tuple[Void, ...], new: NewEntry) -> bool:
    """Whether an entry takes back one that says nothing that can stand. Refuses everything else as long as one stands."""
    if not void or (new.target in TARGETS and TARGETS[new.target].later):
        return False
    for each in void:
        if new.after is None and (each.target, each.board) == (new.target, board_of(new.target, new.board)):
            return True
    first = void[0]
    raise Refused(f"Take entry {first.number} ({first.target}) back first: it says nothing that can stand.")


def check_waiting(state: State, new: NewEntry) -> None:
    """Refuse what waits for something else."""
    waiting = target_waits_for(state, new.target, new.read_how)
    if waiting:
        raise Refused(f"This step waits for: {', '.join(map(waiting_words, waiting))}.", waits_for=waiting)


def check_unchanged(state: State, new: NewEntry, last_said: Callable[[str], LastSaid | None]) -> None:
    """Refuse what rests on something that stands otherwise now. `last_said` tells what was said last at a target."""
    now_there = value_at(state, new.target)
    if now_there in (as_said(new.before), as_said(new.after)):
        return
    last = last_said(new.target)
    if last is not None and new.upon is not None and new.upon in last.ids:
        return
    who = f"{last.by} set it" if last else "it was reset"
    raise Changed(
        f"Meanwhile {who} to {value_words(now_there)}. Look at it and decide again.",
        changes=[last.told] if last else [],
        now=now_there,
    )
