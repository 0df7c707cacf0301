import json
from itertools import combinations
from unittest import TestCase

from hypothesis import example, given
from hypothesis import strategies as st

from tests.builders import DEMO
from twincore.profile import check_board_in_family, hanging_of, parse_board, parse_family
from twincore.profile.faults import FaultList
from twincore.sketch import (
    COLOURS,
    Doubt,
    Sketch,
    SketchedElement,
    SketchedPlug,
    board_document,
    doubts_of,
    kind_document,
    read_lines,
    sketch_words,
    with_places,
    written,
)
from twincore.sketch.model import PARTS
from twincore.wiring import build_wiring, carry_wires, wiring_findings

names = st.lists(st.from_regex(r"[A-Za-z][A-Za-z0-9]{0,3}", fullmatch=True), min_size=12, max_size=12, unique=True)
ways, ends = (
    st.sampled_from(["up", "down", "left", "right", None]),
    st.sampled_from(["left", "right", "top", "bottom", None]),
)
values = st.lists(st.from_regex(r"[A-Z0-9]{1,2}", fullmatch=True), min_size=2, max_size=8, unique=True).map(tuple)
elements = st.one_of(
    st.builds(
        SketchedElement, id=st.just(""), kind=st.just("dip"), places=st.integers(1, 16), on=ways, first=ends
    ).filter(lambda e: not (e.upright and (e.on in ("up", "down") or e.first in ("left", "right")))),
    st.builds(
        SketchedElement, id=st.just(""), kind=st.sampled_from(["rotary", "jumper", "trimmer", "program"]), values=values
    ),
    st.builds(SketchedElement, id=st.just(""), kind=st.just("code"), places=st.integers(1, 6)),
    st.builds(SketchedElement, id=st.just(""), kind=st.just("thumbwheel"), places=st.integers(1, 4)),
    st.builds(
        SketchedElement,
        id=st.just(""),
        kind=st.just("parameter"),
        span=st.tuples(
            st.integers(-50, 0).map(float), st.integers(1, 900).map(float), st.sampled_from([0.5, 1.0, 5.0])
        ),
        unit=st.sampled_from(["", "s", "°C", "min"]),
    ),
)


@st.composite
def sketches(draw: st.DrawFn) -> Sketch:
    known = draw(names)
    made = draw(st.lists(elements, max_size=6))
    plugs = draw(st.lists(st.tuples(st.integers(1, 40), st.sampled_from([True, False, None])), max_size=6))
    parts = tuple(draw(st.lists(st.sampled_from(PARTS), unique=True, max_size=4)))
    tapped = [known[i] for i in range(len(made))] + [known[6 + i] for i in range(len(plugs))] + list(parts)
    marks = [tuple(draw(st.lists(st.sampled_from(["L", "N", "PE", "24~"]), max_size=pins))) for pins, _ in plugs]
    per_cent = st.integers(0, 1000).map(lambda n: n / 10)
    return Sketch(
        elements=tuple(
            SketchedElement(known[i], e.kind, e.places, e.values, e.on, e.first, e.unit, e.span)
            for i, e in enumerate(made)
        ),
        plugs=tuple(SketchedPlug(known[6 + i], pins, keyed, marks[i]) for i, (pins, keyed) in enumerate(plugs)),
        parts=parts,
        picture=draw(st.sampled_from([None, (4.0, 3.0), (3.0, 4.0), (16.0, 9.0)])),
        places=tuple((ref, draw(per_cent), draw(per_cent)) for ref in tapped if draw(st.booleans())),
        relays=draw(st.integers(0, 9)),
        colour=draw(st.sampled_from([*COLOURS, None])),
        size_mm=draw(st.sampled_from([None, (160.0, 110.0), (30.0, 20.0)])),
    )


class Notation(TestCase):
    @given(sketches())
    def test_what_is_written_reads_the_same(self, sketch: Sketch) -> None:
        self.assertEqual(read_lines(written(sketch)), (sketch, []))

    def test_dials_of_sixteen_and_with_zeros_are_what_is_printed_round_them(self) -> None:
        sixteen = tuple("0123456789ABCDEF")
        for text, values in (
            ("0..F", sixteen), ("0..f", tuple("0123456789abcdef")), ("0..9 A..F", sixteen), ("8..C", tuple("89ABC")),
            ("00..11", tuple(f"{n:02}" for n in range(12))), ("1..3 AUTO", ("1", "2", "3", "AUTO")),
            ("7 8 9", ("7", "8", "9")), ("A..C", ("A", "B", "C")), ("a .. c", ("a", "b", "c")),
        ):  # fmt: skip
            sketch, wrong = read_lines(f"R1 dial {text}")
            self.assertEqual((wrong, sketch.elements[0].values), ([], values), text)
            self.assertEqual(read_lines(written(sketch)), (sketch, []), text)
        for text in ("0..G", "9..0", "..3", "1..", "0...F", "A..1", "0..F 3"):
            self.assertEqual(len(read_lines(f"R1 dial {text}")[1]), 1, text)

    def test_a_bank_of_eight_a_dial_and_two_plugs_are_one_line(self) -> None:
        sketch, wrong = read_lines("S1 bank 8, on up, from left; R1 dial; C1 plug 8, keyed; C2 plug 6")
        self.assertEqual(wrong, [])
        self.assertEqual(sketch.elements[0], SketchedElement("S1", "dip", 8, on="up", first="left"))
        self.assertEqual(sketch.elements[1].values, tuple("0123456789"))
        self.assertEqual(sketch.plugs, (SketchedPlug("C1", 8, True), SketchedPlug("C2", 6, None)))
        self.assertEqual(sketch_words(sketch)[-1], "C2: a plug with 6 pins, nobody could tell whether it is keyed.")

    def test_a_line_that_says_nothing_is_named_with_what_was_expected_and_the_rest_stands(self) -> None:
        sketch, wrong = read_lines(
            "S1 bank 8\nS1 dial 4\nS2 bank eight\nbonk\nJ1 jumper A A\n\nboard tartan\nP1 number 9..1\nC1 plug 6, glued\nS5 bank 4, on up, from top"
        )
        self.assertEqual([each.id for each in sketch.elements], ["S1"])
        self.assertEqual([each.line for each in wrong], [2, 3, 4, 5, 7, 8, 9, 10])
        self.assertIn("S1 is", wrong[0].expected)
        self.assertIn("places from 1 to 16", wrong[1].expected)
        self.assertIn("“C1 plug 6”", wrong[2].expected)

    @example(",")
    @example("; ,lamp")
    @example("S1 dial \x00 A\nP1 number 0..3 \x01")
    @given(st.one_of(st.text(max_size=300), st.text("SRCJ12 ,;.x\nbankdilpugoferhwm", max_size=300)))
    def test_any_text_is_read_or_refused_line_by_line(self, text: str) -> None:
        sketch, _ = read_lines(text)
        self.assertEqual(read_lines(written(sketch)), (sketch, []))
        parse_board(json.dumps(board_document(sketch, "K7", "", "", "mangle")).encode())


class Documents(TestCase):
    @given(sketches())
    def test_every_sketch_is_a_board_of_its_kind_with_everything_in_its_place(self, sketch: Sketch) -> None:
        family = parse_family(json.dumps(kind_document("mangle", "Mangle")).encode())
        document = board_document(sketch, "K7-100", "", "Board", "mangle", "Wennick Tarl", "2026-03-01")
        board = parse_board(json.dumps(document).encode())
        check_board_in_family(board, family)
        self.assertEqual([each.id for each in board.elements], [each.id for each in sketch.elements])
        self.assertEqual(board.functions, {})
        width, height = document["size_mm"]
        boxes = [self.box(each) for each in document["layout"]]
        for left, bottom, right, top in boxes:
            self.assertTrue(left >= 0 and bottom >= 0 and right <= width and top <= height, "outside of the outline")
        for one, other in combinations(boxes, 2):
            apart = one[2] <= other[0] or other[2] <= one[0] or one[3] <= other[1] or other[3] <= one[1]
            self.assertTrue(apart, (one, other))
        for element in sketch.elements:
            if element.kind == "dip" and element.on:
                self.assertEqual(hanging_of(board, element.id).on, element.on)

    def box(self, placed: dict) -> tuple[float, float, float, float]:  # type: ignore[type-arg]
        """What a part covers, turned as it is: left, bottom, right, top."""
        (x, y), (w, h) = placed["at"], placed["size"]
        if placed.get("turn"):
            x, y, w, h = x + (w - h) / 2, y - (w - h) / 2, h, w
        return x, y, x + w, y + h

    def test_what_was_tapped_in_a_picture_is_drawn_where_it_was_tapped(self) -> None:
        lines = "picture 4 x 3; S1 bank 4, at 25 75; C1 plug 2, at 80 20; R1 dial; lamp, at 50 50"
        document = board_document(read_lines(lines)[0], "K7", "", "", "mangle")
        self.assertEqual(document["size_mm"], [160, 120])
        middles = {
            each["ref"]: [at + size / 2 for at, size in zip(each["at"], each["size"], strict=True)]
            for each in document["layout"]
        }
        self.assertEqual((middles["S1"], middles["C1"], middles["lamp"]), ([40, 30], [128, 96], [80, 60]))

    def test_a_place_beyond_the_picture_or_of_the_board_itself_is_misread(self) -> None:
        for line in (
            "S1 bank 4, at 101 5",
            "S1 bank 4, at 5",
            "board green, at 5 5",
            "picture 0 x 3",
            "lamp, at 1 1, at 2 2",
        ):
            self.assertEqual(len(read_lines(line)[1]), 1, line)

    def test_what_nobody_could_tell_stays_a_doubt(self) -> None:
        sketch, _ = read_lines("S1 bank 4, on up; C1 plug 2; C2 plug 3, keyed")
        self.assertEqual(doubts_of(sketch), [Doubt("S1", "first"), Doubt("S1", "factory"), Doubt("C1", "keyed")])
        document = board_document(sketch, "K7", "", "", "mangle")
        self.assertEqual(document["standing"]["settings"]["worth"], "sketched")
        self.assertIn({"of": "S1", "what": "first"}, document["standing"]["settings"]["doubts"])


class SameBoardAgain(TestCase):
    """A board whose signals nobody knows, exchanged for the same."""

    def test_every_wire_goes_back_to_its_own_place_and_keyed_plugs_go_whole(self) -> None:
        sketch, _ = read_lines("S1 bank 2; C1 plug 4, keyed; C2 plug 3, not keyed")
        family = parse_family(json.dumps(kind_document("mangle", "Mangle")).encode())
        board = parse_board(json.dumps(board_document(sketch, "K7", "", "", "mangle")).encode())
        wires = [{"id": f"w{pin}", "connector": "C2", "pin": pin, "tag": f"t{pin}"} for pin in ("1", "2", "3")]
        node = {"part_number": "K7", "wires": wires, "without_record": ["C1"], "as_moved": []}
        faults = FaultList()
        record = build_wiring(node, board, family, faults)
        self.assertEqual(faults.faults, [])
        plan = carry_wires(board, record, board, family)
        self.assertTrue(all(each.to_pin and each.to_pin.place == each.from_pin.place for each in plan.wires))
        self.assertEqual({each.treatment for each in plan.wires}, {"straight"})
        self.assertEqual((plan.traps, [each.treatment for each in plan.free if each.treatment != "unused"]), ((), []))
        self.assertEqual(wiring_findings(board, family, record.wires), [])


class Tidy(TestCase):
    def test_a_board_without_places_gets_a_drawing_of_its_own_that_says_so(self) -> None:
        drawn = 0
        for path in sorted((DEMO / "boards").glob("*.json")):
            document = json.loads(path.read_bytes())
            self.assertEqual(with_places(document), document)
            bare = {key: value for key, value in document.items() if key != "layout"}
            made = with_places(bare)
            self.assertEqual(made["standing"]["layout"], {"worth": "drawn"})
            parse_board(json.dumps(made).encode())
            width, height = made["size_mm"]
            boxes = [(*each["at"], *each["size"]) for each in made["layout"]]
            seen = {each["id"] for each in document["settings"] if each["kind"] not in ("parameter", "program", "code")}
            self.assertLessEqual(
                seen | {each["id"] for each in document.get("connectors", ())}, {e["ref"] for e in made["layout"]}
            )
            for (x, y, w, h), (left, low, wide, high) in combinations(boxes, 2):
                self.assertTrue(x + w <= left or left + wide <= x or y + h <= low or low + high <= y, path.name)
            self.assertTrue(all(x >= 0 and y >= 0 and x + w <= width and y + h <= height for x, y, w, h in boxes))
            drawn += 1
        self.assertGreater(drawn, 40)
