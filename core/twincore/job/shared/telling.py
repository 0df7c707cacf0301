"""What the new board has to be told: what the old one remembered, what stands on the plate, what a learning run finds."""

import re
from collections.abc import Mapping
from typing import Any

from twincore.job.case import Case, new_board, original_of, remembered
from twincore.job.shared.facts import told_of_plate

NUMBER = re.compile(r"-?(0|[1-9][0-9]*)(\.[0-9]+)?")
"""A number as it is written; digits behind a leading zero are a code."""


def learns(case: Case) -> bool:
    """Whether the new board is to learn here: it can, and that school is followed for anything."""
    document = new_board(case).document
    followed = {case.state["school"], *case.state["decisions"].values()}
    return "learning" in document and "learning" in followed


def found_by_learning(case: Case) -> list[str]:
    """The elements whose positions a learning run finds on the machine: nobody plans them, and what is read is what holds."""
    if not learns(case):
        return []
    board = new_board(case)
    finds = board.document["learning"].get("finds", ())
    points = {point for name in finds if name in board.functions for point in board.functions[name].scope}
    return [each.id for each in board.elements if points & {point.id for point in each.points}]


def learned_positions(case: Case) -> dict[str, Any]:
    """How the elements stand that a learning run found, as they were read back: from then on that is the plan."""
    if case.replacement is None or case.state["learned"] is None:
        return {}
    read = case.state["readbacks"]
    return {name: read[name]["value"] for name in found_by_learning(case) if name in read}


def to_reenter(case: Case) -> list[Mapping[str, Any]]:
    """What the old board remembered, or the plate says, and the new one has to be told; counters of the past are not.

    Also what nobody could ask a dead board: whoever owns the machine is asked, or it is said that it stays open.
    """
    return [each for each in remembered(original_of(case)[1]) if not each.get("history")]


def wanted_of(case: Case, each: Mapping[str, Any]) -> str | None:
    """What is to be entered again: as the plate has it where the profile says so, else as the old board showed it; None where
    neither could be read.
    """
    return (told_of_plate(case, each["fact"]) if "fact" in each else None) or case.state["kept"].get(each["id"])


def entered_otherwise(case: Case) -> list[Mapping[str, Any]]:
    """What the new board shows otherwise than it is to be: "0712-44B" is not "0712-44A".

    Lists, what stands on the plate, numbers and codes are compared; what somebody told in words is not.
    """
    said = case.state["reentered"]
    found = []
    for each in to_reenter(case):
        wanted = wanted_of(case, each)
        if wanted is None:
            continue
        exact = each.get("rows") or "fact" in each or _is_code(wanted)
        if exact and each["id"] in said and not same_entry(said[each["id"]], wanted):
            found.append(each)
    return found


def _is_code(text: str) -> bool:
    """Whether a text is a number or a code: one word, with a digit in it."""
    return len(text.split()) == 1 and any(mark.isdigit() for mark in text)


def same_entry(shown: str, wanted: str) -> bool:
    """Whether two texts say the same: letter by letter but for spaces, or the same number. "0712" is a code and not 712."""
    one, other = (" ".join(text.replace(",", ".").split()) for text in (shown, wanted))
    if one == other:
        return True
    return all(NUMBER.fullmatch(each) for each in (one, other)) and float(one) == float(other)
