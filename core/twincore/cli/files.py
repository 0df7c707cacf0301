"""Reading the files of a call; what is wrong with one is told with its name."""

import sys
from collections.abc import Callable
from pathlib import Path
from typing import Any, TypeVar

from twincore import profile
from twincore.cli.wrong import InputError
from twincore.errors import DocumentError, TwinError
from twincore.profile import Board, Family, Record

Answer = TypeVar("Answer")


def read_family(name: str) -> Family:
    """The family in a file."""
    return named(name, lambda: profile.parse_family(read(name)))


def read_board(name: str, family: Family) -> Board:
    """The board in a file, checked against its family."""
    return checked_board(name, read(name), family)


def checked_board(name: str, data: bytes, family: Family | None) -> Board:
    """A board from its file's bytes; what looks like a slip is told on standard error."""
    board = named(name, lambda: profile.parse_board(data))
    if family:
        named(name, lambda: profile.check_board_in_family(board, family))
    for warning in profile.warnings_of(board, family):
        print(f"{name}: {warning} (warning)", file=sys.stderr)
    return board


def read_record(name: str, board: Board) -> Record:
    """The settings record of a board in a file."""
    return named(name, lambda: profile.parse_record(read(name), board))


def read_facts(name: str) -> dict[str, Any]:
    """Facts of a machine in a file."""
    return named(name, lambda: profile.parse_facts(read(name)))


def read(name: str, largest: int = profile.LARGEST_BYTES) -> bytes:
    """A file's bytes; one more than is allowed, so that too large a file is found out."""
    try:
        with Path(name).open("rb") as file:
            return file.read(largest + 1)
    except OSError as error:
        raise InputError(f"{name}: expected a file that can be read: {error.strerror}") from error


def named(name: str, work: Callable[[], Answer]) -> Answer:
    """Do some work; what the core refuses is told with the file's name."""
    try:
        return work()
    except DocumentError as error:
        raise InputError("\n".join(f"{name}: {fault}" for fault in error.faults)) from error
    except TwinError as error:
        raise InputError(f"{name}: {error}") from error
