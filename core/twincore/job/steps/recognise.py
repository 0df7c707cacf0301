"""Recognise: plates, serial number and facts of the machine."""

from typing import Any

from twincore.carry_over import exactly
from twincore.errors import Refusal, WrongValue
from twincore.job.case import Case
from twincore.job.given import Captured, Check, Given
from twincore.job.rules.boards import names_of, title_of, turned
from twincore.job.shared.facts import codes_of_plate
from twincore.job.target import FIRST
from twincore.job.targets.recognise import BoardSaid, FactSaid, PlateSaid
from twincore.recognise import read_serial

RECORDED = ("found", "unread", "wires", "plugs", "removed", "pictures", "readbacks", "ticked", "tests", "runs")
"""What of a board somebody took the trouble to record."""


def plate_value(case: Case, name: str, after: PlateSaid, given: Given) -> PlateSaid:
    """A number as it stands on the plate or the display."""
    if not after["text"]:
        raise WrongValue("Type the number as it stands on the plate.")
    if all(each.id != after["scheme"] for each in case.shelf.schemes):
        raise WrongValue(f"There is no nameplate scheme {after['scheme']}.")
    return after


def serial_value(case: Case, name: str, after: str, given: Given) -> str:
    """The serial number; one that breaks its rule takes a reason."""
    plate = case.state["plates"].get("plate")
    scheme = next((each for each in case.shelf.schemes if plate and each.id == plate["scheme"]), None)
    found = read_serial(after, scheme)
    if not found.ok and not given.why:
        raise WrongValue(
            f"Expected {found.expected or 'a serial number'}. If it stands so on the plate, say so as the reason."
        )
    return " ".join(found.groups)


def fact_value(case: Case, name: str, after: FactSaid, given: Given) -> FactSaid:
    """A fact of the machine."""
    value = after["value"].strip() if isinstance(after["value"], str) else after["value"]
    if value == "":
        raise WrongValue("Give a value, or take the fact back.")
    exactly(value)
    return {"value": value, "source": after["source"]}


def board_value(case: Case, name: str, after: BoardSaid, given: Given) -> BoardSaid:
    """One of several boards of the machine; they are numbered as they come."""
    names = names_of(case.state)
    if name not in names and int(name) != len(names) + 1:
        raise WrongValue(f"Expected board {len(names) + 1}: boards are numbered as they come to the job.")
    others = {title_of(case.state, each).casefold() for each in names if each != name}
    if after["title"].casefold() in others:
        raise WrongValue(f"Another board of this job is called {after['title']}. Give it a name of its own.")
    return after


def check_taken_out(case: Case, name: str) -> None:
    """Refuse to take a board out of the job of which something is recorded, or that is not the last that came."""
    names = names_of(case.state)
    if name == FIRST or name not in names:
        return
    if name != names[-1]:
        raise Refusal(f"Take out {title_of(case.state, names[-1])} first: boards are numbered as they came to the job.")
    sheet = turned(case.state, name)
    if any(sheet[key] for key in RECORDED):  # type: ignore[literal-required]
        raise Refusal(
            f"Something of {title_of(case.state, name)} is recorded. Take that back before the board is taken out."
        )
    if any(name in (each["one"]["board"], each["other"]["board"]) for each in case.state["between"].values()):
        raise Refusal(f"Wires to {title_of(case.state, name)} are recorded. Take them out first.")


def order_value(case: Case, name: str, after: list[str], given: Given) -> list[str]:
    """In which order the boards are taken: each once."""
    if sorted(after) != names_of(case.state):
        raise WrongValue("Expected every board of this job once.")
    return after


CHECKS: dict[str, Check] = {
    "plate": plate_value, "serial": serial_value, "fact": fact_value, "board": board_value, "boards_order": order_value,
}  # fmt: skip


def _brought_by_serial(case: Case, name: str, value: Any) -> dict[str, Any] | None:
    """Whether the new board is told the number."""
    told = any(node["fact"] == "serial" for node in codes_of_plate(case.replacement))
    return {"planned": True} if told else None


CAPTURED: dict[str, Captured] = {"serial": _brought_by_serial}
