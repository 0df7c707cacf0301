"""A stored job as the core sees it: its state, its boards in their revisions, and what is on the depot's shelf."""

from collections.abc import Sequence
from dataclasses import dataclass
from functools import cached_property
from typing import Any

from django.db.models import Count, Q

from bench.kept import kept
from catalogue import queries as catalogue
from catalogue.profiles import adapters_of, board_profile, family_profile, rule_out_data
from jobs.models import Job
from jobs.sheets import sheet
from twincore.job import current
from twincore.job.case import Case
from twincore.job.shared.meanings import with_meanings
from twincore.recognise import Scheme
from twincore.rule_out import RuleOut
from twincore.wiring import Adapter


@dataclass
class JobShelf:
    """What a job looks up in the catalogue, read when it is asked for."""

    job: Job

    @cached_property
    def schemes(self) -> Sequence[Scheme]:
        """The nameplate schemes of the catalogue."""
        return catalogue.schemes_of()

    @cached_property
    def adapters(self) -> Sequence[Adapter]:
        """The adapter leads of the catalogue."""
        return [each for revision in catalogue.guide_revisions("adapters") for each in adapters_of(revision)]

    @cached_property
    def rule_out(self) -> RuleOut | None:
        """The rule-out data of the job's family; None where the family is not known or has none."""
        if self.job.family_revision is None:
            return None
        guide = catalogue.guide("rule-out", self.job.family_revision.family_id)
        return rule_out_data(guide.current_id) if guide and guide.current_id else None

    def code_meanings(self, shown: str) -> Sequence[dict[str, Any]]:
        """What a shown code means on the boards of the family."""
        return (
            catalogue.code_meanings(self.job.family_revision.family_id, shown, self.job.depot_id)
            if self.job.family_revision
            else ()
        )

    def failures(self) -> tuple[int, int]:
        """How often boards of this kind were condemned, and cleared, in this depot's other jobs."""
        if self.job.family_revision is None:
            return (0, 0)
        of_the_kind = Q(depot=self.job.depot, family_revision__family=self.job.family_revision.family_id)
        counts = Job.objects.filter(of_the_kind).exclude(pk=self.job.pk).aggregate(
            condemned=Count("pk", filter=Q(state__confirmed__rule_out__end="condemned")),
            cleared=Count("pk", filter=Q(state__confirmed__rule_out__end="cleared")),
        )  # fmt: skip
        return counts["condemned"], counts["cleared"]


def case_of(job: Job) -> Case:
    """A job at hand, by the sheet of one of its boards; the others beside it. Asked again about the same, it is the same one:
    what was worked out of it is not worked out twice.
    """
    about = (job.family_revision_id, job.original_revision_id, job.replacement_revision_id, job.entry_count)
    if job.looked_at is None or job.looked_at[0] is not job.state or job.looked_at[1] != about:
        job.looked_at = (job.state, about, _made(job))
    case: Case = job.looked_at[2]
    return case


def _made(job: Job) -> Case:
    case = _case_of_board(job)
    if case.state["boards"]:
        case.beside = tuple(_case_of_board(sheet(job, name)) for name in case.state["boards"])
        for each in case.beside:
            each.beside = tuple(other for other in (case, *case.beside) if other is not each)
    return case


def _case_of_board(job: Job) -> Case:
    original, replacement, family = job.original_revision_id, job.replacement_revision_id, job.family_revision_id
    case = Case(
        state=current(job.state),
        entry_count=job.entry_count,
        family=family_profile(family) if family else None,
        original=board_profile(original) if original else None,
        replacement=board_profile(replacement) if replacement else None,
        shelf=JobShelf(job),
        school=job.depot.rule_out_school,
        dead_v=job.depot.dead_v,
        names=(family, original, replacement),
        keep=kept,
    )
    return with_meanings(case)
