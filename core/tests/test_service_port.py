from typing import Any

from django.test import SimpleTestCase
from hypothesis import given
from hypothesis import strategies as st

from tests.builders import demo_board, encoded, record, small_board
from twincore import profile
from twincore.errors import DocumentError
from twincore.service_port import crc16_modbus, identity_words, port_map, read_registers, registers_of


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
