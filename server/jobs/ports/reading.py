"""The service port: ask a board that still answers, over Modbus TCP; what it says is compared, never written over."""

from collections.abc import Iterator
from contextlib import contextmanager
from dataclasses import dataclass, field
from typing import Any

from django.conf import settings
from pymodbus.client import ModbusTcpClient
from pymodbus.exceptions import ModbusException

from catalogue.profiles import board_profile
from jobs.models import Job
from twincore.job.case import remembered
from twincore.profile import Board
from twincore.profile.values import plain
from twincore.service_port import PortMap, identity_words, port_map, read_registers
from twinshown.refusals import Refused

TIME_OUT_S = 2.0


MOST_AT_ONCE = 100


class PortSilent(Exception):
    """The port gave no usable answer; says why in words."""


@dataclass(slots=True)
class PortRead:
    """What the port said: values by target, the board's own name, and what is wrong with the answer."""

    identity: str = ""
    values: list[dict[str, Any]] = field(default_factory=list)
    unreadable: list[str] = field(default_factory=list)
    fault: str = ""


SIDES = ("original", "replacement")


@dataclass(frozen=True, slots=True)
class BoardPort:
    """A board with its service port, and where it answers."""

    board: Board
    map: PortMap
    address: str


def port_of(job: Job, side: str = "original") -> BoardPort | None:
    """The service port of the original or the replacement; None where its profile has none or none is set up here."""
    revision = job.original_revision_id if side == "original" else job.replacement_revision_id
    address = settings.BOARD_PORT if side == "original" else settings.NEW_BOARD_PORT
    if revision is None or not address:
        return None
    board = board_profile(revision)
    port = port_map(board)
    return None if port is None else BoardPort(board, port, address)


def read_port(job: Job) -> PortRead:
    """Read what can be read. A board that does not answer, or answers wrongly, ends cleanly in reading by eye."""
    at = required_port(job, "original")
    board, port = at.board, at.map
    read = PortRead()
    held: dict[int, int] = {}
    locked = False
    try:
        with connected(at) as client:
            for start, count in _blocks(port):
                answer = ask(client, start, count, port.unit)
                if answer is None:
                    locked = True
                else:
                    held |= {start + index: value for index, value in enumerate(answer)}
    except PortSilent as error:
        read.fault = f"The board does not answer: {error}. Read by eye what its display shows."
        return read
    back = read_registers(board, held)
    read.identity = identity_words(port, held)
    if read.identity and read.identity not in (board.part_number, *board.also_marked):
        read.fault = f"The board calls itself {read.identity}, not {board.part_number}. Look at the label again."
        return read
    if back.sum_agrees is False:
        read.fault = "The board's own check does not agree with what it says. Nothing of it is taken; read by eye."
        return read
    if locked:
        read.fault = "The board answers but keeps some of it locked. Read the rest by eye."
    read.values = _compared(job, board, back.positions, back.remembered)
    read.unreadable = list(back.unreadable)
    return read


def _compared(job: Job, board: Board, positions: dict[str, Any], kept: dict[str, str]) -> list[dict[str, Any]]:
    """Each value with what was read by eye before, and whether the two differ."""
    titles = {e.id: e.title or e.id for e in board.elements} | {e["id"]: e["what"] for e in remembered(board)}
    rows = [("found", name, plain(value)) for name, value in positions.items()]
    rows += [("kept", name, value) for name, value in kept.items()]
    found = []
    for kind, name, value in rows:
        there = job.state[kind].get(name)
        found.append(
            {
                "target": f"{kind}.{name}", "title": titles.get(name, name), "value": value, "there": there,
                "differs": there is not None and there != value,
            }
        )  # fmt: skip
    return found


def look(client: ModbusTcpClient, port: PortMap) -> dict[str, list[str]]:
    """Which inputs and outputs are on at this moment. Raises PortSilent."""
    on = {}
    for name, at, names in (("outputs", port.outputs_at, port.outputs), ("inputs", port.inputs_at, port.inputs)):
        answer = None if at is None else ask(client, at, 1, port.unit)
        on[name] = [each for index, each in enumerate(names) if answer and answer[0] >> index & 1]
    return on


def required_port(job: Job, side: str) -> BoardPort:
    """The service port of a side. Raises Refused where there is none to reach."""
    found = port_of(job, side)
    if found is None:
        raise Refused("This board has no service port that can be reached from here. Read by eye.")
    return found


def required_outputs(job: Job, side: str) -> BoardPort:
    """The service port of a side that shows its outputs. Raises Refused."""
    found = required_port(job, side)
    if found.map.outputs_at is None:
        raise Refused(f"The port of {found.board.part_number} does not show outputs.")
    return found


@contextmanager
def connected(at: BoardPort) -> Iterator[ModbusTcpClient]:
    """A connection to a board's port. Raises PortSilent where nothing listens."""
    host, _, number = at.address.rpartition(":")
    client = ModbusTcpClient(host, port=int(number), timeout=TIME_OUT_S, retries=0)
    try:
        if not client.connect():  # type: ignore[no-untyped-call]  # the library leaves it untyped
            raise PortSilent("nothing listens at its address")
        yield client
    finally:
        client.close()  # type: ignore[no-untyped-call]  # as above


def ask(client: ModbusTcpClient, start: int, count: int, unit: int) -> list[int] | None:
    """The registers of one answer; None where the board refuses to tell. Raises PortSilent."""
    try:
        answer = client.read_holding_registers(start, count=count, device_id=unit)
    except (ModbusException, OSError) as error:
        raise PortSilent("no answer came in time") from error
    return None if answer.isError() else list(answer.registers)


def _blocks(port: PortMap) -> list[tuple[int, int]]:
    """Runs of registers to ask for, identity apart, so that a locked part does not hide the rest."""
    wanted = sorted(
        {at for each in port.registers for at in each.addresses} | ({port.sum_at} if port.sum_at is not None else set())
    )
    runs: list[tuple[int, int]] = [port.identity] if port.identity else []
    for at in wanted:
        if runs and runs[-1] != port.identity and at == runs[-1][0] + runs[-1][1] and runs[-1][1] < MOST_AT_ONCE:
            runs[-1] = (runs[-1][0], runs[-1][1] + 1)
        else:
            runs.append((at, 1))
    return runs
