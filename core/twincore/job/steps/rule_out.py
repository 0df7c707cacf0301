"""Rule out: the family's data against what this job's people said and tested."""

from collections.abc import Mapping, Sequence
from typing import Any

from twincore import rule_out
from twincore.errors import Refusal, WrongValue
from twincore.job.case import Case
from twincore.job.given import Captured, Check, Given, said
from twincore.job.rules.changing import as_said
from twincore.job.shared.borrowing import borrowed, put_back, unread_sets
from twincore.job.shared.holds import is_dead
from twincore.job.targets.rule_out import CauseSaid, TestSaid
from twincore.rule_out import BACK, UNKNOWN, Done, Report, RuleOut, Standing, Test

NOT_KNOWN = "unknown"
"""The cause that says that nobody knows: any other was seen, and speaks for itself."""
ENDS = ("condemned", "cleared", "undecided")


def _data(case: Case) -> RuleOut:
    data = case.shelf.rule_out
    if data is None:
        raise Refusal("Say first which kind of machine it is.")
    return data


def done_of(case: Case) -> list[Done]:
    """The tests done, in the order in which they were."""
    tests = sorted(case.state["tests"].items(), key=lambda each: each[1]["n"])
    return [
        Done(
            name,
            t.get("result"),
            _float(t.get("value")),
            _float(t.get("uncertainty")),
            _float(t.get("at_c")),
            t.get("beyond"),
        )
        for name, t in tests
    ]


def _float(value: Any) -> float | None:
    return None if value is None else float(value)


def report_of(case: Case, data: RuleOut) -> Report:
    """What was said of the machine, with the depot's school and how this kind of board has fared."""
    known = {each.id for each in data.symptoms}
    symptoms = {name: value == "yes" for name, value in case.state["symptoms"].items() if name in known}
    code = shown_code(case)
    suspects = {each.id for each in data.suspects}
    points_to = tuple(name for name in (code or {}).get("points_to", ()) if name in suspects)
    failures = case.shelf.failures() if case.school == "how often it fails" else (0, 0)
    return Report(symptoms, points_to, case.school, failures)


def shown_code(case: Case) -> Mapping[str, Any] | None:
    """The code that was reported, as the board's profile explains it; None without one or where it is not known.

    Before the board is recognised it is looked up in all boards of the family, and told where they agree.
    """
    shown = case.state["report"].get("code")
    if not shown or case.family is None:
        return None
    if case.original is not None:
        codes: Sequence[Mapping[str, Any]] = case.original.document.get("codes", [])
        return next((each for each in codes if each["shown"].lower() == shown.strip().lower()), None)
    meanings = case.shelf.code_meanings(shown.strip())
    return meanings[0] if len(meanings) == 1 else None


def standing_of(case: Case, data: RuleOut) -> Standing:
    """Where the suspicion stands. What the family's data no longer has, since they were edited, is left out."""
    return rule_out.stand(data, report_of(case, data), [each for each in done_of(case) if _still_known(data, each)])


def _still_known(data: RuleOut, made: Done) -> bool:
    test = data.test(made.test)
    if test is None:
        return False
    try:
        rule_out.result_of(data, test, made)
    except ValueError:
        return False
    return True


def symptom_value(case: Case, name: str, after: str, given: Given) -> str:
    """Whether a symptom of the family's data is there."""
    if all(each.id != name for each in _data(case).symptoms):
        raise WrongValue(f"There is no symptom {name} in this family's data.")
    return after


def test_value(case: Case, name: str, after: TestSaid, given: Given) -> dict[str, Any]:
    """A test's result: a result or a reading, what stood before, whether it is put back."""
    data = _data(case)
    test = data.test(name)
    if test is None:
        raise WrongValue(f"There is no test {name} in this family's data.")
    said = {key: value for key, value in after.items() if value not in (None, "")}
    told = said.get("result") in UNKNOWN
    if (asked := as_found_of(case, test)) and not told and not said.get("as_found"):
        raise WrongValue(f"First write down how it stood: {asked}")
    made = Done(
        name, after.get("result") or None, _float(said.get("value")), _float(said.get("uncertainty")),
        _float(said.get("at_c")), after.get("beyond") or None,
    )  # fmt: skip
    try:
        rule_out.result_of(data, test, made)
    except ValueError as error:
        raise WrongValue(f"{test.title}: {error}.") from error
    if not told and test.risk == "dead" and not is_dead(case) and not _put_back(case, name, said):
        raise Refusal(
            "This test needs the machine dead. Make safe comes first: its hold points hold, or were skipped with a reason.",
            waits_for=["make_safe"],
        )
    return said


def _put_back(case: Case, name: str, said: dict[str, Any]) -> bool:
    """Whether of a test that was made it is only said that what it moved is put back."""
    before = as_said(case.state["tests"].get(name))
    return before is not None and said.get("restored") is True and {**before, "restored": True} == said


def brought_by_test(case: Case, name: str, value: dict[str, Any]) -> dict[str, Any]:
    """Whether a test was made on a machine with power, and what it moved; to say that this is put back is no test."""
    data = case.shelf.rule_out
    test = data.test(name) if data else None
    if test is None or value.get("result") in UNKNOWN:
        return {"powered": False}
    undo = {"undo": undo_of(case, test)} if test.undo else {}
    return {"powered": test.risk != "dead" and not _put_back(case, name, value), **undo}


def as_found_of(case: Case, test: Test) -> str:
    """What has to be written down before a test moves it: what its data say, and every position that nobody has read."""
    unread = unread_sets(test.does, case.original, case.state["found"])
    return "; ".join(each for each in (test.as_found, f"how {', '.join(unread)} stood" if unread else "") if each)


def undo_of(case: Case, test: Test) -> str:
    """How a test is put back on this board, in words."""
    if case.family is None or not test.does:
        return test.undo
    lines = borrowed(test.does, case.original, case.family, case.state["found"])
    return put_back(lines, "" if test.undo == BACK else test.undo) or test.undo


def cause_value(case: Case, name: str, after: CauseSaid, given: Given) -> CauseSaid:
    """A cause of the board's death."""
    if all(each.id != name for each in _data(case).causes):
        raise WrongValue(f"There is no cause {name} in this family's data.")
    return after


def blocks_power(case: Case, name: str) -> bool:
    """Whether a cause keeps the power off until it is cleared."""
    return any(each.id == name and each.blocks_power for each in _data(case).causes)


def not_restored(case: Case, data: RuleOut | None) -> list[Test]:
    """The tests that moved or pulled something which is not confirmed as put back."""
    if data is None:
        return []
    undo = {each.id: each for each in data.tests if each.undo}
    return [
        undo[name]
        for name, test in case.state["tests"].items()
        if name in undo and test.get("result") not in UNKNOWN and not test.get("restored")
    ]


def check_confirmed(case: Case, note: str, end: str) -> None:
    """Refuse an end that lacks its evidence or reason."""
    if end not in ENDS:
        raise WrongValue(f"Expected one of {', '.join(ENDS)}.")
    data = case.shelf.rule_out
    if open_tests := not_restored(case, data):
        raise Refusal(f"Put back first what was moved or pulled: {', '.join(each.title for each in open_tests)}.")
    if end == "cleared" and not said(note):
        raise Refusal("Say what was found: the job closes with it.")
    if end == "undecided" and not said(note):
        raise Refusal("Say why the work goes on though the board is not condemned.")
    if end == "condemned" and data is not None and case.state["family"]:
        seen = [name for name in case.state["causes"] if name != NOT_KNOWN]
        if not said(note) and not seen and standing_of(case, data).conclusion != "condemned":
            raise Refusal("The tests do not condemn the board. Say what does, or go on undecided with a reason.")
        if data.causes and not case.state["causes"]:
            raise Refusal("Say why the board died, as far as it is known.")


CHECKS: dict[str, Check] = {"symptom": symptom_value, "test": test_value, "cause": cause_value}
CAPTURED: dict[str, Captured] = {
    "test": brought_by_test,
    "cause": lambda case, name, value: {"blocks": blocks_power(case, name)},
}
