"""The pair that a job compares, in the revisions that it keeps."""

from bench.comparing import Comparison
from jobs.front.facts import fact_values
from jobs.models import Job


def comparison_of(job: Job, replacement_id: int | None = None) -> Comparison:
    """The job's pair; with `replacement_id`, against that candidate instead of the one chosen."""
    replacement = replacement_id or job.replacement_revision_id
    assert job.family_revision_id and job.original_revision_id and replacement  # callers wait for both boards
    return Comparison(
        family_id=job.family_revision_id,
        original_id=job.original_revision_id,
        found=job.state["found"],
        replacement_id=replacement,
        plan=job.state["overrides"] if replacement_id is None else None,
        wishes=job.state.get("wishes", {}),
        facts=fact_values(job),
        school=job.state.get("school") if replacement_id is None else None,
        decisions=job.state.get("decisions", {}) if replacement_id is None else {},
        angles=job.state.get("angles", {}),
    )
