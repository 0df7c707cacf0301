"""Differences and counter-cases in words, made from the data that the core answers with."""

from collections.abc import Iterable, Mapping
from fractions import Fraction

from twincore.behaviour import CounterCase, Endless, Proof
from twincore.carry_over import School, Word
from twincore.profile import Board, Family, FunctionDef, Number, Step, Value, weakest_worth
from twincore.profile.times import time_words
from twincore.profile.values import as_number
from twincore.settings import ByLearning, ByTable, CarriedFunction, Decoded

WORDS: dict[Word, str] = {
    "found": "as found", "owner": "the owner", "functions": "by its functions", "table": "the maker’s table",
    "positions": "copied 1:1", "learning": "self-learning",
}  # fmt: skip
"""By whose word something is wanted."""


def number(value: Number) -> str:
    """A number as people write it."""
    return f"{float(value):.10g}"


def position_words(value: Value | None) -> str:
    """How a point stands."""
    return "?" if value is None else value if isinstance(value, str) else number(value)


def value_words(value: Value | None, definition: FunctionDef) -> str:
    """A value with its unit: "90 s", "manual", "yes"."""
    if value is None:
        return "not there"
    if isinstance(value, bool):
        return "yes" if value else "no"
    if isinstance(value, str):
        return value
    return f"{number(value)} {definition.unit}".rstrip()


def decoded_words(decoded: Decoded, definition: FunctionDef) -> str:
    """What a function stands at, unreadable and reserved positions included."""
    if decoded.decided:
        return value_words(decoded.values[0], definition)
    if not decoded.values:
        return "reserved: these positions mean nothing"
    either = " or ".join(value_words(value, definition) for value in decoded.values[:6])
    more = " …" if len(decoded.values) > 6 else ""
    return either + more + (" (or reserved)" if decoded.reserved else "")


def difference_words(row: CarriedFunction, definition: FunctionDef) -> str:
    """How the replacement differs from what is wanted: "60 s shorter"; empty where it does not."""
    if row.verdict in ("same", "does not matter"):
        return ""
    if row.verdict == "not on this board":
        return "not on this board"
    if row.verdict == "open" or not row.wanted.decided:
        if row.got is None or not row.wanted.values:
            return "open"
        still = "one of what is still possible" if row.possible else "none of what is still possible"
        return f"would be {value_words(row.got, definition)}, {still}"
    wanted, got = row.wanted.values[0], row.got
    if not definition.numeric or got is None:
        return f"{value_words(got, definition)} instead of {value_words(wanted, definition)}"
    gap = Fraction(as_number(got) - as_number(wanted))
    longer, shorter = {"duration": ("longer", "shorter"), "count": ("more", "fewer")}.get(
        definition.type, ("more", "less")
    )
    return f"{number(abs(gap))} {definition.unit}".rstrip() + f" {longer if gap > 0 else shorter}"


def tolerance_words(definition: FunctionDef) -> str:
    """What is allowed, in words; empty where only the same value is."""
    if not definition.numeric or not (definition.below or definition.above):
        return ""
    return f"allowed: {number(definition.below)} below to {number(definition.above)} above".replace(
        "0 below to ", "up to "
    )


def step_words(steps: Iterable[Step], family: Family) -> list[str]:
    """Input changes as a person at the machine would see them: "At 30 s: Supply on ends, then begins again."."""
    lines: dict[str, list[str]] = {}
    last = ""
    for step in steps:
        for name, value in step.set:
            line = lines.setdefault(f"At {time_words(step.at)}", [])
            change = change_words(name, value, family)
            if line and name == last:
                line.append(f"{change} again" if isinstance(value, bool) else change)
            else:
                line.append(f"{family.titles[name]} {change}")
            last = name
    return [f"{at}: {', then '.join(changes)}." for at, changes in lines.items()]


def change_words(name: str, value: bool | Number | float, family: Family) -> str:
    """What an input does: it begins, it ends, or, a level, it goes to a value."""
    level = family.inputs[name]
    if level is None:
        return "begins" if value else "ends"
    return f"goes to {float(value):g} {level.unit}".rstrip()


def shown_words(names: Iterable[str], family: Family) -> str:
    """Outputs that are on, in words."""
    return ", ".join(family.titles[name] for name in names) or "nothing on"


def _between(case: CounterCase, family: Family) -> str:
    """Where the levels that were changed stand as the boards part."""
    changed = {name for step in case.steps for name, _ in step.set}
    bands = [
        f"{family.titles[name]} between {float(low):g} and {float(high):g} {level.unit}".rstrip()
        for name, low, high in case.between
        if name in changed and (level := family.inputs[name]) is not None
    ]
    return f", with {' and '.join(bands)}," if bands else ""


def counter_case_words(case: CounterCase, family: Family, original: Board, replacement: Board) -> list[str]:
    """A counter-case told step by step, ending with what each board then shows and what it is doing."""
    return [
        *step_words(case.steps, family),
        f"At {time_words(case.at)}{_between(case, family)} the original shows: {shown_words(case.original, family)}"
        f"{_doing(original, case.original_states)}.",
        f"The replacement shows: {shown_words(case.replacement, family)}{_doing(replacement, case.replacement_states)}.",
    ]


def _doing(board: Board, states: tuple[str, ...]) -> str:
    titles = board.behaviour.state_titles(states) if board.behaviour else []
    return f" ({', '.join(titles)})" if titles else ""


RESTS_ON = {
    "sketched": " As far as a sketch tells.",
    "drawn": " As far as a sketch tells.",
    "usual": " As is usual for this kind of machine: nobody has timed these boards.",
    "leaflet": " By a leaflet’s word: nobody has timed these boards.",
}


def rests_on(boards: Iterable[Board]) -> str:
    """What a verdict on boards rests on, by the weakest of what they mean and how they behave; empty where that was measured or nobody said."""
    weakest = weakest_worth([each.document for each in boards], ("functions", "behaviour"))
    return RESTS_ON.get(weakest or "", "")


def apart_words(wishes: Iterable[str], assumed: Iterable[str]) -> str:
    """What a verdict leaves out of account: functions that the owner wants otherwise, and positions that were not read."""
    wished, not_read = ", ".join(wishes), ", ".join(assumed)
    told = [f" Compared apart from what the owner wants otherwise: {wished.lower()}."] if wished else []
    told += [f" This holds only if the old board was set as assumed: {not_read} could not be read."] if not_read else []
    return "".join(told)


def verdict_words(proof: Proof, family: Family, boards: Iterable[Board] = ()) -> str:
    """The verdict in a sentence; of `boards`, what it rests on."""
    match proof.verdict:
        case "identical":
            return f"In register: no series of input changes makes the two show anything different.{rests_on(boards)}"
        case "within tolerance":
            return f"In register within tolerance: the two differ only by the offsets below.{rests_on(boards)}"
        case "different" if proof.counter_case:
            least = f"any difference needs at least {proof.least}" if proof.least > 1 else "perhaps not the fewest"
            fewest = "the fewest possible" if proof.counter_case.fewest else least
            changes = proof.counter_case.changes
            what = (
                f"{changes} input change{'s' if changes != 1 else ''} ({fewest})"
                if changes
                else "no input change at all"
            )
            return f"Off register: {what} and the two show something different."
        case "open":
            names = ", ".join(family.titles[name] for name in proof.functions)
            return f"Open: positions that could not be read, or mean nothing, leave undecided: {names}."
    if proof.missing:
        return f"Not proved: nobody has written down how {' and '.join(proof.missing)} behaves."
    if proof.covered:
        return (
            "Not proved: a clock that stops and goes on was followed more widely than it runs, and there the two part; no exact "
            "run was found that shows it."
        )
    if proof.endless and proof.limit is None:
        return "Not proved: no difference was found, but nothing is known past where a board goes round without end."
    return (
        f"Not proved: the search ended at its limit after {proof.explored:,} pairs of situations without a difference."
        + (f" A difference needs at least {proof.least} input changes." if proof.least > 1 else "")
    )


def endless_words(endless: Endless, family: Family, board: Board) -> list[str]:
    """Where a board goes round without end, and how it gets there, told step by step."""
    titles = board.behaviour.titles_of(endless.states) if board.behaviour else list(endless.states)
    return [
        *step_words(endless.steps, family),
        f"Then {endless.board} goes round without end: {', '.join(titles)}, and again. Its profile is wrong there, or these "
        "inputs cannot come together.",
    ]


def school_words(school: School, family: Family) -> list[str]:
    """What a school rests on, and what would decide where it says nothing."""
    match school.id:
        case "table" if school.table is not None:
            return _table_words(
                school.table, {each["id"]: str(each["title"]) for each in family.document.get("facts", ())}
            )
        case "positions":
            missing = ", ".join(school.without_place)
            return [f"No place for: {missing}."] if missing else []
        case "learning" if school.learning is None:
            return ["This board does not learn."]
        case "learning" if school.learning is not None:
            return _learning_words(school.learning, family)
    return [] if school.record else ["Every choice on this board is reserved."]


def _table_words(table: ByTable, facts: Mapping[str, str]) -> list[str]:
    rows = [f"Table {row.chart}, row {row.row + 1} holds." for row in table.holding]
    if table.clash:
        return [*rows, f"These rows contradict each other at {', '.join(table.clash)}."]
    if not rows and not table.possible:
        return ["No row of a leaflet's table holds for this machine."]
    if table.possible:
        count = len(table.possible)
        rows.append(
            f"{count} more row{'s' if count != 1 else ''} could hold. This would decide: "
            f"{', '.join(facts.get(name, name).lower() for name in table.missing)}."
        )
    return rows


def _learning_words(learning: ByLearning, family: Family) -> list[str]:
    words = []
    if learning.document.get("told_by"):
        words.append(str(learning.document["told_by"]))
    if learning.knows:
        words.append(f"Sets by itself: {', '.join(learning.knows)}.")
    else:
        words.append("It does not know this board.")
    if learning.finds:
        words.append(f"Finds in a learning run: {', '.join(family.titles[name] for name in learning.finds)}.")
    if needs := learning.document.get("needs"):
        words.append(f"Before the run: {', '.join(needs).lower()}.")
    if learning.document.get("can_be_stopped") is False:
        words.append("Once begun it cannot be stopped.")
    if learning.by_hand:
        words.append(f"Left for the hand: {', '.join(learning.by_hand)}.")
    return words
