"""Rule out: the family's data against what this job's people said and tested."""

from typing import Any

from django.db.models import Count, Q

from catalogue import queries as catalogue
from catalogue.profiles import board_profile, rule_out_data
from config.errors import Faulty, Refused
from jobs.given import Given
from jobs.models import Job
from twincore import rule_out
from twincore.job import done as job_done
from twincore.job.targets.rule_out import CauseSaid, TestSaid
from twincore.rule_out import UNKNOWN, Done, Report, RuleOut, Standing

ENDS = ("condemned", "cleared", "undecided")


def data_of(job: Job) -> RuleOut | None:
    """The rule-out data of the job's family; None where the family is not known or has none."""
    if job.family_revision is None:
        return None
    guide = catalogue.guide("rule-out", job.family_revision.family_id)
    return rule_out_data(guide.current_id) if guide and guide.current_id else None


def _data(job: Job) -> RuleOut:
    data = data_of(job)
    if data is None:
        raise Refused("Say first which kind of machine it is.")
    return data


def done_of(job: Job) -> list[Done]:
    """The tests done, in the order in which they were."""
    tests = sorted(job.state.get("tests", {}).items(), key=lambda each: each[1]["n"])
    return [
        Done(name, t.get("result"), _float(t.get("value")), _float(t.get("uncertainty")), _float(t.get("at_c")))
        for name, t in tests
    ]


def _float(value: Any) -> float | None:
    return None if value is None else float(value)


def report_of(job: Job, data: RuleOut) -> Report:
    """What was said of the machine, with the depot's school and how this kind of board has fared."""
    known = {each.id for each in data.symptoms}
    symptoms = {name: value == "yes" for name, value in job.state.get("symptoms", {}).items() if name in known}
    code = shown_code(job)
    suspects = {each.id for each in data.suspects}
    points_to = tuple(name for name in (code or {}).get("points_to", ()) if name in suspects)
    return Report(symptoms, points_to, job.depot.rule_out_school, _failures(job))


def shown_code(job: Job) -> dict[str, Any] | None:
    """The code that was reported, as the board's profile explains it; None without one or where it is not known.

    Before the board is recognised it is looked up in all boards of the family, and told where they agree.
    """
    shown = job.state.get("report", {}).get("code")
    if not shown or job.family_revision is None:
        return None
    if job.original_revision_id is not None:
        codes: list[dict[str, Any]] = board_profile(job.original_revision_id).document.get("codes", [])
        return next((each for each in codes if each["shown"].lower() == shown.strip().lower()), None)
    meanings = catalogue.code_meanings(job.family_revision.family_id, shown.strip())
    return meanings[0] if len(meanings) == 1 else None


def _failures(job: Job) -> tuple[int, int]:
    """How often boards of this kind were condemned, and cleared, in this depot's other jobs."""
    if job.depot.rule_out_school != "how often it fails" or job.family_revision is None:
        return (0, 0)
    ended = Job.objects.filter(depot=job.depot, family_revision__family=job.family_revision.family_id).exclude(
        pk=job.pk
    )
    counts = ended.aggregate(
        condemned=Count("pk", filter=Q(state__confirmed__rule_out__end="condemned")),
        cleared=Count("pk", filter=Q(state__confirmed__rule_out__end="cleared")),
    )
    return counts["condemned"], counts["cleared"]


def standing_of(job: Job, data: RuleOut) -> Standing:
    """Where the suspicion stands. What the family's data no longer has, since they were edited, is left out."""
    return rule_out.stand(data, report_of(job, data), [each for each in done_of(job) if _still_known(data, each)])


def _still_known(data: RuleOut, done: Done) -> bool:
    test = data.test(done.test)
    if test is None:
        return False
    try:
        rule_out.result_of(data, test, done)
    except ValueError:
        return False
    return True


def symptom_value(job: Job, name: str, after: str, given: Given) -> str:
    """Whether a symptom of the family's data is there."""
    if all(each.id != name for each in _data(job).symptoms):
        raise Faulty(f"There is no symptom {name} in this family's data.")
    return after


def test_value(job: Job, name: str, after: TestSaid, given: Given) -> dict[str, Any]:
    """A test's result: a result or a reading, what stood before, whether it is put back."""
    data = _data(job)
    test = data.test(name)
    if test is None:
        raise Faulty(f"There is no test {name} in this family's data.")
    said = {key: value for key, value in after.items() if value not in (None, "")}
    told = said.get("result") in UNKNOWN
    if test.as_found and not told and not said.get("as_found"):
        raise Faulty(f"First write down how it stood: {test.as_found}")
    done = Done(
        name, after.get("result") or None, _float(said.get("value")), _float(said.get("uncertainty")),
        _float(said.get("at_c")),
    )  # fmt: skip
    try:
        rule_out.result_of(data, test, done)
    except ValueError as error:
        raise Faulty(f"{test.title}: {error}.") from error
    if not told and test.risk == "dead" and not job_done(job.state, "make_safe"):
        raise Refused(
            "This test needs the machine dead. Make safe comes first: its hold points hold, or were skipped with a reason.",
            waits_for=["make_safe"],
        )
    return said


def risk_of(job: Job, name: str) -> str:
    """How dangerous a test is: "dead", "low voltage" or "live"; "dead" where the data does not know it any more."""
    data = data_of(job)
    test = data.test(name) if data else None
    return test.risk if test else "dead"


def cause_value(job: Job, name: str, after: CauseSaid, given: Given) -> CauseSaid:
    """A cause of the board's death."""
    if all(each.id != name for each in _data(job).causes):
        raise Faulty(f"There is no cause {name} in this family's data.")
    return after


def blocks_power(job: Job, name: str) -> bool:
    """Whether a cause keeps the power off until it is cleared."""
    return any(each.id == name and each.blocks_power for each in _data(job).causes)


def not_restored(job: Job, data: RuleOut | None) -> list[str]:
    """Titles of tests that moved or pulled something which is not confirmed as put back."""
    if data is None:
        return []
    undo = {each.id: each.title for each in data.tests if each.undo}
    return [
        undo[name]
        for name, test in job.state.get("tests", {}).items()
        if name in undo and test.get("result") not in UNKNOWN and not test.get("restored")
    ]


def check_end(job: Job, end: str, note: str) -> None:
    """Refuse an end that lacks its evidence or reason."""
    if end not in ENDS:
        raise Faulty(f"Expected one of {', '.join(ENDS)}.")
    data = data_of(job)
    if open_tests := not_restored(job, data):
        raise Refused(f"Put back first what was moved or pulled: {', '.join(open_tests)}.")
    if end == "cleared" and not note:
        raise Refused("Say what was found: the job closes with it.")
    if end == "undecided" and not note:
        raise Refused("Say why the work goes on though the board is not condemned.")
    if end == "condemned" and data is not None and job.state.get("family"):
        if not note and standing_of(job, data).conclusion != "condemned":
            raise Refused("The tests do not condemn the board. Say what does, or go on undecided with a reason.")
        if data.causes and not job.state.get("causes"):
            raise Refused("Say why the board died, as far as it is known.")
