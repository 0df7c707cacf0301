"""Facts and conditions on them, held against what the words mean: every way of completing what is not known yet."""

from fractions import Fraction
from itertools import product
from typing import Any
from unittest import TestCase

from hypothesis import given
from hypothesis import strategies as st

from twincore.profile.facts import fact_agrees, fact_read, missing_facts

VALUES: list[Any] = [0, 1, 2, Fraction(5, 2), True, False, "DK2", "1", ""]
edges = st.sampled_from([0, 1, Fraction(5, 2), 9])
conditions = st.one_of(
    st.sampled_from(VALUES),
    st.lists(st.sampled_from(VALUES), max_size=3),
    st.fixed_dictionaries({}, optional={"from": edges, "to": edges}),
)


def holds(value: Any, condition: Any) -> bool:
    """What a condition says, in the words of the format: the type counts, and the ends of a range belong to it."""
    if isinstance(condition, list):
        return any(holds(value, each) for each in condition)
    if isinstance(condition, dict):
        if type(value) not in (int, Fraction):
            return False
        return not ("from" in condition and value < condition["from"]) and not (
            "to" in condition and value > condition["to"]
        )
    kinds = [
        "truth" if isinstance(each, bool) else "word" if isinstance(each, str) else "number"
        for each in (value, condition)
    ]
    return kinds[0] == kinds[1] and value == condition


class Facts(TestCase):
    @given(st.sampled_from(VALUES), conditions)
    def test_a_fact_agrees_as_the_words_say(self, value: Any, condition: Any) -> None:
        self.assertEqual(fact_agrees(value, condition), holds(value, condition))

    @given(
        st.dictionaries(st.sampled_from("abc"), conditions, max_size=3),
        st.dictionaries(st.sampled_from("abcd"), st.sampled_from(VALUES), max_size=3),
    )
    def test_what_is_missing_is_what_could_still_decide(self, wanted: dict[str, Any], known: dict[str, Any]) -> None:
        missing = missing_facts(wanted, known)
        open_names = [name for name in wanted if name not in known]
        fails = any(not holds(known[name], wanted[name]) for name in wanted if name in known)
        if missing is None:
            self.assertTrue(fails)
            for values in product(VALUES, repeat=len(open_names)):
                completed = known | dict(zip(open_names, values, strict=True))
                self.assertFalse(all(holds(completed[name], each) for name, each in wanted.items()))
        else:
            self.assertFalse(fails)
            self.assertEqual(list(missing), open_names)

    def test_a_fact_is_read_as_it_is_written(self) -> None:
        for text, value in (
            ("230", 230), ("2.5", Fraction(5, 2)), ("-3", -3), ("true", True), ("false", False), ("0712", "0712"),
            ("nan", "nan"), ("inf", "inf"), ("1e999", "1e999"), ("", ""), ("DK2", "DK2"), ("٣", "٣"), ("1_000", "1_000"),
            ("0", 0), ("-0", 0), ("00", "00"), (" 5", " 5"),
        ):  # fmt: skip
            read = fact_read(text)
            self.assertEqual((read, type(read)), (value, type(value)), text)
