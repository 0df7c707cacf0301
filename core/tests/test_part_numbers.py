"""Part numbers, markings, the key of features. Look-alikes: common practice, no source."""

from django.test import SimpleTestCase
from hypothesis import given
from hypothesis import strategies as st
from rapidfuzz.distance import OSA, DamerauLevenshtein, JaroWinkler
from scipy.stats import entropy as library_entropy

from tests.builders import demo_board
from twincore.recognise import (
    CANNOT_TELL,
    Sighting,
    agreement,
    align,
    code_of,
    entropy,
    features_of,
    hits,
    information_gain,
    normal_form,
    number_parts,
    questions,
    remaining,
    separating,
    split_markings,
    with_one_left_out,
    without_look_alikes,
    without_revision,
)
from twincore.recognise.markings import read_as
from twincore.recognise.part_numbers import WORN

WORDS = st.text("ABCO01I58S", max_size=9)


class PartNumbers(SimpleTestCase):
    def test_one_form_for_all_ways_of_writing(self) -> None:
        for written in ("TVH-2210-B", "tvh 2210 b", "TVH2210B", "tvh-02210/b", "ＴＶＨ－2210－B"):
            self.assertEqual(normal_form(written), "TVH2210B")
        self.assertEqual(normal_form("0-2205-00"), "022050")
        self.assertEqual(normal_form("—"), "")

    def test_characters_that_look_alike_fold_into_one(self) -> None:
        self.assertEqual(without_look_alikes("TVH-2210-B"), without_look_alikes("TVH-Z2IO-8"))
        self.assertNotEqual(without_look_alikes("TVH-2210-B"), without_look_alikes("TVH-2210-C"))

    def test_prefix_base_suffix_and_revision_are_told_apart(self) -> None:
        for marking, parts in (
            ("TVH-2210-B rev 03", ("TVH", "2210", "B", "03")),
            ("QN7-0042", ("", "QN7-0042", "", "")),
            ("UMC 40-118", ("UMC", "40-118", "", "")),
            ("MGT-88-C2/4", ("MGT", "88", "C2", "4")),
            ("TVH2210B", ("TVH", "2210", "B", "")),
        ):
            found = number_parts(marking)
            self.assertEqual((found.prefix, found.base, found.suffix, found.revision), parts, marking)


class Neighbours(SimpleTestCase):
    @given(WORDS, WORDS)
    def test_whatever_is_one_edit_apart_shares_a_text_with_one_left_out(self, one: str, other: str) -> None:
        # restricted Damerau-Levenshtein by rapidfuzz; a dictionary of what is left finds a superset, which is ranked exactly
        mine, yours = {one, *with_one_left_out(one)}, {other, *with_one_left_out(other)}
        if OSA.distance(one, other) <= 1:
            self.assertTrue(mine & yours, (one, other))
        elif mine & yours:
            self.assertEqual(OSA.distance(one, other), 2, (one, other))

    def test_codes_are_those_of_the_published_check(self) -> None:
        # CRC-32 of "123456789" is CBF43926 (the check value of ISO 3309's polynomial)
        self.assertEqual(code_of("123456789"), 0xCBF43926 - (1 << 31))

    def test_a_revision_is_left_off(self) -> None:
        for written in ("TVH-2210-B rev 03", "TVH-2210-B/03", "TVH-2210-B"):
            self.assertEqual(without_revision(written), "TVH-2210-B")

    def test_neighbours_swapped_of_which_one_is_misread_are_one_edit(self) -> None:
        found = hits("LRT-4I30-H1", [(each, each) for each in ("LRT-4030-H1", "LRT-4310-H1", "LRT-4100-H1")])
        swapped = next(each for each in found if each.part_number == "LRT-4310-H1")
        self.assertEqual((swapped.readings[0].distance, swapped.readings[0].how), (1.1, "similar"))


class Distance(SimpleTestCase):
    def test_published_distances(self) -> None:
        # kitten/sitting: Levenshtein's usual example; CA/ABC: 2 where a swap may be parted (Lowrance and Wagner 1975)
        self.assertEqual(align("kitten", "sitting", 1).distance, 3)
        self.assertEqual(align("CA", "ABC", 1).distance, 2)

    @given(WORDS, WORDS)
    def test_with_look_alikes_at_full_cost_it_is_damerau_levenshtein(self, one: str, other: str) -> None:
        # reference: rapidfuzz, unrestricted Damerau–Levenshtein
        self.assertEqual(align(one, other, 1).distance, DamerauLevenshtein.distance(one, other))

    @given(WORDS, WORDS)
    def test_edits_add_up_to_the_distance_and_the_distance_is_symmetric(self, one: str, other: str) -> None:
        found = align(one, other)
        self.assertAlmostEqual(found.distance, align(other, one).distance)
        if not any(edit.kind == "swapped" for edit in found.edits):
            costs = [1 if e.kind != "misread" else 0.2 if WORN & {*e.read, *e.printed} else 0.1 for e in found.edits]
            self.assertAlmostEqual(found.distance, sum(costs))

    def test_a_misread_character_is_told_as_such(self) -> None:
        found = align("TVH221O8", "TVH2210B")
        self.assertAlmostEqual(found.distance, 0.2)
        self.assertEqual(
            [(e.kind, e.read, e.printed) for e in found.edits], [("misread", "O", "0"), ("misread", "8", "B")]
        )

    def test_jaro_winkler(self) -> None:
        # Winkler 1990, worked examples
        self.assertAlmostEqual(agreement("MARTHA", "MARHTA"), 0.9611, places=4)
        self.assertAlmostEqual(JaroWinkler.similarity("DIXON", "DICKSONX"), 0.8133, places=4)
        self.assertAlmostEqual(agreement("DIXON", "DICKSONX"), 0.8133, places=4)


class Markings(SimpleTestCase):
    PRINTED = (
        ("TVH-2210-B", "TVH-2210-B"),
        ("TVH-2210-B", "0-2210-02"),
        ("TVH-2210-C", "TVH-2210-C"),
        ("UMC 40-118", "UMC 40-118"),
    )

    def first(self, text: str) -> tuple[str, str]:
        hit = hits(text, self.PRINTED)[0]
        return hit.part_number, hit.readings[0].how

    def test_how_a_marking_agrees_is_said(self) -> None:
        self.assertEqual(self.first("TVH-2210-B"), ("TVH-2210-B", "as printed"))
        self.assertEqual(self.first("tvh 02210 b"), ("TVH-2210-B", "written differently"))
        self.assertEqual(self.first("TVH-22IO-8"), ("TVH-2210-B", "misread"))
        self.assertEqual(self.first("TVH-2211-C"), ("TVH-2210-C", "similar"))
        self.assertEqual(self.first("40-118"), ("UMC 40-118", "part of it"))
        self.assertEqual(self.first("118"), ("UMC 40-118", "part of it"))
        self.assertEqual(hits("QQQQ-99", self.PRINTED), [])

    def test_what_looks_alike_in_print_is_nearer_than_what_does_only_when_worn(self) -> None:
        numbers = [f"LRT-{n}-E4" for n in (7401, 7471, 7541, 1241, 1416, 1451, 1941, 4741, 6141)]
        found = [hit.part_number for hit in hits("LRTI41E4", [(n, n) for n in numbers])]
        self.assertEqual(set(found[:5]), {f"LRT-{n}-E4" for n in (1241, 1416, 1451, 1941, 6141)})

    def test_a_revision_is_kept_apart(self) -> None:
        reading = hits("TVH-2210-B rev 03", self.PRINTED)[0].readings[0]
        self.assertEqual((reading.how, reading.revision), ("written differently", "03"))

    def test_several_markings_together_outrank_one(self) -> None:
        self.assertEqual(split_markings("TVH-2210-C\n0-2210-02; "), ["TVH-2210-C", "0-2210-02"])
        found = hits("TVH-2210-8, 0-221O-02", self.PRINTED)
        self.assertEqual((found[0].part_number, len(found[0].readings)), ("TVH-2210-B", 2))
        self.assertTrue(found[0].readings[1].alias)

    @given(
        st.lists(st.text("ABO018I5S", min_size=4, max_size=8), min_size=20, max_size=40, unique=True),
        st.text("ABO018I5S", min_size=4, max_size=8),
    )
    def test_the_short_list_never_loses_the_nearest(self, printed: list[str], read: str) -> None:
        found = hits(read, [(each, each) for each in printed], most=3)
        every = [reading.distance for each in printed if (reading := read_as(read, each, each))]
        nearest = min(every, default=None)
        self.assertEqual(found[0].readings[0].distance if found else None, nearest)


PLAY = (  # Quinlan 1986, table 1: outlook, temperature, humidity, windy, class
    "sunny hot high no N|sunny hot high yes N|overcast hot high no P|rain mild high no P|rain cool normal no P|"
    "rain cool normal yes N|overcast cool normal yes P|sunny mild high no N|sunny cool normal no P|rain mild normal no P|"
    "sunny mild normal yes P|overcast mild high yes P|overcast hot normal no P|rain mild high yes N"
)


class Key(SimpleTestCase):
    def test_entropy_and_gain_of_the_published_example(self) -> None:
        # Quinlan, Induction of decision trees, Machine Learning 1, 1986
        rows = [row.split() for row in PLAY.split("|")]
        before = [float(sum(row[4] == kind for row in rows)) for kind in "PN"]
        self.assertAlmostEqual(entropy(before), 0.9403, places=4)
        self.assertAlmostEqual(entropy(before), float(library_entropy(before, base=2)))
        for column, gain in ((0, 0.2467), (1, 0.0292), (2, 0.1518), (3, 0.0481)):
            parts = [
                [float(sum(row[column] == value and row[4] == kind for row in rows)) for kind in "PN"]
                for value in sorted({row[column] for row in rows})
            ]
            self.assertAlmostEqual(information_gain(before, parts), gain, places=4)

    @given(st.lists(st.floats(0.01, 100), min_size=1, max_size=8))
    def test_entropy_is_that_of_a_statistics_library(self, weights: list[float]) -> None:
        self.assertAlmostEqual(entropy(weights), float(library_entropy(weights, base=2)), places=9)

    def test_the_question_that_splits_best_for_its_effort_comes_first(self) -> None:
        left = [
            Sighting("A", {"colour": "green", "plugs": "3", "chip": "K1"}),
            Sighting("B", {"colour": "green", "plugs": "4", "chip": "K2"}),
            Sighting("C", {"colour": "blue", "plugs": "3", "chip": "K3"}),
            Sighting("D", {"colour": "blue", "plugs": "4"}),
        ]
        first = questions(left)[0]
        self.assertEqual((first.feature, first.bits), ("colour", 1.0))
        self.assertEqual(questions(left, ["colour"])[0].feature, "plugs")
        after = remaining(left, {"colour": "blue", "plugs": CANNOT_TELL})
        self.assertEqual([each.part_number for each in after], ["C", "D"])
        self.assertEqual([each.part_number for each in remaining(left, {"chip": "K1"})], ["A", "D"])
        self.assertEqual(separating(left[0], left[1]), (("chip", "K1", "K2"), ("plugs", "3", "4")))
        self.assertEqual(questions([left[0]]), [])

    def test_features_come_from_the_profile(self) -> None:
        seen = features_of(demo_board("TVH-2210-B"))
        self.assertEqual(
            (seen["colour"], seen["plugs"], seen["banks"], seen["fuse"]), ("green", "3", "bank of 6", "upper left")
        )
