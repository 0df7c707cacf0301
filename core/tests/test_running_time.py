"""Running time: clocks that run only while a signal is on. Checked against an explicit search in ticks that shares no code with the product."""

from random import Random
from typing import Any

from django.test import SimpleTestCase

from tests import random_boards
from tests.against_ticks import AgainstTicks, Made, ShownAsInTicks, made_of
from tests.builders import CASES, case_twin, encoded, small_board, small_family, twin_of
from tests.cost import rounds
from twincore import behaviour, profile
from twincore.behaviour.lockstep import in_lockstep
from twincore.behaviour.simulate import run_values
from twincore.behaviour.stepwise import step_for_step
from twincore.behaviour.zones import ExactSearch
from twincore.errors import DocumentError, EndlessLoopError


def defroster(after: Any = 60, **more: Any) -> dict[str, Any]:
    """Cools (x) while a is on; after so much of cooling it defrosts (y) for 5 s and counts anew."""
    return {
        "start": "idle",
        "clocks": [{"id": "ran", "runs_while": "x", **more}],
        "states": {
            "idle": {"go": [{"to": "cool", "if": {"a": True}}]},
            "cool": {
                "on": ["x"],
                "go": [{"to": "defrost", "after": after, "clock": "ran"}, {"to": "idle", "if": {"a": False}}],
            },
            "defrost": {"on": ["y"], "go": [{"to": "idle", "after": 5, "reset": ["ran"]}]},
        },
    }


def random_pair(seed: int) -> Made:
    """Two random boards of which at least one has a clock of running time."""
    rng = Random(seed)
    family = random_boards.family_document(rng)
    one = random_boards.with_running_time(rng, random_boards.board_document(rng, family, "A"))
    other = random_boards.changed_copy(rng, one, "B")
    if rng.random() < 0.3:
        other = random_boards.with_running_time(rng, other)
    return made_of(rng, family, [one, other])


class Showing(ShownAsInTicks):
    """What one board shows."""

    def shown(self, behaviour_node: dict[str, Any], *steps: tuple[float, dict[str, bool]]) -> list[tuple[Any, str]]:
        twin = twin_of(small_family(), [small_board(behaviour_node, "A"), small_board(behaviour_node, "B")])
        scenario = profile.Scenario("", tuple(profile.Step(at, tuple(change.items())) for at, change in steps), 500)
        found = run_values(twin.original, {}, twin.family, scenario)
        return [(each.at, "".join(each.on)) for each in found]

    def test_running_time_adds_up_over_many_on_times(self) -> None:
        on_and_off = [
            (10, {"a": True}),
            (40, {"a": False}),
            (100, {"a": True}),
            (110, {"a": False}),
            (200, {"a": True}),
        ]
        # 30 s, 10 s, and the last 20 s from 200 on
        self.assertEqual(
            self.shown(defroster(), *on_and_off),
            [(0, ""), (10, "x"), (40, ""), (100, "x"), (110, ""), (200, "x"), (220, "y"), (225, "x"), (285, "y"),
             (290, "x"), (350, "y"), (355, "x"), (415, "y"), (420, "x"), (480, "y"), (485, "x")],
        )  # fmt: skip

    def test_a_power_loss_takes_it_back_to_its_start_unless_it_is_kept(self) -> None:
        cut = [(10, {"a": True}), (50, {"power": False}), (80, {"power": True})]
        self.assertEqual(self.shown(defroster(), *cut)[:5], [(0, ""), (10, "x"), (50, ""), (80, "x"), (140, "y")])
        kept = self.shown(defroster(runs_without_power=True), *cut)
        self.assertEqual(kept[:5], [(0, ""), (10, "x"), (50, ""), (80, "x"), (100, "y")])

    def test_it_may_start_as_if_it_had_run_for_ever(self) -> None:
        self.assertEqual(
            self.shown(defroster(starts="expired"), (10, {"a": True}))[:3], [(0, ""), (10, "y"), (15, "x")]
        )

    def test_it_runs_by_the_signal_as_it_stands_after_settling(self) -> None:
        # at 10 s x is passed through only: nothing of it counts
        passing = {
            "start": "s", "clocks": [{"id": "k", "runs_while": "x"}],
            "states": {
                "s": {"go": [{"to": "through", "if": {"a": True}}]},
                "through": {"on": ["x"], "go": [{"to": "t"}]},
                "t": {"go": [{"to": "r", "after": 1, "clock": "k"}, {"to": "u", "after": 20}]},
                "u": {"on": ["x"], "go": [{"to": "r", "after": 1, "clock": "k"}]}, "r": {"on": ["y"]},
            },
        }  # fmt: skip
        self.assertEqual(self.shown(passing, (10, {"a": True})), [(0, ""), (10, ""), (30, "x"), (31, "y")])

    def test_agrees_with_a_separate_simulator_in_ticks(self) -> None:
        self.assertGreater(self.shown_alike((seed, random_pair(seed)) for seed in range(200)), 80)


class Proving(AgainstTicks):
    def proof(self, one: dict[str, Any], other: dict[str, Any]) -> behaviour.Proof:
        return behaviour.prove(twin_of(small_family(), [small_board(one, "A"), small_board(other, "B")]))

    def test_a_defrost_that_comes_after_less_running_is_a_difference_that_the_simulator_shows(self) -> None:
        proof = self.proof(defroster(60), defroster(50))
        assert proof.counter_case is not None
        self.assertEqual((proof.verdict, proof.counter_case.changes, proof.counter_case.fewest), ("different", 1, True))
        self.assertEqual((proof.counter_case.at, proof.counter_case.original), (50, ("x",)))

    def test_boards_of_which_one_keeps_it_over_a_power_loss_part(self) -> None:
        proof = self.proof(defroster(60), defroster(60, runs_without_power=True))
        assert proof.counter_case is not None
        # on, off and on again: the longer the first time, the sooner
        self.assertEqual((proof.verdict, proof.counter_case.changes), ("different", 3))

    def test_a_clock_that_stands_is_another_than_one_that_runs(self) -> None:
        always: dict[str, Any] = defroster(60)
        del always["clocks"][0]["runs_while"]
        proof = self.proof(defroster(60), always)
        assert proof.counter_case is not None
        self.assertEqual(proof.verdict, "different")

    def test_running_times_are_added_up_exactly_in_a_counter_case(self) -> None:
        # both defrost after 60 s of cooling; the replacement shows z meanwhile where it cooled for at least 25 s before a pause
        # of 10 s: nothing shorter than that gets there
        def paused(shows: list[str]) -> dict[str, Any]:
            node = defroster(60)
            node["states"]["idle"]["go"].insert(0, {"to": "long", "after": 10})
            node["states"]["long"] = {
                "go": [{"to": "seen", "after": 25, "clock": "ran"}, {"to": "cool", "if": {"a": True}}]
            }
            node["states"]["seen"] = {"on": shows, "go": [{"to": "cool", "if": {"a": True}}]}
            return node

        proof = self.proof(paused([]), paused(["y"]))
        assert proof.counter_case is not None
        self.assertEqual((proof.counter_case.changes, proof.counter_case.at), (2, 35))

    def test_copies_are_in_register_without_any_search_of_times(self) -> None:
        other = defroster(60)
        other["states"] = dict(reversed(other["states"].items()))
        self.assertEqual(self.proof(defroster(60), defroster(60)).method, "stepwise")
        self.assertEqual(self.proof(defroster(60), other).method, "stepwise")

    def test_boards_built_otherwise_are_in_register_where_their_clocks_stop_and_go_together(self) -> None:
        # the replacement cools in two states that only it tells apart
        node = defroster(60)
        node["states"]["cool"]["go"].insert(1, {"to": "cool2", "if": {"b": True}})
        node["states"]["cool2"] = {
            "on": ["x"],
            "go": [{"to": "defrost", "after": 60, "clock": "ran"}, {"to": "idle", "if": {"a": False}}, {"to": "cool", "if": {"b": False}}],
        }  # fmt: skip
        proof = self.proof(defroster(60), node)
        self.assertEqual(proof.verdict, "identical")

    def test_cheap_proofs_never_claim_what_the_exact_search_refutes(self) -> None:
        claimed = 0
        for seed in range(400):
            made = random_pair(seed)
            if made is None:
                continue
            pair = made[2].pair(made[2].unit())
            proved = [
                name for name, search in (("stepwise", step_for_step), ("lockstep", in_lockstep)) if search(pair)[0]
            ]
            if proved:
                claimed += 1
                try:
                    found = ExactSearch(pair, 3_000).run()
                except EndlessLoopError:
                    continue
                self.assertEqual(found.nodes, [], (seed, proved))
        self.assertGreater(claimed, 60)

    def sum_asked(self, shown: list[str], least: int) -> dict[str, Any]:
        """Shows something where, at b, the first clock has reached 20 s, the second, reset at a, has not reached 5 s, and what ran
        until a has reached `least` but not 10 s.
        """
        return {
            "start": "run",
            "clocks": [{"id": "all"}, {"id": "since"}, {"id": "ran", "runs_while": "x"}],
            "states": {
                "run": {"on": ["x"], "go": [{"to": "stood", "if": {"a": True}, "reset": ["since"]}]},
                "stood": {"go": [{"to": "first", "if": {"b": True}, "after": 20, "clock": "all"}]},
                "first": {"go": [{"to": "end", "after": 5, "clock": "since"}, {"to": "second"}]},
                "second": {"go": [{"to": "end", "after": 10, "clock": "ran"}, {"to": "third"}]},
                "third": {"go": [{"to": "seen", "after": least, "clock": "ran"} if least else {"to": "seen"}]},
                "end": {}, "seen": {"on": shown},
            },
        }  # fmt: skip

    def test_what_bounds_of_two_clocks_at_a_time_allow_and_no_run_does_is_not_called_different(self) -> None:
        # all = since + ran throughout: with all from 20 on and since below 5, ran is above 15
        proof = self.proof(self.sum_asked([], 0), self.sum_asked(["y"], 0))
        self.assertEqual(
            (proof.verdict, proof.counter_case, proof.limit, proof.endless), ("not proved", None, None, ())
        )
        self.assertTrue(proof.covered)

    def test_random_pairs_against_an_explicit_search_in_ticks(self) -> None:
        met = self.agreeing((seed, random_pair(seed)) for seed in range(rounds(250, 3_000)))
        self.assertGreater(min(met.values()), 25, met)

    def test_six_hours_of_compressor_in_two_parts(self) -> None:
        twin = case_twin("prover-running-time")
        scenario = profile.parse_scenario((CASES / "prover-running-time" / "scenario.json").read_bytes())
        shown = run_values(twin.original, twin.values[0], twin.family, scenario)
        hour = 3600
        self.assertEqual(
            [(each.at, each.on) for each in shown],
            [(0, ("compressor",)), (4 * hour, ()), (5 * hour, ("compressor",)), (7 * hour, ("defrost",)),
             (7 * hour + 900, ("compressor",)), (8 * hour, ())],
        )  # fmt: skip
        # over a power loss one keeps what ran, the other does not
        proof = behaviour.prove(twin)
        assert proof.counter_case is not None
        self.assertEqual((proof.counter_case.changes, proof.counter_case.at), (3, 6 * hour))


class Reading(SimpleTestCase):
    def test_it_runs_while_a_signal_of_this_board_is_on(self) -> None:
        node = small_board(defroster(), "A")
        node["behaviour"]["clocks"][0]["runs_while"] = "a"
        board = profile.parse_board(encoded(node))
        with self.assertRaisesRegex(
            DocumentError, r"behaviour.clocks\[0\].runs_while: expected an output or internal signal"
        ):
            profile.check_board_in_family(board, profile.parse_family(encoded(small_family())))
