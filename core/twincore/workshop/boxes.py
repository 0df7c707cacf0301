"""Several boards in one document, for another depot: with their kinds of machine, their sources and what they are worth."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Any

from twincore.errors import DocumentError, Fault
from twincore.profile import (
    Board,
    Family,
    check_board_in_family,
    dump,
    open_document,
    parse_board,
    parse_family,
)
from twincore.profile.document import jsonable


@dataclass(frozen=True, slots=True)
class Packed:
    """A document of a box: what it was parsed to, and its bytes as they are kept; `faults` where it cannot be taken."""

    profile: Board | Family | None
    name: str
    data: bytes
    faults: tuple[Fault, ...] = ()

    @property
    def located(self) -> tuple[Fault, ...]:
        """Its faults with their places in the box."""
        return tuple(Fault(f"{self.name}.{fault.place}".rstrip("."), fault.expected) for fault in self.faults)


@dataclass(frozen=True, slots=True)
class Box:
    """Kinds of machine and boards, each checked by itself: one that is wrong does not keep the others out."""

    sender: str
    families: tuple[Packed, ...]
    boards: tuple[Packed, ...]


def box_document(sender: str, families: Sequence[Mapping[str, Any]], boards: Sequence[Mapping[str, Any]]) -> bytes:
    """The document of several boards and their kinds."""
    node = {
        "format": "worthy-twin/boards", "version": 1, "from": sender,
        "families": [jsonable(each) for each in families], "boards": [jsonable(each) for each in boards],
    }  # fmt: skip
    return dump(node).encode()


def open_box(data: bytes) -> Box:
    """Read a box. Raises DocumentError where it is none; what is wrong with one document stands beside that."""
    root = open_document(data, "boards").root
    families = tuple(_family(each, index) for index, each in enumerate(root["families"]))
    known = {each.profile.id: each.profile for each in families if isinstance(each.profile, Family)}
    boards = tuple(_board(each, index, known) for index, each in enumerate(root["boards"]))
    return Box(root.get("from", ""), families, boards)


def _family(node: dict[str, Any], index: int) -> Packed:
    data = dump(node).encode()
    try:
        profile = parse_family(data)
    except DocumentError as error:
        return Packed(None, f"families[{index}]", data, error.faults)
    return Packed(profile, profile.id, data)


def _board(node: dict[str, Any], index: int, families: Mapping[str, Family]) -> Packed:
    data = dump(node).encode()
    try:
        profile = parse_board(data)
        if profile.family in families:
            check_board_in_family(profile, families[profile.family])
    except DocumentError as error:
        return Packed(None, f"boards[{index}]", data, error.faults)
    return Packed(profile, profile.part_number, data)
