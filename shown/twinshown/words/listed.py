"""How the board that was chosen was listed when it was chosen, in words: for the sheet, long after the list has changed."""

from twincore.job.case import Case
from twincore.job.targets.choose import ListedKept
from twinshown.words.fit import FitWords

MADE_OF = {
    "supersedes": "supersedes the old board", "same": "the same board under another number", "universal": "universal replacement",
    "kit": "kit", "exchange": "exchange unit", "repair": "repaired board", "donor": "donor board out of another machine",
}  # fmt: skip


def listed_words(case: Case) -> str:
    """What the cross-references said of the board chosen, and which of their conditions this machine does not meet; empty where
    nothing was kept of it, or the old board's own number goes in again.
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
    return _told(listed, FitWords(case.family, {}))


def _told(listed: ListedKept, words: FitWords) -> str:
    sources = "; ".join(listed["sources"])
    if listed["relation"]:
        told = [f"Cross-reference: {MADE_OF.get(listed['relation'], listed['relation'])} ({sources})"]
    else:
        told = [f"The cross-references list it for other machines only ({sources})"]
    for each in listed["failed"]:
        told.append(
            f"condition not met: {words.fact(each['fact']).lower()} must be {words.condition(each['wanted'])}, here "
            f"{words.condition(each['value'])}"
        )
    if listed["unknown"]:
        told.append(f"condition not checked: {words.facts_named(listed['unknown']).lower()}")
    return "; ".join(told)
