"""Failures until the next filling, and how many of them so many pieces put right.

Failures of many machines, each rarely, come as a Poisson process (common practice of spare parts, as in C. C. Sherbrooke,
Optimal Inventory Modeling of Systems, chapter 2); of `count` pieces each puts one right.
"""

from math import exp


def expected_served(count: int, failures: float) -> float:
    """The expected number of failures that `count` pieces put right, of a Poisson number with this mean."""
    # E[min(D, n)] is the sum of P(D >= r) for r from 1 to n
    chance = upto = exp(-failures)
    served = 0.0
    for r in range(1, count + 1):
        served += 1 - upto
        chance *= failures / r
        upto += chance
    return served


def slope(count: int, failures: float) -> float:
    """By how much one more expected failure raises that: the chance that a piece is left, P(D < n)."""
    chance, below = exp(-failures), 0.0
    for r in range(count):
        below += chance
        chance *= failures / (r + 1)
    return below
