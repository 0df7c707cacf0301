"""What is known of the machine, for the screen."""

from typing import Any

from catalogue.guides_api import plate_shown
from catalogue.profiles import family_profile
from jobs.cases import case_of
from jobs.models import Job
from jobs.shown.words import FitWords
from jobs.steps.recognise.schemas import FactWanted, MachineShown
from twincore.job.facts import disagreements, facts_of, plates_of
from twincore.profile import Family
from twincore.profile.values import plain


def machine_shown(job: Job) -> MachineShown:
    """Facts with their sources, those that the family would like to know as well, and what the display says otherwise."""
    plates = plates_of(case_of(job))
    facts = facts_of(case_of(job), plates)
    family = family_profile(job.family_revision_id) if job.family_revision_id else None
    known = [] if family is None else [_wanted(node, facts) for node in family.document.get("facts", ())]
    names = {each.id for each in known}
    more = [
        FactWanted(
            id=name, title=_title(name, family), unit="", kind="text", choices=[], value=plain(fact.value),
            source=fact.source,
        )
        for name, fact in facts.items()
        if name not in names
    ]  # fmt: skip
    return MachineShown(
        facts=known + more,
        plates={name: plate_shown(scheme, read) for name, (scheme, read) in plates.items()},
        findings=[
            f"{_title(each.fact, family)}: the plate says {_said(each.plate)}, the display {_said(each.display)}."
            for each in disagreements(plates)
        ],
    )


def _title(name: str, family: Family | None) -> str:
    return FitWords(family, {}).fact(name) if family else name


def _said(value: Any) -> str:
    return "nothing" if value is None else ("yes" if value else "no") if isinstance(value, bool) else str(plain(value))


def _wanted(node: dict[str, Any], facts: dict[str, Any]) -> FactWanted:
    known = facts.get(node["id"])
    kind = (
        "flag" if node.get("flag") else "number" if node.get("number") else "choice" if node.get("choices") else "text"
    )
    return FactWanted(
        id=node["id"], title=node["title"], unit=node.get("unit", ""), kind=kind, choices=plain(node.get("choices", [])),
        value=plain(known.value) if known else None, source=known.source if known else "",
    )  # fmt: skip
