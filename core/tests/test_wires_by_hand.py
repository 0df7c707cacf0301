"""Wires that somebody puts by hand: they stay where they were put, the plan goes round them, and what is unsound is named."""

from collections import Counter
from typing import Any

from django.test import SimpleTestCase
from hypothesis import given, settings
from hypothesis import strategies as st

from tests.test_wiring import SIGNALS, board, family, record, treatments
from twincore import wiring
from twincore.wiring import ByHand, Placed


def plan_of(old: Any, new: Any, said: ByHand, *wires: str, fam: Any = None, **more: Any) -> wiring.WiringPlan:
    fam = fam or family()
    return wiring.carry_wires(old, record(old, fam, *wires, **more), new, fam, by_hand=said)


class ByHandPlans(SimpleTestCase):
    def test_a_plug_of_which_nobody_knows_anything_goes_where_somebody_says(self) -> None:
        old, new = board("O", ("J1", "KP", "- - -")), board("N", ("J1", "KP", "- - -"), ("J2", "KP", "- - -"))
        lost = plan_of(old, new, ByHand(), without_record=["J1"])
        self.assertEqual({each.treatment for each in lost.wires}, {"tied back"})
        plan = plan_of(old, new, ByHand(plugs={"J1": "J2"}), without_record=["J1"])
        self.assertEqual(treatments(plan), {f"J1.{pin}": ("straight", f"J2.{pin}") for pin in ("1", "2", "3")})
        self.assertEqual([(each.kind, each.plug, len(each.wires)) for each in plan.steps], [("plug", "J1", 3)])
        self.assertEqual(plan.pin_counts()["wired"], 3)
        self.assertTrue(all(each.marks == ("by hand",) for each in plan.wires))

    def test_one_wire_of_a_plug_goes_elsewhere_and_the_rest_with_the_plug(self) -> None:
        old = board("O", ("C1", "KP", "sup a b"))
        new = board("N", ("C1", "KP", "sup a b"), ("X", "FX", "- -"))
        plan = plan_of(old, new, ByHand({"w3": Placed(("X.2",))}), "C1.1", "C1.2", "C1.3")
        self.assertEqual(
            treatments(plan),
            {"w1": ("straight", "C1.1"), "w2": ("straight", "C1.2"), "w3": ("new end", "X.2")},
        )
        self.assertEqual(sorted(len(each.wires) for each in plan.steps), [1, 2])

    def test_tied_back_joined_through_a_lead_and_onto_two_pins(self) -> None:
        old, new = board("O", ("C1", "KP", "a b c d")), board("N", ("X", "FX", "a - - b"))
        said = ByHand({
            "w1": Placed(("X.2", "X.3")), "w2": Placed(joined="w1"), "w3": Placed(), "w4": Placed(("X.1",), lead="lead B"),
        })  # fmt: skip
        plan = plan_of(old, new, said, "C1.1", "C1.2", "C1.3", "C1.4")
        self.assertEqual(
            treatments(plan),
            {
                "w1": ("new end", "X.2"), "w2": ("joined", "X.2"), "w3": ("tied back", None), "w4": ("adapter", "X.1"),
            },
        )  # fmt: skip
        wires = {each.wire.id: each for each in plan.wires}
        self.assertEqual(
            (wires["w1"].places, wires["w2"].joined, wires["w4"].adapter), (["X.2", "X.3"], "w1", "lead B")
        )
        self.assertIn("other signal", wires["w4"].marks)
        self.assertEqual([each.pin.place for each in plan.free], ["X.4"])
        self.assertEqual(plan.counts()["joined"], 1)

    def test_what_is_unsound_about_a_place_is_named(self) -> None:
        fam = family(a={"kind": "output"}, b={"kind": "output"}, c={"volts_class": "mains"})
        old, new = board("O", ("C1", "KP", "a b c -")), board("N", ("X", "FX", "a - d c"))
        for said, wire, unsound in (
            ({"w1": Placed(("X.2",)), "w2": Placed(("X.2",))}, "w1", ("two outputs", "full")),
            ({"w1": Placed(("X.2",)), "w2": Placed(joined="w1")}, "w2", ("two outputs",)),
            ({"w3": Placed(("X.3",))}, "w3", ("other signal", "volts")),
            ({"w3": Placed(("X.4",))}, "w3", ()),
            ({"w4": Placed(("X.4",))}, "w4", ("full",)),  # the plan has but this pin for w3
            ({"w1": Placed(("X.2", "X.4"))}, "w1", ("other signal", "volts", "two signals", "full")),
            (
                {"w4": Placed(("X.1", "X.3"))},
                "w4",
                ("full", "two signals"),
            ),  # nobody knows the wire, and it joins a and d
            ({"w4": Placed(joined="w1")}, "w4", ()),
            ({"w2": Placed(joined="w1")}, "w2", ("other signal", "two outputs")),
        ):
            plan = plan_of(old, new, ByHand(said), "C1.1", "C1.2", "C1.3", "C1.4", fam=fam)
            marks = next(each.marks for each in plan.wires if each.wire.id == wire)
            self.assertEqual(marks[marks.index("by hand") + 1 :], unsound, said)

    def test_a_wire_joined_with_one_that_the_plan_moves_goes_wherever_that_goes(self) -> None:
        old, new = board("O", ("C1", "KP", "a -")), board("N", ("X", "FX", "- a"))
        plan = plan_of(old, new, ByHand({"w2": Placed(joined="w1")}), "C1.1", "C1.2")
        self.assertEqual(treatments(plan), {"w1": ("new end", "X.2"), "w2": ("joined", "X.2")})
        lost = plan_of(old, board("M", ("X", "FX", "b")), ByHand({"w2": Placed(joined="w1")}), "C1.1", "C1.2")
        self.assertEqual(treatments(lost)["w2"], ("tied back", None))
        ring = ByHand({"w1": Placed(joined="w2"), "w2": Placed(joined="w1")})
        self.assertEqual(treatments(plan_of(old, new, ring, "C1.1", "C1.2"))["w1"], ("new end", "X.2"))

    def test_what_is_said_of_places_that_are_not_there_is_left_to_the_plan(self) -> None:
        old, new = board("O", ("C1", "KP", "a b")), board("N", ("C1", "KP", "a b"))
        said = ByHand({"w1": Placed(("Z.9",)), "gone": Placed(("C1.1",)), "w2": Placed(joined="gone")}, {"C1": "Z"})
        plan = plan_of(old, new, said, "C1.1", "C1.2")
        self.assertEqual(treatments(plan), {"w1": ("straight", "C1.1"), "w2": ("straight", "C1.2")})

    @settings(max_examples=150)
    @given(st.data())
    def test_every_wire_and_every_pin_stands_in_the_plan_once_whatever_is_put(self, data: st.DataObject) -> None:
        signals = st.lists(st.sampled_from([*SIGNALS, "-"]), min_size=1, max_size=4).map(" ".join)
        styles = st.sampled_from(["KP", "FX"])
        draw = data.draw
        old = board("O", *((name, draw(styles), draw(signals)) for name in ("C1", "C2")))
        new = board("N", *((name, draw(styles), draw(signals)) for name in ("C1", "X", "Y")))
        fam = family()
        pins = [pin.place for plug in wiring.plugs_of(new, fam).values() for pin in plug.pins.values()]
        at = [pin.place for plug in wiring.plugs_of(old, fam).values() for pin in plug.pins.values()]
        wires = [f"w{n}" for n in range(1, len(at) + 1)]
        put = {
            name: draw(st.one_of(
                st.lists(st.sampled_from(pins), max_size=3, unique=True).map(lambda to: Placed(tuple(to))),
                st.sampled_from(wires).map(lambda other: Placed(joined=other)),
                st.sampled_from(pins).map(lambda to: Placed((to,), lead="a lead")),
            ))
            for name in draw(st.sets(st.sampled_from(wires), max_size=4))
        }  # fmt: skip
        plugs = draw(st.dictionaries(st.sampled_from(["C1", "C2"]), st.sampled_from(["C1", "X", "Y"]), max_size=1))
        plan = plan_of(old, new, ByHand(put, plugs), *at)
        self.assertEqual([each.wire.id for each in plan.wires], wires)
        self.assertEqual(sum(plan.counts().values()), len(wires))
        self.assertEqual(sum(plan.pin_counts().values()), len(pins))
        self.assertEqual(Counter(name for step in plan.steps for name in step.wires), Counter(wires))
        found = {each.wire.id: each for each in plan.wires}
        planned = Counter(place for each in plan.wires if "by hand" not in each.marks for place in each.places)
        by_hand = Counter(
            place for each in plan.wires if "by hand" in each.marks and not each.joined for place in each.places
        )
        shared = {each.to_pin.place for each in plan.wires if each.to_pin and "shared" in each.marks}
        for place in planned.keys() & by_hand.keys() - shared:
            self.fail(f"{place}: the plan puts a wire where somebody put one")
        for name, said in put.items():
            if said.to:
                self.assertEqual((found[name].places, "by hand" in found[name].marks), (list(said.to), True))
            elif said.joined is None:
                self.assertEqual((found[name].places, found[name].treatment), ([], "tied back"))
            elif found[name].joined:
                self.assertEqual(found[name].to_pin, found[said.joined].to_pin)
