"""Set the new board over its service port: write, read back, compare; what does not compare is undone."""

from collections.abc import Mapping
from dataclasses import dataclass, field
from typing import Any

from pymodbus.client import ModbusTcpClient
from pymodbus.exceptions import ModbusException

from jobs.cases import case_of
from jobs.models import Job
from jobs.ports.reading import BoardPort, PortSilent, ask, connected, required_port
from twincore.job.shared.fitting import fitting_of_job
from twincore.profile.values import plain
from twincore.service_port import identity_words, read_registers, registers_to_write
from twinshown.refusals import Refused


@dataclass(slots=True)
class PortWritten:
    """What writing came to: the elements as read back, those that did not take, and whether the old values are back."""

    values: dict[str, Any] = field(default_factory=dict)
    differ: list[str] = field(default_factory=list)
    fault: str = ""
    undone: bool | None = None


def write_port(job: Job) -> PortWritten:
    """Write the plan into the new board. Whatever goes wrong, the board is left as it was, or the answer says that it is not."""
    if job.state["energised"] is None:
        raise Refused("The new board has no power yet.")
    at = required_port(job, "replacement")
    wanted = registers_to_write(at.board, fitting_of_job(case_of(job)).plan)
    if not wanted:
        raise Refused(f"Nothing of {at.board.part_number} can be set over its port. Key it in.")
    done = PortWritten()
    before: dict[int, int] = {}
    try:
        with connected(at) as client:
            _check_identity(client, at)
            before = _read(client, at, wanted)
            _write(client, at, wanted)
            after = _read(client, at, wanted)
    except PortSilent as error:
        done.fault = f"The board does not answer: {error}."
        if before:
            done.undone = _put_back(at, before)
        return done
    done.values = {name: plain(value) for name, value in read_registers(at.board, after).positions.items()}
    done.differ = [
        each.gives
        for each in at.map.settings
        if any(address in wanted and after[address] != wanted[address] for address in each.addresses)
    ]
    if done.differ:
        done.fault = f"Read back otherwise than written: {', '.join(done.differ)}."
        done.undone = _put_back(at, before)
    return done


def _check_identity(client: ModbusTcpClient, at: BoardPort) -> None:
    if at.map.identity is None:
        return
    start, count = at.map.identity
    answer = ask(client, start, count, at.map.unit) or []
    named = identity_words(at.map, {start + index: value for index, value in enumerate(answer)})
    if named not in (at.board.part_number, *at.board.also_marked):
        raise Refused(
            f"The board on the port calls itself {named or 'nothing'}, not {at.board.part_number}. Nothing was written."
        )


def _read(client: ModbusTcpClient, at: BoardPort, wanted: Mapping[int, int]) -> dict[int, int]:
    found = {}
    for address in wanted:
        answer = ask(client, address, 1, at.map.unit)
        if answer is None:
            raise PortSilent(f"it keeps register {address} locked")
        found[address] = answer[0]
    return found


def _write(client: ModbusTcpClient, at: BoardPort, values: Mapping[int, int]) -> None:
    for each in at.map.settings:
        words = [values[address] for address in each.addresses if address in values]
        if not words:
            continue
        try:
            # the words of one setting go together: half of them would be another setting
            answer = client.write_registers(each.at, words, device_id=at.map.unit)
        except (ModbusException, OSError) as error:
            raise PortSilent("no answer came in time") from error
        if answer.isError():
            raise PortSilent(f"it refuses to have register {each.at} written")


def _put_back(at: BoardPort, before: Mapping[int, int]) -> bool:
    """Whether the values from before stand again, seen by reading them."""
    try:
        with connected(at) as client:
            _write(client, at, before)
            return _read(client, at, before) == before
    except PortSilent:
        return False
