"""Rule-out data of a family: suspects, symptoms, tests with likelihoods, curves, causes; parsed and checked."""

from collections.abc import Mapping
from dataclasses import dataclass
from fractions import Fraction
from math import inf
from typing import Any

from twincore.measure import Band, Curve, beta_curve, platinum_curve, steinhart_hart_curve, table_curve
from twincore.profile.document import open_document
from twincore.profile.faults import FaultList, known

BOARD = "board"
"""The suspect that this product replaces; every family has it."""
READ_RESULTS = {"inside", "outside", "below", "above"}
BACK = "Everything back that it set, bridged and pulled."
"""How a test is put back of which only the data say what it does."""
RISKS = ("dead", "low voltage", "live")


@dataclass(frozen=True, slots=True)
class Suspect:
    """Something that may be the matter, with its weight before anything was looked at."""

    id: str
    title: str
    weight: float
    source: str


@dataclass(frozen=True, slots=True)
class Evidence:
    """Something that was seen, and how likely each suspect makes it."""

    id: str
    title: str
    likelihoods: Mapping[str, float]


@dataclass(frozen=True, slots=True)
class Expected:
    """What a test should read: a fixed band, or a curve at the temperature that is measured with it."""

    quantity: str
    unit: str
    uncertainty: float
    band: Band | None
    curve: str | None
    within: float
    within_c: float

    def band_at(self, curves: Mapping[str, Curve], at_c: float | None) -> Band:
        """The band to judge against. Raises ValueError where a temperature is needed and not there."""
        if self.band is not None:
            return self.band
        if at_c is None:
            raise ValueError("expected the temperature at the sensor in °C")
        assert self.curve is not None  # either a band or a curve, checked when the data was read
        return curves[self.curve].band_at(at_c, self.within_c, self.within)


@dataclass(frozen=True, slots=True)
class Test:
    """One test: what it costs and risks, how it is done, what it shows and what that speaks for."""

    id: str
    title: str
    minutes: float
    risk: str
    how: tuple[str, ...]
    expected: str
    undo: str
    as_found: str
    reading: Expected | None
    results: tuple[Evidence, ...]
    events: tuple[dict[str, Any], ...]
    source: str
    does: tuple[dict[str, Any], ...] = ()
    """What it sets, bridges, pulls, waits for and expects, as data: told for each board with its own points and pins."""


@dataclass(frozen=True, slots=True)
class Cause:
    """Why a board may have died; one that is still there blocks power to the new board."""

    id: str
    title: str
    blocks_power: bool
    clear: str


@dataclass(frozen=True, slots=True)
class Sign:
    """What an output that is late, early, missing or extra on the new board makes likely, suspect by suspect."""

    output: str
    what: tuple[str, ...]
    likelihoods: Mapping[str, float]


@dataclass(frozen=True, slots=True)
class RuleOut:
    """Everything that a family knows about finding out what is the matter."""

    family: str
    suspects: tuple[Suspect, ...]
    symptoms: tuple[Evidence, ...]
    tests: tuple[Test, ...]
    causes: tuple[Cause, ...]
    curves: Mapping[str, Curve]
    curve_titles: Mapping[str, str]
    condemn_at: float
    clear_at: float
    code_factor: float
    signs: tuple[Sign, ...] = ()

    def suspect_title(self, name: str) -> str:
        """A suspect's title by its id."""
        return next(each.title for each in self.suspects if each.id == name)

    def test(self, name: str) -> Test | None:
        """A test by its id, or None."""
        return next((each for each in self.tests if each.id == name), None)


def parse_rule_out(data: bytes) -> RuleOut:
    """Read a `worthy-twin/rule-out` document. Raises DocumentError with every fault and its place."""
    root = open_document(data, "rule-out").root
    faults = FaultList()
    suspects = tuple(Suspect(n["id"], n["title"], float(n["weight"]), n["source"]) for n in root["suspects"])
    names = [each.id for each in suspects]
    for key in ("suspects", "symptoms", "tests", "causes", "curves"):
        faults.unique([each["id"] for each in root.get(key, ())], f"{key}[{{}}].id", "name")
    if BOARD not in names:
        faults.add("suspects", f'expected one with the id "{BOARD}"')
    curves = {}
    for index, node in enumerate(root.get("curves", ())):
        try:
            curves[node["id"]] = _curve(node)
        except (KeyError, ValueError, ZeroDivisionError):
            faults.add(f"curves[{index}]", f"expected what a curve of kind {node['kind']} needs")
    symptoms = tuple(
        Evidence(n["id"], n["title"], _likelihoods(n, names, f"symptoms[{i}]", faults))
        for i, n in enumerate(root.get("symptoms", ()))
    )
    signs = tuple(
        Sign(n["output"], tuple(n["what"]), _likelihoods(n, names, f"signs[{i}]", faults))
        for i, n in enumerate(root.get("signs", ()))
    )
    tests = tuple(_test(n, names, curves, f"tests[{i}]", faults) for i, n in enumerate(root["tests"]))
    faults.done()
    threshold = root.get("threshold", {})
    return RuleOut(
        family=root["family"],
        suspects=suspects,
        symptoms=symptoms,
        tests=tests,
        causes=tuple(
            Cause(n["id"], n["title"], n.get("blocks_power", False), n.get("clear", "")) for n in root.get("causes", ())
        ),
        curves=curves,
        curve_titles={n["id"]: n["title"] for n in root.get("curves", ())},
        condemn_at=float(threshold.get("condemn", Fraction(9, 10))),
        clear_at=float(threshold.get("clear", Fraction(1, 50))),
        code_factor=float(root.get("code_factor", 5)),
        signs=signs,
    )


def _curve(node: dict[str, Any]) -> Curve:
    match node["kind"]:
        case "beta":
            return beta_curve(float(node["r25_ohm"]), float(node["beta_k"]))
        case "steinhart-hart":
            return steinhart_hart_curve(*(float(node["coefficients"][name]) for name in ("a", "b", "c")))
        case "platinum":
            return platinum_curve(float(node["r0_ohm"]))
    return table_curve([(float(t), float(ohm)) for t, ohm in node["table"]])


def _likelihoods(node: dict[str, Any], names: list[str], place: str, faults: FaultList) -> dict[str, float]:
    given = node.get("likelihoods", {})
    for name in given:
        if name not in names:
            faults.add(f"{place}.likelihoods.{name}", f"expected a suspect ({known(names)})")
    return {name: float(given.get(name, node["otherwise"])) for name in names}


def _test(node: dict[str, Any], names: list[str], curves: Mapping[str, Curve], place: str, faults: FaultList) -> Test:
    results = []
    left = dict.fromkeys(names, 1.0)
    for index, each in enumerate(node["results"]):
        at = f"{place}.results[{index}]"
        if each.get("rest"):
            if index + 1 < len(node["results"]):
                faults.add(f"{at}.rest", "expected only in the last result")
            likelihoods = {name: max(0.0, value) for name, value in left.items()}
        elif "otherwise" not in each:
            faults.add(at, 'expected "otherwise" (and "likelihoods"), or "rest"')
            continue
        else:
            likelihoods = _likelihoods(each, names, at, faults)
        for name in names:
            left[name] -= likelihoods[name]
        results.append(Evidence(each["id"], each["title"], likelihoods))
    if wrong := [name for name, rest in left.items() if abs(rest) > 1e-9]:
        faults.add(f"{place}.results", f"expected likelihoods that add up to 1 for {known(wrong)}")
    faults.unique([each["id"] for each in node["results"]], f"{place}.results[{{}}].id", "name")
    reading = _reading(node["reading"], curves, place, faults) if "reading" in node else None
    if reading and not {each.id for each in results} <= READ_RESULTS:
        faults.add(f"{place}.results", f"expected results called {', '.join(sorted(READ_RESULTS))}, for it is read")
    return Test(
        id=node["id"], title=node["title"], minutes=float(node["minutes"]), risk=node["risk"], how=tuple(node["how"]),
        expected=node["expected"], undo=node.get("undo", "") or (BACK if _changes(node) else ""), as_found=node.get("as_found", ""), reading=reading,
        results=tuple(results), events=tuple(node.get("events", ())), source=node["source"], does=tuple(node.get("does", ())),
    )  # fmt: skip


def _changes(node: dict[str, Any]) -> bool:
    """Whether a test changes anything on the machine that has to be put back."""
    return any(not {"set", "bridge", "unplug"}.isdisjoint(each) for each in node.get("does", ()))


def _reading(node: dict[str, Any], curves: Mapping[str, Curve], place: str, faults: FaultList) -> Expected:
    band, curve = node.get("band"), node.get("curve")
    if (band is None) == (curve is None):
        faults.add(f"{place}.reading", 'expected either "band" or "curve"')
    if curve is not None and curve not in curves:
        faults.add(f"{place}.reading.curve", f"expected a curve of this file ({known(curves)})")
    made = None
    if band is not None:
        low, high = (float(band[name]) if name in band else end for name, end in (("from", -inf), ("to", inf)))
        if low > high:
            faults.add(f"{place}.reading.band", 'expected "from" not above "to"')
        else:
            made = Band(low, high)
    return Expected(
        node["quantity"], node["unit"], float(node.get("uncertainty", 0)), made, curve,
        float(node.get("within", 0)), float(node.get("within_c", 0)),
    )  # fmt: skip
