"""How the board that was chosen was listed when it was chosen, in words: for the sheet, long after the list has changed."""

from collections.abc import Mapping
from typing import Any

from twincore.job.case import Case
from twincore.job.shared.facts import fact_values
from twincore.job.targets.choose import ListedKept
from twincore.profile.facts import fact_agrees
from twinshown.words.fit import RELATIONS, FitWords


def listed_words(case: Case) -> str:
    """What the cross-references said of the board chosen, and which of their conditions this machine, as far as it is known by now,
    does not meet; empty where nothing was kept of it, or the old board's own number goes in again.
    """
    choice, number = case.state["choice"], case.state["replacement"]
    if choice is None or number is None or number == case.state["original"] or case.family is None:
        return ""
    stood = next((each for each in choice["alternatives"] if each["part_number"] == number), None)
    if stood is None or "listed" not in stood:
        return ""
    listed = stood["listed"]
    if listed is None:
        return f"No cross-reference lists {number} for the old board"
    return _told(listed, fact_values(case), FitWords(case.family, {}))


def _told(listed: ListedKept, facts: Mapping[str, Any], words: FitWords) -> str:
    sources = "; ".join(listed["sources"])
    if listed["relation"]:
        told = [f"Cross-reference: {RELATIONS[listed['relation']]} ({sources})"]
    else:
        told = [f"The cross-references list it for other machines only ({sources})"]
    for fact, wanted in listed["conditions"]:
        title = words.fact(fact).lower()
        if fact not in facts:
            told.append(f"condition not checked: {title} must be {words.condition(wanted)}")
        elif not fact_agrees(facts[fact], wanted):
            told.append(
                f"condition not met: {title} must be {words.condition(wanted)}, here {words.condition(facts[fact])}"
            )
    return "; ".join(told)
