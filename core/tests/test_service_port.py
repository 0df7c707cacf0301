from typing import Any, ClassVar

from django.test import SimpleTestCase
from hypothesis import given
from hypothesis import strategies as st

from tests.builders import demo_board, encoded, record, small_board
from twincore import profile
from twincore.errors import DocumentError
from twincore.service_port import (
    crc16_modbus,
    identity_words,
    port_map,
    read_registers,
    registers_of,
    registers_to_write,
)


class Registers(SimpleTestCase):
    BOARD = demo_board("TVH-2420-A")

    def test_the_check_is_that_of_the_standard(self) -> None:
        # CRC-16/MODBUS, check value of the digits 1 to 9 (MODBUS over Serial Line V1.02; catalogue value 0x4B37)
        self.assertEqual(crc16_modbus(b"123456789"), 0x4B37)

    @given(st.data())
    def test_what_is_held_reads_back_as_it_was_set(self, data: st.DataObject) -> None:
        points = {name: data.draw(st.sampled_from(point.domain)) for name, point in self.BOARD.points.items()}
        stood = profile.Record(self.BOARD.part_number, points)
        held = registers_of(self.BOARD, stood, {"starts": 4182, "firmware": 2.3}, 0, 0)
        read = read_registers(self.BOARD, held)
        self.assertEqual(read.positions, profile.written_positions(self.BOARD, points))
        self.assertEqual(
            (read.remembered, read.unreadable, read.sum_agrees), ({"starts": "4182", "firmware": "2.3"}, (), True)
        )
        port = port_map(self.BOARD)
        assert port is not None
        self.assertEqual(identity_words(port, held), "TVH-2420-A")

    @given(st.sampled_from([16, 17, 18, 19, 20, 21]), st.integers(0, 65535))
    def test_a_changed_register_is_never_believed(self, at: int, value: int) -> None:
        held = registers_of(self.BOARD, record(self.BOARD, P01=30, P02=60, P03=60, P04=15, prog="2", S1="01"), {}, 0, 0)
        changed = read_registers(self.BOARD, {**held, at: value})
        self.assertEqual(changed.sum_agrees, held[at] == value)
        part = read_registers(self.BOARD, {at: held[at]})
        self.assertEqual((len(part.positions), part.sum_agrees), (1, None))

    def test_numbers_that_are_no_position_are_unreadable(self) -> None:
        read = read_registers(self.BOARD, {16: 17, 20: 9, 21: 5})
        self.assertEqual(read.positions, {})
        self.assertTrue({"P01", "prog", "S1"} <= set(read.unreadable))

    def test_a_map_names_what_its_board_has(self) -> None:
        port: Any = {
            "kind": "modbus-tcp",
            "registers": [{"at": 1, "gives": "x"}, {"at": 1, "gives": "x", "kind": "remembers"}],
        }
        with self.assertRaises(DocumentError) as caught:
            profile.parse_board(encoded(small_board(None, service_port=port)))
        self.assertEqual([f.place for f in caught.exception.faults],
                         ["service_port.registers[1].gives", "service_port.registers[0].gives",
                          "service_port.registers[1].gives", "service_port.registers[1].at"])  # fmt: skip
        with self.assertRaises(ValueError):
            read_registers(demo_board("OFN-U3"), {})


class EveryKind(SimpleTestCase):
    """Elements of every kind and width, written into registers and read back."""

    SETTINGS: ClassVar[list[dict[str, Any]]] = [
        {"id": "key", "kind": "code", "places": 2, "symbols": "0123456789", "factory": "00"},
        {"id": "long", "kind": "code", "places": 6, "symbols": "0123456789", "factory": "000000"},
        {"id": "hex", "kind": "code", "places": 3, "symbols": "0123456789ABCDEF", "factory": "000"},
        {"id": "S1", "kind": "dip", "positions": 20, "factory": "0" * 20},
        {"id": "T1", "kind": "parameter", "min": -30, "max": 60, "step": 0.5, "factory": 0},
        {"id": "P1", "kind": "parameter", "min": 0, "max": 90000, "step": 1, "factory": 0},
        {"id": "R1", "kind": "rotary", "values": ["A", "B", "C"], "factory": "A"},
        {"id": "W1", "kind": "thumbwheel", "wheels": 4, "factory": "0000"},
        {"id": "W2", "kind": "thumbwheel", "wheels": 2, "coding": "complement", "factory": "00"},
    ]  # fmt: skip
    AT: ClassVar[dict[str, int]] = {
        "key": 1,
        "long": 2,
        "hex": 4,
        "S1": 5,
        "T1": 7,
        "P1": 8,
        "R1": 10,
        "W1": 11,
        "W2": 12,
    }

    def board(self, **moved: int) -> profile.Board:
        registers = [
            {"at": at, "gives": name, "write": True, **({"scale": 0.5} if name == "T1" else {})}
            for name, at in (self.AT | moved).items()
        ]
        port = {"kind": "modbus-tcp", "registers": registers, "sum_at": 20}
        return profile.parse_board(encoded({**small_board(None, service_port=port), "settings": self.SETTINGS}))

    def test_a_code_is_the_number_that_its_places_spell(self) -> None:
        board = self.board()
        stood = record(board, key="47", long="123456", hex="0A1", S1="1" + "0" * 18 + "1", T1=-0.5, P1=70000, R1="C")
        held = registers_of(board, stood, {}, 0, 0)
        # by hand: 123456 is 1 × 65536 + 57920; bit 19 of the bank is in the high word; −0.5 over 0.5 is −1
        expected = {1: 47, 2: 1, 3: 57920, 4: 0x0A1, 5: 8, 6: 1, 7: 0xFFFF, 8: 1, 9: 4464, 10: 2, 11: 0, 12: 0xFF}
        self.assertEqual({at: held[at] for at in expected}, expected)
        self.assertEqual(registers_to_write(board, stood), expected)

    @given(st.data())
    def test_whatever_is_set_reads_back_as_it_was_set(self, data: st.DataObject) -> None:
        board = self.board()
        points = {name: data.draw(st.sampled_from(point.domain)) for name, point in board.points.items()}
        held = registers_of(board, profile.Record(board.part_number, points), {}, 0, 0)
        read = read_registers(board, held)
        self.assertEqual(read.positions, profile.written_positions(board, points))
        self.assertEqual((read.unreadable, read.sum_agrees), ((), True))

    def test_thumbwheels_stand_as_their_contacts_give_them(self) -> None:
        # 8-4-2-1 and its complement, as wheels are labelled (common practice, no source)
        board = self.board()
        held = registers_of(board, record(board, W1="1905", W2="39"), {}, 0, 0)
        self.assertEqual((held[11], held[12]), (0x1905, 0b1100_0110))

    def test_a_wheel_between_two_digits_is_unreadable_and_its_neighbours_are_not(self) -> None:
        read = read_registers(self.board(), {11: 0x1A05, 12: 0b1100_0000})
        self.assertEqual({name: read.positions.get(name) for name in ("W1", "W2")}, {"W1": "1?05", "W2": "3?"})
        # nothing that reads as a digit, or contacts that this row does not have
        nothing = read_registers(self.board(), {11: 0xFFFF, 12: 0x1C6})
        self.assertFalse({"W1", "W2"} & set(nothing.positions))

    def test_a_number_beyond_every_position_is_unreadable(self) -> None:
        read = read_registers(self.board(), {1: 100, 4: 0x1000, 5: 16, 6: 0, 7: 1000, 10: 3, 11: 0xAAAA, 12: 0x100})
        self.assertEqual((read.positions, sorted(read.unreadable)), ({}, sorted(self.AT)))

    def test_registers_that_overlap_are_refused(self) -> None:
        with self.assertRaises(DocumentError) as caught:
            self.board(long=0)
        self.assertEqual([fault.place for fault in caught.exception.faults], ["service_port.registers[1].at"])
        self.assertIn("2 registers of its own", str(caught.exception))
