"""What a certificate is about, by digest: the family, both boards, and how each of them stands."""

import json
from collections.abc import Mapping, Sequence
from fractions import Fraction
from hashlib import sha256
from typing import Any

from twincore.certificate.deciding import as_fraction

ABOUT = ("family", "original", "replacement", "original_settings", "replacement_settings")


def digests(
    family: Mapping[str, Any], boards: Sequence[Mapping[str, Any]], positions: Sequence[Mapping[str, Any]]
) -> dict[str, str]:
    """SHA-256 (FIPS 180-4) of each document, and of the positions as a record writes them."""
    return {name: digest(each) for name, each in zip(ABOUT, (family, *boards, *positions), strict=True)}


def digest(node: Any) -> str:
    """The digest of what a document says: UTF-8 JSON without spaces, keys in order, numbers in decimals without exponent."""
    return sha256(_written(node).encode("utf-8", "surrogatepass")).hexdigest()


def _written(node: Any) -> str:
    if isinstance(node, Mapping):
        return "{" + ",".join(f"{_written(str(key))}:{_written(node[key])}" for key in sorted(node)) + "}"
    if isinstance(node, list | tuple):
        return "[" + ",".join(map(_written, node)) + "]"
    if isinstance(node, int | float | Fraction) and not isinstance(node, bool):
        return _decimals(as_fraction(node))
    return json.dumps(node, ensure_ascii=False)


def _decimals(number: Fraction) -> str:
    """A number in decimals: 0.1, -2.5, 90."""
    if number.denominator == 1:
        return str(number.numerator)
    places = next(places for places in range(1, 400) if 10**places % number.denominator == 0)
    sign, digits = "-" if number < 0 else "", str(abs(number * 10**places).numerator).rjust(places + 1, "0")
    return f"{sign}{digits[:-places]}.{digits[-places:]}"
