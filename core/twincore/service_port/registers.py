"""Registers as a board's profile maps them (16 bits each, holding registers of Modbus).

A parameter stands as its number over `scale`, in two's complement where it can be negative; a bank with position 1 in the
lowest bit; a row of thumbwheels as its contacts give it, four bits a wheel, the last wheel lowest; a code as the number
that its places spell, the first place weighing most; anything else as the place of its position in the profile's list,
from 0. What needs more than 16 bits takes further registers after its own, the high
word first. The sum register holds CRC-16/MODBUS over the settings' registers in the order of their addresses, high byte
first.
"""

from collections.abc import Mapping
from dataclasses import dataclass
from fractions import Fraction

from twincore.profile import Board, Element, Record, Value, register_words

CRC_START, CRC_POLYNOMIAL = 0xFFFF, 0xA001
"""CRC-16/MODBUS: MODBUS over Serial Line, specification and implementation guide V1.02, 6.2.2."""


@dataclass(frozen=True, slots=True)
class Register:
    """One register: what it gives, whether that is an element or something remembered, its scale, and if it can be written."""

    at: int
    gives: str
    element: bool
    scale: Fraction
    writable: bool = False
    words: int = 1
    """Registers that it takes, from `at` on."""

    @property
    def addresses(self) -> range:
        """The registers that it takes."""
        return range(self.at, self.at + self.words)


@dataclass(frozen=True, slots=True)
class PortMap:
    """A board's service port, as its profile publishes it."""

    unit: int
    registers: tuple[Register, ...]
    identity: tuple[int, int] | None
    sum_at: int | None
    outputs: tuple[str, ...]
    outputs_at: int | None
    inputs: tuple[str, ...]
    inputs_at: int | None

    @property
    def settings(self) -> list[Register]:
        """The registers that hold elements, by address."""
        return sorted((each for each in self.registers if each.element), key=lambda each: each.at)


@dataclass(frozen=True, slots=True)
class ReadBack:
    """What registers say: positions as written by element, what is remembered, and what could not be read."""

    positions: dict[str, Value]
    remembered: dict[str, str]
    unreadable: tuple[str, ...]
    sum_agrees: bool | None


def port_map(board: Board) -> PortMap | None:
    """The service port of a board; None where its profile has none."""
    node = board.document.get("service_port")
    if node is None:
        return None
    identity = node.get("identity")
    elements = {element.id: element for element in board.elements}
    return PortMap(
        node.get("unit", 1),
        tuple(
            Register(
                each["at"], each["gives"], each.get("kind", "element") == "element", Fraction(each.get("scale", 1)),
                each.get("write", False), register_words(elements.get(each["gives"]), Fraction(each.get("scale", 1))),
            )
            for each in node["registers"]
        ),
        (identity["at"], identity["length"]) if identity else None,
        node.get("sum_at"), tuple(node.get("outputs", ())), node.get("outputs_at"), tuple(node.get("inputs", ())),
        node.get("inputs_at"),
    )  # fmt: skip


def crc16_modbus(data: bytes) -> int:
    """CRC-16/MODBUS of some bytes; 0x4B37 for the ASCII digits 1 to 9."""
    crc = CRC_START
    for byte in data:
        crc ^= byte
        for _ in range(8):
            crc = crc >> 1 ^ CRC_POLYNOMIAL if crc & 1 else crc >> 1
    return crc


def sum_of(port: PortMap, registers: Mapping[int, int]) -> int:
    """The check over the settings' registers."""
    held = (registers[at] for each in port.settings for at in each.addresses)
    return crc16_modbus(b"".join(word.to_bytes(2, "big") for word in held))


def registers_of(
    board: Board, record: Record, remembered: Mapping[str, float], outputs: int, inputs: int
) -> dict[int, int]:
    """What a board's registers hold; unreadable positions stand at factory. Raises ValueError without a service port."""
    port = port_map(board)
    if port is None:
        raise ValueError(f"expected a board with a service port, found {board.part_number}")
    elements = {element.id: element for element in board.elements}
    held: dict[int, int] = {}
    for register in port.registers:
        if register.element:
            held |= _packed(elements[register.gives], record, register)
        else:
            held[register.at] = round(Fraction(remembered.get(register.gives, 0)) / register.scale) & 0xFFFF
    if port.identity:
        start, length = port.identity
        text = board.part_number.encode("ascii", "replace")[: 2 * length].ljust(2 * length, b"\0")
        held |= {start + index: int.from_bytes(text[2 * index : 2 * index + 2], "big") for index in range(length)}
    if port.outputs_at is not None:
        held[port.outputs_at] = outputs
    if port.inputs_at is not None:
        held[port.inputs_at] = inputs
    if port.sum_at is not None:
        held[port.sum_at] = sum_of(port, held)
    return held


def registers_to_write(board: Board, record: Record) -> dict[int, int]:
    """What is written over the port so that a board stands so: its writable elements, by address. Empty without a port."""
    port = port_map(board)
    if port is None:
        return {}
    elements = {element.id: element for element in board.elements}
    wanted: dict[int, int] = {}
    for each in port.settings:
        if each.writable:
            wanted |= _packed(elements[each.gives], record, each)
    return wanted


def _packed(element: Element, record: Record, register: Register) -> dict[int, int]:
    """An element's words by address; unreadable places stand at factory."""
    read = [(point, record.points[point.id]) for point in element.points]
    values = [point.factory if value is None else value for point, value in read]
    raw = element.rules.to_register(element, values, register.scale)
    last = register.words - 1
    return {at: raw >> 16 * (last - index) & 0xFFFF for index, at in enumerate(register.addresses)}


def read_registers(board: Board, registers: Mapping[int, int]) -> ReadBack:
    """What registers mean; a number that is no position of its element is unreadable, never guessed."""
    port = port_map(board)
    if port is None:
        raise ValueError(f"expected a board with a service port, found {board.part_number}")
    elements = {element.id: element for element in board.elements}
    positions: dict[str, Value] = {}
    kept: dict[str, str] = {}
    unreadable = []
    for register in port.registers:
        if any(at not in registers for at in register.addresses):
            unreadable.append(register.gives)
        elif not register.element:
            kept[register.gives] = f"{float(registers[register.at] * register.scale):.10g}"
        elif (written := _unpacked(elements[register.gives], registers, register)) is None:
            unreadable.append(register.gives)
        else:
            positions[register.gives] = written
    agrees = None
    settings = [at for each in port.settings for at in each.addresses]
    if port.sum_at is not None and all(at in registers for at in [*settings, port.sum_at]):
        agrees = sum_of(port, registers) == registers[port.sum_at]
    return ReadBack(positions, kept, tuple(unreadable), agrees)


def _unpacked(element: Element, registers: Mapping[int, int], register: Register) -> Value | None:
    raw = 0
    for at in register.addresses:
        raw = raw << 16 | registers[at]
    places = element.rules.from_register(element, raw, register.scale, 16 * register.words)
    return None if places is None else element.write(places)


def identity_words(port: PortMap, registers: Mapping[int, int]) -> str:
    """The board's own name for itself, as its registers spell it; empty where it has none."""
    if port.identity is None or any(port.identity[0] + index not in registers for index in range(port.identity[1])):
        return ""
    raw = b"".join(registers[port.identity[0] + index].to_bytes(2, "big") for index in range(port.identity[1]))
    return raw.rstrip(b"\0").decode("ascii", "replace")
