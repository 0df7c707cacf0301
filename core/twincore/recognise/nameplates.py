"""Nameplates: a number coded place by place, decoded to facts; wrong characters pointed at."""

import re
from collections.abc import Callable, Iterable, Mapping
from dataclasses import dataclass
from typing import Any

from stdnum import luhn
from stdnum.iso7064 import mod_97_10

from twincore.profile.document import open_document
from twincore.profile.facts import missing_facts
from twincore.profile.faults import FaultList
from twincore.recognise.part_numbers import letters_and_digits, look_alike

CHECKS: dict[str, Callable[[str], bool]] = {"luhn": luhn.is_valid, "mod 97-10": mod_97_10.is_valid}
"""Check digits of serial numbers: Luhn (ISO/IEC 7812-1) and MOD 97-10 (ISO/IEC 7064), by a standard library."""


@dataclass(frozen=True, slots=True)
class Place:
    """One place of a plate's number: how many characters, and what they may be."""

    id: str
    title: str
    length: int
    codes: Mapping[str, dict[str, Any]]
    number: dict[str, Any] | None
    optional: bool


@dataclass(frozen=True, slots=True)
class Scheme:
    """How one maker codes the numbers of one series of machines."""

    id: str
    title: str
    maker: str
    family: str
    example: str
    places: tuple[Place, ...]
    rules: tuple[dict[str, Any], ...]
    serial: dict[str, Any] | None
    source: str


@dataclass(frozen=True, slots=True)
class PlaceRead:
    """What stands at a place: its text, its meaning, or what was expected there."""

    id: str
    title: str
    text: str
    ok: bool
    meaning: str
    expected: str
    perhaps: str = ""
    """A look-alike that would be right here."""


@dataclass(frozen=True, slots=True)
class PlateRead:
    """A plate decoded: its places in order, the facts they give, what the maker's rules add, and what is left over."""

    scheme: str
    places: tuple[PlaceRead, ...]
    facts: dict[str, Any]
    says: tuple[dict[str, Any], ...]
    left_over: str

    @property
    def ok(self) -> bool:
        """Whether every place is right and nothing is left over."""
        return all(each.ok for each in self.places) and not self.left_over


def parse_nameplates(data: bytes) -> tuple[Scheme, ...]:
    """Read a `worthy-twin/nameplates` document. Raises DocumentError with every fault and its place."""
    root = open_document(data, "nameplates").root
    faults = FaultList()
    faults.unique([each["id"] for each in root["schemes"]], "schemes[{}].id", "name")
    schemes = []
    for index, node in enumerate(root["schemes"]):
        places = tuple(
            _place(each, f"schemes[{index}].places[{number}]", faults) for number, each in enumerate(node["places"])
        )
        faults.unique([each.id for each in places], f"schemes[{index}].places[{{}}].id", "name")
        scheme = Scheme(
            id=node["id"], title=node["title"], maker=root["maker"], family=node["family"], example=node["example"],
            places=places, rules=tuple(node.get("rules", ())), serial=node.get("serial"), source=node["source"],
        )  # fmt: skip
        schemes.append(scheme)
        if not faults.faults and not read_plate(node["example"], scheme).ok:
            faults.add(f"schemes[{index}].example", "expected a number that this scheme decodes")
    faults.done()
    return tuple(schemes)


def _place(node: dict[str, Any], place: str, faults: FaultList) -> Place:
    codes: dict[str, dict[str, Any]] = node.get("codes", {})
    length = node["length"]
    if bool(codes) == ("number" in node):
        faults.add(place, 'expected either "codes" or "number"')
    for code in codes:
        if len(code) != length or letters_and_digits(code) != code:
            faults.add(f"{place}.codes.{code}", f"expected {length} capital letters or digits")
    return Place(node["id"], node["title"], length, codes, node.get("number"), node.get("optional", False))


def read_plate(text: str, scheme: Scheme) -> PlateRead:
    """Decode a number place by place; separators and case do not count."""
    rest = letters_and_digits(text)
    places: list[PlaceRead] = []
    facts: dict[str, Any] = {}
    for place in scheme.places:
        part = rest[: place.length]
        if place.optional and not part:
            continue
        read, given = _read_place(part, place)
        if place.optional and not read.ok and len(rest) < place.length:
            continue
        places.append(read)
        facts |= given
        rest = rest[place.length :]
    says = tuple(rule for rule in scheme.rules if missing_facts(rule["if"], facts) == ())
    for rule in says:
        facts |= rule.get("facts", {})
    return PlateRead(scheme.id, tuple(places), facts, says, rest)


def read_plates(text: str, schemes: Iterable[Scheme]) -> list[tuple[Scheme, PlateRead]]:
    """A number decoded by several schemes, the one that it agrees with best first."""
    read = [(scheme, read_plate(text, scheme)) for scheme in schemes]
    return sorted(
        read, key=lambda each: (not each[1].ok, -sum(p.ok for p in each[1].places), len(each[1].left_over), each[0].id)
    )


def _read_place(part: str, place: Place) -> tuple[PlaceRead, dict[str, Any]]:
    if place.number is not None:
        return _read_number(part, place, place.number)
    found = place.codes.get(part)
    if found is not None:
        return PlaceRead(place.id, place.title, part, True, found["means"], ""), dict(found.get("facts", {}))
    expected = "one of " + ", ".join(f"{code} ({each['means']})" for code, each in list(place.codes.items())[:12])
    perhaps = next((code for code in place.codes if _alike(part, code)), "")
    return PlaceRead(place.id, place.title, part, False, "", expected, perhaps), {}


def _alike(part: str, code: str) -> bool:
    return len(part) == len(code) and all(a == b or look_alike(a, b) for a, b in zip(part, code, strict=True))


def _read_number(part: str, place: Place, number: dict[str, Any]) -> tuple[PlaceRead, dict[str, Any]]:
    low, high = number.get("from", 0), number.get("to", 10**place.length - 1)
    expected = f"{place.length} digits from {low} to {high}"
    if not re.fullmatch(rf"[0-9]{{{place.length}}}", part) or not low <= int(part) <= high:
        digits = "".join(c if c.isdigit() else next((d for d in "0123456789" if look_alike(d, c)), c) for c in part)
        perhaps = digits if digits != part and digits.isdigit() and low <= int(digits) <= high else ""
        return PlaceRead(place.id, place.title, part, False, "", expected, perhaps), {}
    value = int(part) + number.get("add", 0)
    unit = f" {number['unit']}" if "unit" in number else ""
    facts = {number["fact"]: value} if "fact" in number else {}
    return PlaceRead(place.id, place.title, part, True, f"{value}{unit}", ""), facts


@dataclass(frozen=True, slots=True)
class SerialRead:
    """A serial number in its groups, to be read back before it is saved; `expected` says what is wrong with it."""

    groups: tuple[str, ...]
    ok: bool
    expected: str


def read_serial(text: str, scheme: Scheme | None) -> SerialRead:
    """Check a serial number by its maker's rule and part it into groups; without a rule, into groups of four."""
    plain = letters_and_digits(text)
    rule = scheme.serial if scheme else None
    if rule is None:
        return SerialRead(tuple(plain[i : i + 4] for i in range(0, len(plain), 4)), bool(plain), "")
    lengths: list[int] = rule["groups"]
    groups, at = [], 0
    for length in lengths:
        groups.append(plain[at : at + length])
        at += length
    if plain[at:]:
        groups.append(plain[at:])
    expected = ""
    if len(plain) != sum(lengths):
        expected = f"{sum(lengths)} characters in groups of {', '.join(map(str, lengths))}; found {len(plain)}"
    elif not all(c.isdigit() for c in plain) and rule.get("digits_only", True):
        wrong = next(c for c in plain if not c.isdigit())
        expected = f"digits only; found {wrong} at place {plain.index(wrong) + 1}"
    elif "check" in rule and not CHECKS[rule["check"]](plain):
        expected = f"a number whose check digits agree ({rule['check']}); read it once more"
    return SerialRead(tuple(each for each in groups if each), not expected, expected)
