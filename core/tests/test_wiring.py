from typing import Any

import numpy
from django.test import SimpleTestCase
from hypothesis import given, settings
from hypothesis import strategies as st
from scipy.optimize import linear_sum_assignment

from tests.builders import DEMO, demo_board, demo_family, encoded, small_board, small_family
from twincore import profile, wiring
from twincore.errors import DocumentError
from twincore.wiring.assigning import SHARED, assign
from twincore.wiring.choosing import Seat, choose

SIGNALS = ["sup", "pe", "a", "b", "c", "d"]
KINDS = {"sup": "supply", "pe": "earth"}


def family(**more: Any) -> profile.Family:
    signals = [
        {
            "id": name,
            "title": name.upper(),
            "kind": KINDS.get(name, "other"),
            "volts_class": "24dc",
            **more.get(name, {}),
        }
        for name in SIGNALS
    ]
    return profile.parse_family(encoded(small_family(signals=signals)))


def board(number: str, *plugs: Any, **more: Any) -> profile.Board:
    """Plugs as (id, style, "signal signal -"); `-` is a pin that carries nothing."""
    connectors = [
        {
            "id": name, "style": style, "keyed": True,
            "pins": [{"pin": n, **({} if s == "-" else {"signal": s})} for n, s in enumerate(pins.split(), 1)],
        }
        for name, style, pins in plugs
    ]  # fmt: skip
    return profile.parse_board(encoded(small_board(None, number, connectors=connectors, **more)))


def record(original: profile.Board, fam: profile.Family, *wires: str, **more: Any) -> wiring.WiringRecord:
    document = {"format": "worthy-twin/wiring", "version": 1, "part_number": original.part_number, **more}
    document["wires"] = [
        {"id": f"w{n}", "connector": place.split(".")[0], "pin": int(place.split(".")[1])}
        for n, place in enumerate(wires, 1)
    ]
    return wiring.parse_wiring(encoded(document), original, fam)


def treatments(plan: wiring.WiringPlan) -> dict[str, tuple[str, str | None]]:
    return {each.wire.id: (each.treatment, each.to_pin.place if each.to_pin else None) for each in plan.wires}


LEAD_E = wiring.Adapter(
    "E", "lead E", 1, 9, {"old": "QL-2"}, {"new": "RM-2"},
    (wiring.Lead("old", "1", "new", "2"), wiring.Lead("old", "2", "new", "1")),
)  # fmt: skip


class Treatments(SimpleTestCase):
    def test_a_plug_moves_whole_where_style_and_every_used_pin_agree(self) -> None:
        fam, old = family(), board("A", ("P", "QL-3", "a b c"))
        new = board("B", ("Q", "QL-3", "a b d"))
        used_alike = wiring.carry_wires(old, record(old, fam, "P.1", "P.2"), new, fam)
        self.assertEqual(treatments(used_alike), {"w1": ("straight", "Q.1"), "w2": ("straight", "Q.2")})
        self.assertEqual(used_alike.traps, ())
        all_used = wiring.carry_wires(old, record(old, fam, "P.1", "P.2", "P.3"), new, fam)
        self.assertEqual(treatments(all_used)["w1"], ("single", "Q.1"))
        self.assertEqual(treatments(all_used)["w3"], ("tied back", None))
        self.assertEqual(all_used.traps, (wiring.Trap("P", "Q", "QL-3", (("3", "c", "d"),)),))
        self.assertIn("trap", all_used.wires[0].marks)

    def test_a_plug_whose_wires_go_one_by_one_is_not_moved_whole_though_it_fits(self) -> None:
        fam, old, new = family(), board("A", ("P", "QL-2", "a b")), board("B", ("Q", "QL-2", "a b"))
        node = {"part_number": "A", "as_moved": ["P"], "wires": []}
        one_by_one = wiring.build_wiring(node, old, fam, profile.faults.FaultList())
        plan = wiring.carry_wires(old, one_by_one, new, fam)
        self.assertEqual({each.treatment for each in plan.wires}, {"single"})
        self.assertEqual([step.plug for step in plan.steps], [None, None])

    def test_an_adapter_serves_what_no_plug_fits_and_ends_are_made_new_where_none_does(self) -> None:
        fam, old, new = family(), board("A", ("P", "QL-2", "a b")), board("B", ("Q", "RM-2", "b a"))
        wires = record(old, fam, "P.1", "P.2")
        through = wiring.carry_wires(old, wires, new, fam, (LEAD_E,))
        self.assertEqual(treatments(through), {"w1": ("adapter", "Q.2"), "w2": ("adapter", "Q.1")})
        self.assertEqual(treatments(wiring.carry_wires(old, wires, new, fam))["w1"], ("new end", "Q.2"))
        crossed = board("C", ("Q", "RM-2", "a b"))
        wrong = wiring.carry_wires(old, wires, crossed, fam, (LEAD_E,))
        self.assertEqual(treatments(wrong), {"w1": ("new end", "Q.1"), "w2": ("new end", "Q.2")})

    def test_another_voltage_class_or_the_other_contact_is_a_no(self) -> None:
        fam, old = family(), board("A", ("P", "X", "a b"), relays=[{"id": "K", "signal": "b", "no": "P.2"}])
        new = board("B", ("Q", "X", "a b"), relays=[{"id": "K", "signal": "b", "nc": "Q.2"}])
        new.document["connectors"][0]["pins"][0]["volts_class"] = "mains"
        plan = wiring.carry_wires(old, record(old, fam, "P.1", "P.2"), new, fam)
        self.assertEqual([(each.treatment, each.marks) for each in plan.wires],
                         [("no", ("volts", "trap")), ("no", ("contact", "other contact", "trap"))])  # fmt: skip

    def test_what_nobody_knows_the_signal_of_goes_by_the_print_at_its_pin_and_says_so(self) -> None:
        fam = family()
        old, new = board("OLD", ("C1", "QL-4", "- - - sup")), board("NEW", ("X1", "RM-4", "a - - -"))
        printed = (("Fan", "L 2", "x", ""), ("FAN", "l  2", "y", "x"))
        for each, marks in zip((old, new), printed, strict=True):
            for pin, mark in zip(each.document["connectors"][0]["pins"], marks, strict=True):
                pin["mark"] = mark
        plan = wiring.carry_wires(old, record(old, fam, "C1.1", "C1.2", "C1.3", "C1.4"), new, fam)
        self.assertEqual(
            treatments(plan),
            {
                "w1": ("new end", "X1.1"), "w2": ("new end", "X1.2"), "w3": ("new end", "X1.4"), "w4": ("tied back", None),
            },
        )  # fmt: skip
        self.assertEqual([each.marks for each in plan.wires], [("label",), ("label",), ("label",), ("no place",)])
        self.assertEqual([(each.pin.place, each.treatment) for each in plan.free], [("X1.3", "unused")])

    def test_a_print_that_says_two_things_on_the_other_board_says_nothing(self) -> None:
        fam = family()
        old, new = board("OLD", ("C1", "QL-4", "-")), board("NEW", ("X1", "RM-4", "a b"))
        for each in (old, new):
            for pin in each.document["connectors"][0]["pins"]:
                pin["mark"] = "1"
        plan = wiring.carry_wires(old, record(old, fam, "C1.1"), new, fam)
        self.assertEqual((plan.wires[0].treatment, plan.wires[0].marks), ("tied back", ("unknown",)))

    def test_a_wire_of_an_unknown_pin_goes_by_what_somebody_followed_it_to(self) -> None:
        fam = family()
        old, new = board("OLD", ("C1", "QL-4", "-")), board("NEW", ("X1", "RM-4", "b a"))
        followed = {"id": "w1", "connector": "C1", "pin": 1, "signal": "a"}
        document = {"format": "worthy-twin/wiring", "version": 1, "part_number": "OLD", "wires": [followed]}
        plan = wiring.carry_wires(old, wiring.parse_wiring(encoded(document), old, fam), new, fam)
        self.assertEqual(treatments(plan), {"w1": ("new end", "X1.2")})

    def test_changeover_contacts_go_by_their_part_not_by_their_place(self) -> None:
        fam = family()
        old = board(
            "A", ("P", "X", "- - -"), relays=[{"id": "K", "signal": "a", "common": "P.1", "no": "P.2", "nc": "P.3"}]
        )
        new = board(
            "B", ("Q", "Y", "- - -"), relays=[{"id": "R", "signal": "a", "common": "Q.3", "no": "Q.1", "nc": "Q.2"}]
        )
        plan = wiring.carry_wires(old, record(old, fam, "P.1", "P.2", "P.3"), new, fam)
        self.assertEqual([each.to_pin and each.to_pin.place for each in plan.wires], ["Q.3", "Q.1", "Q.2"])
        self.assertTrue(all("contact" in each.marks for each in plan.wires))

    def test_pins_without_a_wire_are_linked_or_named_and_everything_adds_up(self) -> None:
        fam = family(d={"optional": True})
        old = board("A", ("P", "X", "sup pe a"))
        new = board("B", ("Q", "Y", "a b c d sup pe -"))
        new.document["connectors"][0]["pins"][1]["without_device"] = "link to 5"
        plan = wiring.carry_wires(old, record(old, fam, "P.1", "P.2", "P.3"), new, fam)
        self.assertEqual([(each.pin.place, each.treatment) for each in plan.free],
                         [("Q.2", "link"), ("Q.3", "device missing"), ("Q.4", "left open"), ("Q.7", "unused")])  # fmt: skip
        self.assertEqual(sum(plan.counts().values()), 3)
        self.assertEqual(sum(plan.pin_counts().values()), 7)
        kinds = [(step.kind, step.wires) for step in plan.steps]
        self.assertEqual(kinds, [("link", ()), ("new end", ("w2",)), ("new end", ("w3",)), ("new end", ("w1",))])
        other = wiring.carry_wires(old, record(old, fam, "P.1", "P.2", "P.3"), new, fam, order="as recorded")
        # as recorded, but for earth
        self.assertEqual([step.wires for step in other.steps], [(), ("w2",), ("w1",), ("w3",)])

    def test_a_link_has_two_ends_and_is_put_in_once(self) -> None:
        fam = family()
        old, new = board("OLD", ("C1", "QL-4", "a")), board("NEW", ("C1", "QL-4", "b c"), ("C2", "QL-4", "d"))
        pins = new.document["connectors"][0]["pins"]
        pins[0]["without_device"] = "link to 2"
        plan = wiring.carry_wires(old, record(old, fam), new, fam)
        told = [(each.pin.place, each.treatment, each.detail) for each in plan.free]
        self.assertEqual(told[:2], [("C1.1", "link", "link to 2"), ("C1.2", "link", "link to 1")])
        self.assertEqual([(each.kind, each.place) for each in plan.steps], [("link", "C1.1")])
        pins[0]["without_device"] = "link to C2.1"
        plan = wiring.carry_wires(old, record(old, fam), new, fam)
        self.assertEqual(
            [(each.pin.place, each.treatment) for each in plan.free],
            [("C1.1", "link"), ("C1.2", "device missing"), ("C2.1", "link")],
        )

    def test_findings_name_what_differs_from_the_diagram_and_settle_what_a_wire_carries(self) -> None:
        fam, old = family(), board("A", ("P", "X", "a b - c"))
        read = record(old, fam, "P.1", "P.3")
        wires = (wiring.Wire("w1", "P", "1", signal="b"), read.wires[1])
        found = wiring.wiring_findings(old, fam, wires)
        self.assertEqual([(each.place, each.kind, each.diagram, each.found) for each in found],
                         [("P.1", "other signal", "a", "b"), ("P.2", "wire missing", "b", None),
                          ("P.3", "not in the diagram", None, None), ("P.4", "wire missing", "c", None)])  # fmt: skip
        new = board("B", ("Q", "X", "b a"))
        for carry_by, treatment, place in (("pin", "single", "Q.2"), ("wire", "straight", "Q.1")):
            settled = wiring.WiringRecord("A", (wiring.Wire("w1", "P", "1", signal="b", carry_by=carry_by),), ())
            self.assertEqual(treatments(wiring.carry_wires(old, settled, new, fam)), {"w1": (treatment, place)})

    def test_a_bad_record_is_refused_with_its_places(self) -> None:
        fam, old = family(), board("A", ("P", "X", "a b"), ("Q", "X", "c"))
        document = {
            "format": "worthy-twin/wiring", "version": 1, "part_number": "Z", "without_record": ["P", "R"], "as_moved": ["P", "Q"],
            "wires": [{"id": "w", "connector": "P", "pin": 9, "signal": "z"}, {"id": "w", "connector": "Z", "pin": 1}],
        }  # fmt: skip
        with self.assertRaises(DocumentError) as caught:
            wiring.parse_wiring(encoded(document), old, fam)
        places = {fault.place for fault in caught.exception.faults}
        self.assertEqual(places, {"part_number", "wires[1].id", "wires[0].pin", "wires[0].signal", "wires[1].connector",
                                  "without_record[0]", "without_record[1]", "as_moved[0]"})  # fmt: skip

    def test_boards_of_the_demo_world_carry_every_wire_of_a_twin_layout_straight(self) -> None:
        fam, old, new = demo_family(), demo_board("TVH-2210-B"), demo_board("OFN-U3")
        whole = wiring.WiringRecord("TVH-2210-B", (), ())
        read = wiring.build_wiring({"part_number": "TVH-2210-B", "without_record": ["C1", "C2"], "wires": [
            {"id": "ht", "connector": "C3", "pin": 1}]}, old, fam, profile.faults.FaultList())  # fmt: skip
        self.assertEqual(wiring.carry_wires(old, whole, new, fam).wires, ())
        plan = wiring.carry_wires(old, read, new, fam)
        self.assertEqual(plan.counts()["straight"], 15)


class Optimum(SimpleTestCase):
    """The choice of seats against all there are; the assignment of wires against scipy's Jonker–Volgenant."""

    @settings(max_examples=120)
    @given(st.data())
    def test_no_set_of_seats_is_better(self, data: st.DataObject) -> None:
        plugs, sockets = [f"P{n}" for n in range(5)], [f"S{n}" for n in range(5)]
        adapters = [
            wiring.Adapter(f"E{n}", "", data.draw(st.integers(1, 2)), data.draw(st.integers(0, 3)), {}, {}, ())
            for n in range(3)
        ]
        seat = st.builds(
            lambda mine, theirs, lead, count: Seat(
                tuple(sorted(mine)), tuple(sorted(theirs)), lead,
                {f"{sorted(mine)[0]}-{n}": None for n in range(count)},  # type: ignore[misc]
            ),
            st.sets(st.sampled_from(plugs), min_size=1, max_size=2), st.sets(st.sampled_from(sockets), min_size=1, max_size=2),
            st.sampled_from([None, *adapters]), st.integers(1, 9),
        )  # fmt: skip
        options = data.draw(st.lists(seat, max_size=14))
        stock = {each.id: each.count for each in adapters}
        mine = choose(options, stock)
        names = [name for each in mine for name in (*each.plugs, *each.sockets)]
        self.assertEqual(len(names), len(set(names)))
        score = [sum(each.score[k] for each in mine) for k in range(3)]
        self.assertEqual(score, self.best(options, stock))

    def best(self, options: list[Seat], stock: dict[str, int]) -> list[float]:
        """Every set of seats there is, one after another."""
        top = (0.0, 0.0, 0.0)

        def go(index: int, names: frozenset[str], used: dict[str, int], score: tuple[float, ...]) -> None:
            nonlocal top
            top = max(top, score)  # type: ignore[assignment]
            for later in range(index, len(options)):
                seat = options[later]
                mine = frozenset((*seat.plugs, *seat.sockets))
                lead = seat.adapter.id if seat.adapter else ""
                if mine & names or (lead and used.get(lead, 0) >= stock[lead]):
                    continue
                more = {**used, lead: used.get(lead, 0) + 1} if lead else used
                go(later + 1, names | mine, more, tuple(a + b for a, b in zip(score, seat.score, strict=True)))

        go(0, frozenset(), {}, (0.0, 0.0, 0.0))
        return list(top)

    @settings(max_examples=200)
    @given(
        st.integers(1, 5).flatmap(
            lambda n: st.lists(
                st.lists(st.sampled_from([True, False, None]), min_size=n, max_size=n), min_size=1, max_size=6
            )
        )
    )
    def test_the_assignment_costs_what_the_hungarian_method_says(self, fits: list[list[bool | None]]) -> None:
        far = 10**6
        cost = [[far if fit is None else int(not fit) for fit in row] + [SHARED if i == k else far for k in range(len(fits))]
                for i, row in enumerate(fits)]  # fmt: skip
        rows, columns = linear_sum_assignment(numpy.array(cost))
        found = assign(fits)
        placed = [each for each in found if each is not None]
        self.assertEqual(len(placed), len(set(placed)))
        total = sum(SHARED if place is None else cost[wire][place] for wire, place in enumerate(found))
        self.assertEqual(total, int(numpy.array(cost)[rows, columns].sum()))

    def test_the_whole_plan_serves_as_many_wires_as_trying_everything(self) -> None:
        fam = family()
        old = board("A", ("P1", "QL-2", "a b"), ("P2", "QL-2", "c d"), ("P3", "QL-2", "sup pe"))
        new = board("B", ("Q1", "QL-2", "c d"), ("Q2", "RM-2", "b a"), ("Q3", "RM-2", "pe sup"))
        wires = record(old, fam, "P1.1", "P1.2", "P2.1", "P2.2", "P3.1", "P3.2")
        for stock, served in ((0, 2), (1, 4), (2, 6)):
            lead = wiring.Adapter("E", "", stock, 9, LEAD_E.sockets, LEAD_E.plugs, LEAD_E.leads)
            plan = wiring.carry_wires(old, wires, new, fam, (lead,) if stock else ())
            counts = plan.counts()
            self.assertEqual(counts["straight"] + counts["adapter"], served)
            self.assertEqual(counts["new end"], 6 - served)


class Files(SimpleTestCase):
    def test_adapters_are_checked_and_the_examples_of_the_demo_world_hold(self) -> None:
        leads = wiring.parse_adapters((DEMO / "adapters/omnifen.adapters.json").read_bytes())
        self.assertIn("omnifen-p-power", [each.id for each in leads])
        document = {"format": "worthy-twin/adapters", "version": 1, "adapters": [{
            "id": "E", "title": "", "sockets": [{"id": "x", "style": "s"}], "plugs": [{"id": "y", "style": "s"}],
            "leads": [{"from": ["x", 1], "to": ["y", 1]}, {"from": ["x", 1], "to": ["z", 1]}]}]}  # fmt: skip
        with self.assertRaises(DocumentError) as caught:
            wiring.parse_adapters(encoded(document))
        self.assertEqual(
            {f.place for f in caught.exception.faults}, {"adapters[0].leads[1].from", "adapters[0].leads[1].to"}
        )
