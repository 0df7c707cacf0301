"""Rule out over HTTP."""

from django.http import HttpRequest
from ninja import Router

from jobs.asked import job_of
from jobs.cases import case_of
from jobs.sheets import SheetId
from twinshown.sheet import needs
from twinshown.steps.rule_out.schemas import RuleOutShown
from twinshown.steps.rule_out.view import rule_out_shown

router = Router(tags=["rule out"])


@router.get("/jobs/{job_id}/rule-out", response=RuleOutShown | None)
def show_rule_out(request: HttpRequest, job_id: SheetId) -> RuleOutShown | None:
    """Where the suspicion stands, and what to test next; nothing where nobody wrote that down for this kind of machine."""
    job = job_of(request, job_id)
    needs.kind_known(job.state)
    return rule_out_shown(case_of(job))
