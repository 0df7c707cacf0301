"""What is known of the machine, for the screen."""

from collections.abc import Mapping
from typing import Any

from twincore.job.case import Case
from twincore.job.shared.facts import disagreements, facts_of, plates_of
from twincore.profile import Family
from twincore.profile.values import plain
from twinshown.plates import plate_shown
from twinshown.steps.recognise.schemas import FactWanted, MachineShown
from twinshown.words.fit import FitWords


def machine_shown(case: Case) -> MachineShown:
    """Facts with their sources, those that the family would like to know as well, and what the display says otherwise."""
    plates = plates_of(case)
    facts = facts_of(case, plates)
    family = case.family
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


def _wanted(node: Mapping[str, Any], facts: dict[str, Any]) -> FactWanted:
    known = facts.get(node["id"])
    kind = (
        "flag" if node.get("flag") else "number" if node.get("number") else "choice" if node.get("choices") else "text"
    )
    return FactWanted(
        id=node["id"], title=node["title"], unit=node.get("unit", ""), kind=kind, choices=plain(node.get("choices", [])),
        value=plain(known.value) if known else None, source=known.source if known else "",
    )  # fmt: skip
