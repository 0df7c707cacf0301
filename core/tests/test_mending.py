"""A stored state is read whatever stands there; where it is damaged, the job's entries decide."""

from typing import Any, cast
from unittest import TestCase

from hypothesis import given
from hypothesis import strategies as st

from tests.test_replay import node
from twincore.job import current, empty_state, mended, partings, replay
from twincore.job.record.reading import shape_faults

ANYTHING = st.recursive(
    st.none() | st.booleans() | st.integers() | st.floats(allow_nan=False) | st.text(max_size=5),
    lambda inner: st.lists(inner, max_size=3) | st.dictionaries(st.text(max_size=5), inner, max_size=3),
    max_leaves=8,
)


class Mending(TestCase):
    @given(ANYTHING | st.dictionaries(st.sampled_from(list(empty_state())), ANYTHING, max_size=6))
    def test_whatever_is_stored_is_read_as_a_state(self, stored: Any) -> None:
        self.assertEqual(shape_faults(current(stored)), [])

    @given(st.sampled_from(list(empty_state())), ANYTHING)
    def test_what_has_a_shape_stays_beside_what_has_none(self, key: str, odd: Any) -> None:
        state = cast(dict[str, Any], {**empty_state(), "found": {"S1": "01"}, "serial": "7"})
        kept = cast(dict[str, Any], current({**state, key: odd}))
        for name in ("found", "serial"):
            if name != key:
                self.assertEqual(kept[name], state[name])

    def test_the_entries_decide_where_what_is_stored_is_damaged(self) -> None:
        entries = [
            node(1, "serial", "7"), node(2, "found.S1", "01"), node(3, "found.S2", [1]), node(4, "found.S3", "11"),
        ]  # fmt: skip
        sound = dict(replay(entries[:2]).state)
        self.assertEqual(mended(sound, lambda: self.fail("nothing is asked of a job in order")).state, sound)
        found = mended({**sound, "found": {"S1": "01", "S2": [1]}, "serial": 5}, lambda: entries)
        self.assertEqual((found.state["serial"], found.state["found"]), ("7", {"S1": "01", "S3": "11"}))
        self.assertEqual([(each.number, each.target) for each in found.void], [(3, "found.S2")])
        # taken back, the record adds up again
        entries.append(node(5, "found.S2", None))
        found = mended({**sound, "serial": 5}, lambda: entries)
        self.assertEqual((found.void, partings(entries, cast(dict[str, Any], found.state))), ((), []))
