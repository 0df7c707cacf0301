"""Weighing suspects. Likelihoods of the demo world are invented; the rule is checked against published networks."""

import json
from itertools import product
from typing import Any

from django.test import SimpleTestCase

from tests.builders import encoded
from twincore.errors import DocumentError
from twincore.rule_out import BOARD, Done, Report, bayes, first_weights, next_tests, normalised, parse_rule_out, stand


def two_tests() -> dict[str, Any]:
    """Board or fuse, even odds; a fuse test and a supply reading."""
    return {
        "format": "worthy-twin/rule-out", "version": 1, "family": "f",
        "suspects": [{"id": "board", "title": "Board", "weight": 1, "source": "invented"},
                     {"id": "fuse", "title": "Fuse", "weight": 1, "source": "invented"}],
        "symptoms": [{"id": "dead", "title": "Dead", "likelihoods": {"fuse": 0.9}, "otherwise": 0.3}],
        "tests": [
            {"id": "fuse", "title": "Fuse", "minutes": 2, "risk": "dead", "how": ["look"], "expected": "whole", "source": "invented",
             "results": [{"id": "blown", "title": "Blown", "likelihoods": {"fuse": 0.8}, "otherwise": 0.1},
                         {"id": "whole", "title": "Whole", "rest": True}]},
            {"id": "volts", "title": "Supply", "minutes": 1, "risk": "live", "how": ["measure"], "expected": "230 V", "source": "invented",
             "reading": {"quantity": "voltage", "unit": "V", "uncertainty": 2, "band": {"from": 207, "to": 253}},
             "results": [{"id": "outside", "title": "Outside", "likelihoods": {"fuse": 0.5}, "otherwise": 0.25},
                         {"id": "inside", "title": "Inside", "rest": True}]},
            {"id": "probe", "title": "Probe", "minutes": 4, "risk": "dead", "how": ["measure"], "expected": "curve", "source": "invented",
             "reading": {"quantity": "resistance", "unit": "Ω", "uncertainty": 20, "curve": "ntc", "within": 0.02, "within_c": 1},
             "results": [{"id": "outside", "title": "Outside", "likelihoods": {"fuse": 0.4}, "otherwise": 0.2},
                         {"id": "inside", "title": "Inside", "rest": True}]}],
        "curves": [{"id": "ntc", "title": "NTC 10k", "kind": "beta", "r25_ohm": 10000, "beta_k": 3950, "source": "invented"}],
    }  # fmt: skip


class Weighing(SimpleTestCase):
    def setUp(self) -> None:
        self.data = parse_rule_out(encoded(two_tests()))

    def test_two_tests_worked_by_hand(self) -> None:
        # fuse blown: 0.5·0.8 : 0.5·0.1 = 8 : 1; then supply inside: 8·0.5 : 1·0.75, so fuse = 4 / 4.75
        after = stand(self.data, Report({}), [Done("fuse", "blown"), Done("volts", value=230)])
        self.assertAlmostEqual(after.weights["fuse"], 4 / 4.75)
        self.assertEqual([step.result for step in after.chain], ["blown", "inside"])
        self.assertAlmostEqual(after.chain[0].after["board"], 1 / 9)

    def test_what_cannot_be_told_counts_for_nothing(self) -> None:
        for done in (
            Done("fuse", "skipped"),
            Done("fuse", "not sure"),
            Done("volts", value=254),
            Done("fuse", "cannot do"),
        ):
            after = stand(self.data, Report({}), [done])
            self.assertEqual(after.weights, after.before)
            self.assertFalse(after.chain[0].counted)

    def test_symptoms_speak_both_ways(self) -> None:
        self.assertAlmostEqual(stand(self.data, Report({"dead": True}), []).weights["fuse"], 0.75)
        self.assertAlmostEqual(stand(self.data, Report({"dead": False}), []).weights["fuse"], 0.1 / 0.8)

    def test_a_reading_is_judged_against_the_curve_at_its_temperature(self) -> None:
        step = stand(self.data, Report({}), [Done("probe", value=10_050, at_c=25)]).chain[0]
        assert step.judgement
        self.assertEqual((step.result, step.judgement.verdict), ("inside", "inside"))
        self.assertEqual(stand(self.data, Report({}), [Done("probe", value=5_000, at_c=25)]).chain[0].result, "outside")
        # an open probe: the meter shows more than it can read
        self.assertEqual(
            stand(self.data, Report({}), [Done("probe", at_c=25, beyond="above")]).chain[0].result, "outside"
        )
        with self.assertRaises(ValueError):
            stand(self.data, Report({}), [Done("probe", value=5_000)])
        with self.assertRaises(ValueError):
            stand(self.data, Report({}), [Done("nothing", "yes")])

    def test_safe_tests_come_before_live_ones_whatever_they_tell(self) -> None:
        order = [each.test.id for each in next_tests(self.data, stand(self.data, Report({}), []), [])]
        self.assertEqual(order, ["fuse", "probe", "volts"])
        standing = stand(self.data, Report({}), [Done("fuse", "whole")])
        self.assertEqual([each.test.id for each in next_tests(self.data, standing, ["fuse", "probe"])], ["volts"])

    def test_ends(self) -> None:
        many = [Done("fuse", "whole")]
        document = two_tests()
        document["tests"][0]["results"][0]["likelihoods"]["fuse"] = 0.99
        document["tests"][0]["results"][0]["otherwise"] = 0
        data = parse_rule_out(encoded(document))
        self.assertEqual(stand(data, Report({}), many).conclusion, "condemned")
        self.assertEqual(stand(data, Report({}), [Done("fuse", "blown")]).conclusion, "cleared")
        self.assertEqual(stand(data, Report({}), []).conclusion, "open")

    def test_results_that_nothing_explains_are_said_to_clash(self) -> None:
        document = two_tests()
        for index in (0, 1):
            document["tests"][index]["results"][0] |= {"likelihoods": {"fuse": 1 - index}, "otherwise": index}
        data = parse_rule_out(encoded(document))
        after = stand(data, Report({}), [Done("fuse", "blown"), Done("volts", value=100)])
        self.assertTrue(after.contradictory)
        self.assertEqual(after.conclusion, "open")

    def test_schools(self) -> None:
        self.assertEqual(first_weights(self.data, Report({}))[BOARD], 0.5)
        code = Report({}, ("fuse",), "trust the code")
        self.assertAlmostEqual(first_weights(self.data, code)["fuse"], 5 / 6)
        often = Report({}, (), "how often it fails", (30, 0))
        self.assertAlmostEqual(first_weights(self.data, often)[BOARD], 35 / 40)
        self.assertEqual(first_weights(self.data, Report({}, ("fuse",)))[BOARD], 0.5)

    def test_faults_have_their_places(self) -> None:
        def broken(change: Any) -> str:
            document = json.loads(json.dumps(two_tests()))
            change(document)
            with self.assertRaises(DocumentError) as caught:
                parse_rule_out(encoded(document))
            return str(caught.exception)

        self.assertIn("suspects", broken(lambda d: d["suspects"].pop(0)))
        self.assertIn(
            "tests[0].results",
            broken(lambda d: d["tests"][0]["results"].append({"id": "x", "title": "X", "otherwise": 0.2})),
        )
        self.assertIn("tests[2].reading.curve", broken(lambda d: d["curves"].clear()))
        self.assertIn("likelihoods.nobody", broken(lambda d: d["symptoms"][0]["likelihoods"].update(nobody=0.1)))
        self.assertIn("tests[1].reading.band", broken(lambda d: d["tests"][1]["reading"]["band"].update({"from": 300})))


ASIA, SMOKE = 0.01, 0.5
TUB, LUNG, BRONC = {True: 0.05, False: 0.01}, {True: 0.1, False: 0.01}, {True: 0.6, False: 0.3}
XRAY = {True: 0.98, False: 0.05}
DYSP = {(True, True): 0.9, (True, False): 0.7, (False, True): 0.8, (False, False): 0.1}


class Asia(SimpleTestCase):
    """Lauritzen and Spiegelhalter, Local computations with probabilities on graphical structures, JRSS B 50, 1988."""

    def worlds(self, asia: bool | None) -> dict[str, float]:
        """Every combination of hidden causes as one suspect, weighed by the network."""
        found = {}
        for a, s, t, l, b in product((True, False), repeat=5):  # noqa: E741  # the article's letters
            if asia is not None and a != asia:
                continue
            p = (ASIA if a else 1 - ASIA) * SMOKE
            for is_so, chance in ((t, TUB[a]), (l, LUNG[s]), (b, BRONC[s])):
                p *= chance if is_so else 1 - chance
            found["".join("ty"[x] for x in (a, s, t, l, b))] = p
        return normalised(found)

    def share(self, weights: dict[str, float], place: int) -> float:
        return sum(weight for name, weight in weights.items() if name[place] == "y")

    def test_the_published_answers(self) -> None:
        either = {name: name[2] == "y" or name[3] == "y" for name in self.worlds(None)}
        xray = sum(weight * XRAY[either[name]] for name, weight in self.worlds(None).items())
        self.assertAlmostEqual(xray, 0.11029, places=5)
        dyspnoea = {name: DYSP[(either[name], name[4] == "y")] for name in self.worlds(True)}
        after = bayes(self.worlds(True), dyspnoea)
        for place, value in ((2, 0.08775), (3, 0.09953), (4, 0.81140)):
            self.assertAlmostEqual(self.share(after, place), value, places=5)
