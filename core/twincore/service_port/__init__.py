"""The service port of a board: which register holds what, and whether what was read can be believed."""

from twincore.service_port.registers import (
    PortMap,
    ReadBack,
    crc16_modbus,
    identity_words,
    port_map,
    read_registers,
    registers_of,
    registers_to_write,
    sum_of,
)

__all__ = [
    "PortMap",
    "ReadBack",
    "crc16_modbus",
    "identity_words",
    "port_map",
    "read_registers",
    "registers_of",
    "registers_to_write",
    "sum_of",
]
