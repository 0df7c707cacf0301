"""Reasons and questions of the fit, in words made from their data."""

from collections.abc import Mapping
from typing import Any

from twincore.choose import Question, Reason, Statement
from twincore.profile import Family
from twinshown.comparison import wording

RELATIONS = {
    "same": "the same board under another number", "supersedes": "its successor", "universal": "a universal board for it",
    "kit": "a kit for it", "exchange": "exchange", "repair": "repair", "donor": "a good board out of another machine",
}  # fmt: skip


SIDES = {"left": "to the left", "right": "to the right", "top": "upwards", "bottom": "downwards", "height": "in height"}


TWIN = {
    "identical": "No series of input changes makes the two differ",
    "within tolerance": "The two differ only by times within tolerance",
    "different": "A series of input changes tells the two apart",
    "open": "Positions that are not read leave the behaviour open",
    "not proved": "The behaviour of one is not written down, or the search met its limit",
    "not run": "The twin check has not been run for this one yet",
}


class FitWords:
    """Words for one job's matrix: knows the family's titles and the statements that are named."""

    def __init__(self, family: Family, statements: Mapping[str, Statement]) -> None:
        self.family, self.statements = family, statements
        self.facts = {each["id"]: each for each in family.document.get("facts", ())}

    def reason(self, reason: Reason) -> str:
        """One reason in one sentence."""
        words = WORDS.get(reason.code)
        return words(self, reason.data) if words else TWIN.get(reason.code, reason.code)

    def question(self, question: Question) -> str:
        """What to find out on the machine, and what would have to be true."""
        return f"{self.fact(question.fact)}: {self.condition(question.wanted, question.unit)}"

    def fact(self, name: str) -> str:
        """A fact's title."""
        if name in self.facts:
            return str(self.facts[name]["title"])
        if name in PLACE:
            return PLACE[name]
        kind, _, rest = name.partition(".")
        if kind == "attached":
            return f"Is {rest} in the machine as well"
        if kind == "uses":
            return f"Is a device on “{self.signal(rest)}”"
        if kind == "load":
            signal, _, what = rest.rpartition(".")
            return f"{'Current' if what == 'amps' else 'Kind of load'} of “{self.signal(signal)}”"
        if kind == "room":
            return f"Room {SIDES[rest.removesuffix('_mm')]}"
        return plain_name(name)

    def condition(self, wanted: Any, unit: str = "") -> str:
        """A condition in words: "198 to 253 V", "at most 5 A", "gas or oil", "no"."""
        if isinstance(wanted, dict):
            low, high = (_number(wanted[end]) if end in wanted else None for end in ("from", "to"))
            words = f"{low} to {high}" if low and high else f"at least {low}" if low else f"at most {high}"
            return f"{words} {unit}".rstrip()
        if isinstance(wanted, list | tuple):
            return " or ".join(self.condition(each) for each in wanted)
        return f"{_plain(wanted)} {unit}".rstrip()

    def signal(self, name: str) -> str:
        """A signal's title."""
        return self.family.titles.get(name, name)

    def facts_named(self, names: list[str]) -> str:
        """Several facts' titles."""
        return ", ".join(self.fact(name) for name in names)

    def statement(self, code: str) -> str:
        """A statement with its source and counts."""
        found = self.statements.get(code)
        if found is None:
            return code
        told = found.source or "no source"
        tried = f", worked {found.worked}, did not {found.failed}" if found.worked or found.failed else ""
        words = f" (“{found.words}”)" if found.words else ""
        return f"{told}{tried}{words}"

    def function(self, name: str, got: Any = None) -> str:
        """A function's title, with a value."""
        definition = self.family.function(name)
        if definition is None:
            return name
        return definition.title if got is None else f"{definition.title} {wording.value_words(got, definition)}"


def plain_name(name: str) -> str:
    """A fact of which nobody wrote a title, as a person reads it: "plug.kind" is "Plug kind"."""
    words = name.replace(".", " ").replace("_", " ").strip()
    return f"{words[:1].upper()}{words[1:]}"


def _number(value: Any) -> str:
    return f"{float(value):g}"


def _plain(value: Any) -> str:
    if isinstance(value, bool):
        return "yes" if value else "no"
    return value if isinstance(value, str) else _number(value)


def _listed(w: FitWords, d: dict[str, Any]) -> str:
    told = "; ".join(w.statement(code) for code in d["statements"])
    links = f", over {d['links']} statements" if d["links"] > 1 else ""
    return f"Listed as {RELATIONS[d['relation']]}{links}: {told}"


def _mounted(w: FitWords, d: dict[str, Any]) -> str:
    turn = f", turned {d['turn']}° anticlockwise" if d["turn"] else ""
    return f"{d['serve']} hole{'s' if d['serve'] != 1 else ''} serve{'s' if d['serve'] == 1 else ''}{turn}"


def _contact(w: FitWords, d: dict[str, Any]) -> str:
    needed = f"{d['needed']:g} A" if d["needed"] is not None else "not known"
    allowed = f"{d['allowed']:g} A" if d["allowed"] is not None else "not known"
    told = "measured" if d["measured"] else "rating of the original"
    return f"{w.signal(d['signal'])}, {d['kind']}: {needed} ({told}), contact takes {allowed}"


def _pinning(w: FitWords, d: dict[str, Any]) -> str:
    pins = "; ".join(
        f"pin {p['pin']}: {w.signal(p['original'])} there, {w.signal(p['replacement']) if p['replacement'] else 'nothing'} here"
        for p in d["pins"]
    )
    return f"The same plug {d['connector']} has other pinning: {pins}. It must not simply go on"


def _stock(w: FitWords, d: dict[str, Any]) -> str:
    place = "on the van" if d.get("on_van") else f"{d['stock']} in stock"
    return f"{place}, {d['price']:.2f}"


STANDS = {"temperature_c": ("Heat", "°C"), "humidity_percent": ("Humidity", "%"), "altitude_m": ("Altitude", "m")}
PLACE = {
    "surroundings.coldest_c": "Coldest at the board", "surroundings.hottest_c": "Hottest at the board",
    "surroundings.humidity_percent": "Humidity at the board", "surroundings.altitude_m": "Altitude of the place",
}  # fmt: skip


def _stands(d: dict[str, Any], key: str = "band") -> str:
    low, high = d[key]
    return f"{low:g} to {high:g} {STANDS[d['what']][1]}"


WORDS: dict[str, Any] = {
    "surroundings not said": lambda w, d: "Neither board says what heat, humidity or altitude it stands",
    "surroundings unknown": lambda w, d: (
        f"{STANDS[d['what']][0]}: the original stood {_stands(d, 'original')}, of this one nothing is known"
    ),
    "surroundings covered": lambda w, d: f"{STANDS[d['what']][0]}: it stands {_stands(d)}, all that the original stood",
    "surroundings measured": lambda w, d: f"{PLACE[d['fact']]} {d['value']:g}, it stands {_stands(d)}",
    "surroundings refused": lambda w, d: f"{PLACE[d['fact']]} {d['value']:g}, it stands only {_stands(d)}",
    "surroundings to measure": lambda w, d: f"It stands {_stands(d)}; {PLACE[d['fact']].lower()} is not known",
    "same number": lambda w, d: "The same number again; look at its revision and firmware",
    "not listed": lambda w, d: "Nobody lists this board for the original",
    "listed elsewhere": lambda w, d: (
        f"Listed, but not for this machine: {w.statement(d['statement'])}; "
        + "; ".join(
            f"{w.fact(each['fact']).lower()} is {_plain(each['value'])}, it must be {w.condition(each['wanted'])}"
            for each in d["failed"]
        )
    ),
    "adapter lead": lambda w, d: f"Plug {d['connector']} goes on through the lead “{d['lead']}”",
    "not exchangeable": lambda w, d: f"Not exchangeable: {w.statement(d['statement'])}",
    "not exchangeable if": lambda w, d: (
        f"Perhaps not exchangeable, it hangs on {w.facts_named(d['facts'])}: {w.statement(d['statement'])}"
    ),
    "listed": _listed,
    "listed if": lambda w, d: f"{_listed(w, d)}; it hangs on {w.facts_named(d['facts'])}",
    "takes another's place as well": lambda w, d: f"Takes the place of {d['other']} as well: both come out",
    "no source": lambda w, d: "A statement on the way has no source",
    "needs": lambda w, d: f"Needs: {d['what']}",
    "supply unknown": lambda w, d: "Its profile does not say what supply it takes",
    "volts measured": lambda w, d: f"{d['volts']:g} V measured, it takes {d['band'][0]:g} to {d['band'][1]:g} V",
    "volts to measure": lambda w, d: f"It takes {d['band'][0]:g} to {d['band'][1]:g} V; the supply is not known",
    "volts covered": lambda w, d: f"It takes {d['band'][0]:g} to {d['band'][1]:g} V, all that the original took",
    "volts apart": lambda w, d: (
        f"It takes {d['band'][0]:g} to {d['band'][1]:g} V, the original {d['original'][0]:g} to {d['original'][1]:g} V"
    ),
    "volts overlap": lambda w, d: (
        f"It takes {d['band'][0]:g} to {d['band'][1]:g} V, the original {d['original'][0]:g} to {d['original'][1]:g} V"
    ),
    "hertz differ": lambda w, d: "Made for another frequency",
    "phases differ": lambda w, d: "Made for another number of phases",
    "fact unknown": lambda w, d: f"Accepts {w.fact(d['fact'])} {w.condition(d['wanted'])}; not known of this machine",
    "fact accepted": lambda w, d: f"{w.fact(d['fact'])} {_plain(d['value'])} is accepted",
    "fact refused": lambda w, d: f"{w.fact(d['fact'])} is {_plain(d['value'])}, it accepts {w.condition(d['wanted'])}",
    "nothing asked": lambda w, d: "Its maker asks nothing of the machine",
    "contacts unknown": lambda w, d: "What the original's contacts switch is not in its profile",
    "contact unknown": _contact,
    "contact of another kind": lambda w, d: (
        f"{_contact(w, d)}, but of another kind of load: look up its rating for {d['kind']}"
    ),
    "contact carries": _contact,
    "contact too small": _contact,
    "contact smaller": _contact,
    "nothing switched": lambda w, d: "Nothing is switched that both have",
    "pins unknown": lambda w, d: f"The pins of {d['board']} are not in its profile",
    "signal perhaps used": lambda w, d: f"It has no “{w.signal(d['signal'])}”; not every machine has a device there",
    "signal missing": lambda w, d: f"It has no “{w.signal(d['signal'])}”",
    "signals there": lambda w, d: f"All {d['count']} signals of the original are there",
    "plug fits": lambda w, d: f"Plug {d['connector']} ({d['style']}) goes on {d['to']} as it is",
    "other pinning": _pinning,
    "single wires": lambda w, d: f"Plug {d['connector']} has no place: {d['count']} single wires",
    "nothing plugged": lambda w, d: "Nothing is plugged",
    "outline unknown": lambda w, d: f"The outline of {d['board']} is not in its profile",
    "holes to drill": lambda w, d: f"{_mounted(w, d)}, {d['new']} new to drill",
    "holes serve": _mounted,
    "reaches beyond": lambda w, d: f"Reaches {d['over_mm']:g} mm farther {SIDES[d['side']]}",
    "room there": lambda w, d: f"{d['over_mm']:g} mm more {SIDES[d['side']]}: there is room",
    "no room": lambda w, d: f"No room for {d['over_mm']:g} mm more {SIDES[d['side']]}",
    "settings unknown": lambda w, d: "Carry-over has not been run, or what its positions mean is not written down",
    "no position": lambda w, d: "Every choice of positions is reserved",
    "function off": lambda w, d: (
        f"Cannot be met: {w.function(d['function'])}" + (" (safety)" if d["importance"] == "safety" else "")
    ),
    "functions open": lambda w, d: f"Open: {', '.join(w.function(name) for name in d['functions'])}",
    "functions met": lambda w, d: f"Every function can be set, {d['moved']} positions moved from factory",
    "part moves": lambda w, d: f"Moves across: {d['what']}" + (f" ({d['caution']})" if d["caution"] else ""),
    "kit part": lambda w, d: f"In the kit: {d['count']} × {d['item']}",
    "kit part perhaps": lambda w, d: f"In the kit, needed or not by {w.facts_named(d['facts'])}: {d['item']}",
    "kit part not needed": lambda w, d: f"In the kit, not needed here: {d['item']}",
    "companion changes": lambda w, d: f"Change along with it: {d['item']}",
    "companion stays": lambda w, d: f"Companion that stays by the depot's policy: {d['item']}",
    "nothing moves": lambda w, d: "Nothing has to move across",
    "discontinued": lambda w, d: "No longer made; the parts desk was not asked yet",
    "not asked": lambda w, d: "The parts desk was not asked yet",
    "desk does not know it": lambda w, d: "The parts desk does not know this number",
    "in stock": _stock,
    "cannot be had": lambda w, d: "The parts desk cannot get it",
    "to be ordered": lambda w, d: f"{d['days']:g} days, {d['price']:.2f}",
}
