"""Two people at one bank: what each set of its places, together, held against setting place by place."""

from django.test import SimpleTestCase
from hypothesis import given
from hypothesis import strategies as st

from tests.builders import demo_board
from twincore.job import TARGETS, empty_state
from twincore.job.case import Case
from twincore.job.merging import merged

BANK = st.text(alphabet="01?", min_size=6, max_size=6)


class Merging(SimpleTestCase):
    def case(self) -> Case:
        return Case(empty_state(), original=demo_board("TVH-2210-B"), replacement=demo_board("TVH-2214-A"))

    @given(before=BANK, after=BANK, now=BANK)
    def test_each_place_is_as_whoever_changed_it_said(self, before: str, after: str, now: str) -> None:
        found = merged(self.case(), TARGETS["found"], "S1", before, after, now)
        both = [i for i in range(6) if after[i] != before[i] and now[i] != before[i] and after[i] != now[i]]
        if both:
            self.assertIsNone(found)
            return
        assert found is not None
        for i in range(6):
            self.assertEqual(found[i], after[i] if after[i] != before[i] else now[i])

    def test_what_is_no_bank_of_the_board_is_not_put_together(self) -> None:
        case = self.case()
        self.assertEqual(merged(case, TARGETS["found"], "S1", None, "1?????", "?0????"), "10????")
        for target, name in (("found", "R9"), ("reason", "S1"), ("blind", "S1")):
            self.assertIsNone(merged(case, TARGETS[target], name, "00", "10", "01"), target)
        for before, after, now in (("000000", None, "100000"), (7, "100000", "010000"), ("00000", "10000", "010000")):
            self.assertIsNone(merged(case, TARGETS["found"], "S1", before, after, now))
        new = demo_board("OFN-U3")
        dial = next(each.id for each in new.elements if not each.placed)
        self.assertIsNone(merged(Case(empty_state(), replacement=new), TARGETS["override"], dial, "1", "2", "3"))
