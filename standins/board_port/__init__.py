"""A stand-in for a board on its service port: Modbus TCP on loopback, running a profile's behaviour in its own time.

Run: python -m standins.board_port --family FILE --board FILE --settings FILE [--port N] [--control N] [--speed X].
The control port takes PUT /mood with {"mood": "healthy" | "dead" | "late" | "wrong checks" | "locked" | "forgetful"} and
PUT /inputs with {"call": true}; GET /state tells inputs, outputs and the time that has passed. Settings that the profile
calls writable can be written; the board then starts anew with them. A forgetful one says yes and keeps what it had.
"""

import argparse
import asyncio
import json
import logging
import sys
import threading
import time
from collections.abc import Callable, Sequence
from http.server import BaseHTTPRequestHandler, ThreadingHTTPServer
from pathlib import Path
from typing import Any

from pymodbus.constants import ExcCodes
from pymodbus.server import ModbusTcpServer
from pymodbus.simulator import DataType, SimData, SimDevice

from standins.answering import JsonHandler
from twincore import profile
from twincore.behaviour import run_board
from twincore.profile import Board, Family, Record, Scenario, Step, written_positions
from twincore.profile.faults import FaultList
from twincore.profile.record import build_record
from twincore.profile.values import exact
from twincore.service_port import port_map, read_registers, registers_of

logging.getLogger("pymodbus").setLevel(logging.CRITICAL + 1)  # it logs every broken connection; here these are moods

MOODS = ("healthy", "dead", "late", "wrong checks", "locked", "forgetful")
LATE_S = 4.0
WRITE = 16


class SteppedClock:
    """A clock that stands until it is stepped: nothing that a test sees hangs on the machine's speed."""

    def __init__(self) -> None:
        self.now_s = 0.0

    def __call__(self) -> float:
        """Seconds, as `time.monotonic` tells them."""
        return self.now_s

    def step(self, seconds: float) -> None:
        """Let some time pass."""
        self.now_s += seconds


class LiveBoard:
    """A board with power: its inputs over time, and what its outputs show at this moment."""

    def __init__(
        self, board: Board, record: Record, family: Family, speed: float = 1.0, remembered: dict[str, float] | None = None,
        clock: Callable[[], float] = time.monotonic,
    ) -> None:  # fmt: skip
        port = port_map(board)
        if port is None:
            raise SystemExit(f"expected a board with a service port, found {board.part_number}")
        self.board, self.record, self.family, self.speed, self.port = board, record, family, speed, port
        self.remembered = remembered or {}
        self.clock, self.started = clock, clock()
        self.mood = "healthy"
        self.steps: list[Step] = []
        self.inputs = dict(family.rest)

    @property
    def passed_s(self) -> float:
        """Seconds of the board's own time since it got power, to the millisecond."""
        return round((self.clock() - self.started) * self.speed, 3)

    def change(self, name: str, value: bool) -> None:
        """An input changes now."""
        if name not in self.family.inputs:
            raise ValueError(f"expected an input of the family, found {name}")
        if self.inputs[name] != value:
            self.inputs[name] = value
            self.steps.append(Step(exact(repr(self.passed_s)), ((name, value),)))

    def outputs(self) -> tuple[str, ...]:
        """The outputs that are on now; none for a board without a known behaviour."""
        if self.board.behaviour is None:
            return ()
        scenario = Scenario("", tuple(self.steps), exact(repr(self.passed_s)))
        return run_board(self.board, self.record, self.family, scenario)[-1].on

    def registers(self) -> dict[int, int]:
        """What every register holds now."""
        on = self.outputs()
        outputs = sum((name in on) << index for index, name in enumerate(self.port.outputs))
        inputs = sum((self.inputs[name] is True) << index for index, name in enumerate(self.port.inputs))
        held = registers_of(self.board, self.record, self.remembered, outputs, inputs)
        if self.mood == "wrong checks" and self.port.sum_at is not None:
            held[self.port.sum_at] ^= 0x5A5A
        return held

    def write_setting(self, address: int, values: Sequence[int]) -> bool:
        """Whether registers from an address on were one setting that can be written, and their values one that it takes."""
        wanted = range(address, address + len(values))
        register = next((each for each in self.port.settings if each.addresses == wanted and each.writable), None)
        read = read_registers(self.board, dict(zip(wanted, values, strict=True))).positions
        if register is None or register.gives not in read:
            return False
        if self.mood != "forgetful":
            positions = {**written_positions(self.board, self.record.points), register.gives: read[register.gives]}
            self.record = build_record(positions, self.board, "", FaultList())
            self.started, self.steps, self.inputs = self.clock(), [], dict(self.family.rest)
        return True

    def write_inputs(self, bits: int) -> None:
        """Inputs as a tester on the port forces them."""
        for index, name in enumerate(self.port.inputs):
            self.change(name, bool(bits >> index & 1))


class PortServer:
    """The board's service port on loopback, in a thread of its own; `port` is the one that it got."""

    def __init__(self, live: LiveBoard, port: int = 0) -> None:
        self.live, self.port = live, port
        self.loop = asyncio.new_event_loop()
        self.ready = threading.Event()
        self.thread = threading.Thread(target=self._run, daemon=True)

    def start(self) -> "PortServer":
        """Listen; returns when clients can come."""
        self.thread.start()
        self.ready.wait(10)
        return self

    def stop(self) -> None:
        """Stop listening and end the thread."""
        asyncio.run_coroutine_threadsafe(self._close(), self.loop).result(5)
        self.loop.call_soon_threadsafe(self.loop.stop)
        self.thread.join(5)

    def _run(self) -> None:
        asyncio.set_event_loop(self.loop)
        self.loop.run_until_complete(self._listen())
        self.loop.run_forever()

    async def _listen(self) -> None:
        last = max(self.live.registers()) + 1
        data = SimData(0, count=last, values=0, datatype=DataType.REGISTERS)
        device = SimDevice(self.live.port.unit, simdata=[data], action=self._answer)
        self.server = ModbusTcpServer(device, address=("127.0.0.1", self.port), trace_packet=self._heard)
        await self.server.serve_forever(background=True)
        listening: Any = self.server.transport
        self.port = listening.sockets[0].getsockname()[1]
        self.ready.set()

    async def _close(self) -> None:
        await self.server.shutdown()  # type: ignore[no-untyped-call]  # the library leaves it untyped
        for task in asyncio.all_tasks() - {asyncio.current_task()}:
            task.cancel()

    async def _answer(
        self, function: int, start: int, address: int, count: int, registers: list[int], values: Any
    ) -> ExcCodes | None:
        live = self.live
        if live.mood == "late":
            await asyncio.sleep(LATE_S)
        settings = {each.at for each in live.port.registers}
        if live.mood == "locked" and settings & set(range(address, address + count)):
            return ExcCodes.ILLEGAL_ADDRESS
        if values and (address, count) == (live.port.inputs_at, 1):
            live.write_inputs(int(values[0]))
        elif values and not live.write_setting(address, [int(value) for value in values]):
            return ExcCodes.ILLEGAL_ADDRESS
        for at, value in live.registers().items():
            registers[at - start] = value
        return None

    def _heard(self, sending: bool, data: bytes) -> bytes:
        return b"" if self.live.mood == "dead" else data


def control_of(live: LiveBoard) -> type[BaseHTTPRequestHandler]:
    """The request handler of the control port."""

    class Handler(JsonHandler):
        def do_GET(self) -> None:
            self.send_json(
                200, {"mood": live.mood, "at": live.passed_s, "inputs": live.inputs, "outputs": live.outputs()}
            )

        def do_PUT(self) -> None:
            try:
                given = json.loads(self.rfile.read(int(self.headers.get("Content-Length", 0))))
                if self.path == "/mood" and given["mood"] in MOODS:
                    live.mood = given["mood"]
                elif self.path == "/inputs":
                    for name, value in given.items():
                        live.change(name, bool(value))
                else:
                    raise ValueError(f"expected /mood with one of {', '.join(MOODS)}, or /inputs")
            except (ValueError, KeyError, TypeError) as error:
                self.send_json(400, {"error": str(error)})
                return
            self.do_GET()

    return Handler


def live_board(
    family: Path, board: Path, settings: Path | None, speed: float = 1.0, clock: Callable[[], float] = time.monotonic
) -> LiveBoard:
    """A board from files; without a record it stands as it leaves the maker."""
    kind = profile.parse_family(family.read_bytes())
    read = profile.parse_board(board.read_bytes())
    record = profile.parse_record(settings.read_bytes(), read) if settings else profile.factory_record(read)
    return LiveBoard(read, record, kind, speed, {"starts": 4182, "firmware": 2.3}, clock)


def main(argv: list[str] | None = None) -> None:
    """Serve until stopped."""
    parser = argparse.ArgumentParser(prog="board_port", description="A simulated board on its service port.")
    parser.add_argument("--family", type=Path, required=True)
    parser.add_argument("--board", type=Path, required=True)
    parser.add_argument("--settings", type=Path)
    parser.add_argument("--port", type=int, default=0)
    parser.add_argument("--control", type=int, default=0)
    parser.add_argument("--speed", type=float, default=1.0)
    args = parser.parse_args(argv)
    live = live_board(args.family, args.board, args.settings, args.speed)
    server = PortServer(live, args.port).start()
    control = ThreadingHTTPServer(("127.0.0.1", args.control), control_of(live))
    print(f"board on 127.0.0.1:{server.port}, control on {control.server_address[1]}", file=sys.stderr)
    control.serve_forever()
