"""Exact values: what a function or a point can be."""

import re
from fractions import Fraction
from typing import Any, TypeAlias, TypeGuard

Number: TypeAlias = int | Fraction
Value: TypeAlias = int | Fraction | str | bool

LARGEST = 10**9
FINEST_DECIMALS = 9
PLAIN = re.compile(r"-?[0-9]{1,9}\.[0-9]{1,9}", re.ASCII)
"""How most numbers that are not whole are written."""


def exact(text: str) -> Number:
    """The number that a JSON text writes, exactly; an int where it is whole.

    Raises ValueError for numbers beyond ±1e9, with more than nine decimals, or absurdly long.
    """
    if len(text) <= 9 and text.isascii() and text.isdigit():
        return int(text)  # most numbers are such; a fraction costs ten times as much
    if len(text) <= 18 and PLAIN.fullmatch(text):
        whole, _, decimals = text.partition(".")
        return tidy(Fraction(int(whole + decimals), 10 ** len(decimals)))
    if len(text) > 40:
        raise ValueError("a number of at most 40 characters")
    mantissa, _, exponent = text.lower().partition("e")
    if exponent and abs(int(exponent)) > 20:
        raise ValueError("a number between -1e9 and 1e9")
    number = Fraction(mantissa) * Fraction(10) ** int(exponent or 0)
    if abs(number) > LARGEST:
        raise ValueError("a number between -1e9 and 1e9")
    if (number * 10**FINEST_DECIMALS).denominator != 1:
        raise ValueError(f"a number with at most {FINEST_DECIMALS} decimals")
    return tidy(number)


def stands(value: bool | Number | float) -> str:
    """How an input stands, in a word: on, off, or the value of a level."""
    return ("on" if value else "off") if isinstance(value, bool) else f"{float(value):g}"


def tidy(number: Number) -> Number:
    """The same number, as an int where it is whole."""
    return number.numerator if number.denominator == 1 else number


def is_number(value: Any) -> TypeGuard[Number]:
    """Whether a parsed JSON value is a number (true and false are not)."""
    return isinstance(value, int | Fraction) and not isinstance(value, bool)


def as_number(value: Any) -> Number:
    """A value of a function whose values are numbers, as one."""
    assert is_number(value)  # checked when the board was fitted into its family
    return value


def same(one: Any, other: Any) -> bool:
    """Whether two values are equal, telling true from 1."""
    return isinstance(one, bool) == isinstance(other, bool) and bool(one == other)


def plain(node: Any) -> Any:
    """The same JSON value with every exact fraction as a float, for printing and for schema checks."""
    if isinstance(node, Fraction):
        return float(node)
    if isinstance(node, dict):
        return {key: plain(value) for key, value in node.items()}
    if isinstance(node, list | tuple):
        return [plain(value) for value in node]
    return node
