"""Where wires differ from the diagram, in words."""

from twincore.job.case import Case
from twincore.profile import Family
from twincore.wiring import WiringFinding
from twinshown.words.schemas import FindingShown


def findings_shown(case: Case, findings: list[WiringFinding], family: Family) -> list[FindingShown]:
    """Findings in words, with how each was settled."""
    settled = case.state["settled"]
    return [
        FindingShown(
            place=each.place,
            missing=each.kind == "wire missing",
            words=_words(each, family),
            settled=said["as"] if (said := settled.get(each.place)) else "",
            note=said["note"] if said else "",
        )
        for each in findings
    ]


def _words(finding: WiringFinding, family: Family) -> str:
    diagram = family.titles.get(finding.diagram or "", finding.diagram or "nothing")
    found = family.titles.get(finding.found or "", finding.found or "a wire that nobody followed")
    match finding.kind:
        case "wire missing":
            return f"The diagram has a wire here ({diagram}); none was found."
        case "not in the diagram":
            return f"The diagram has nothing here; found: {found}."
    return f"The diagram says {diagram}; the wire goes to {found}."


MINDED = {
    "polarity": "two poles that must not be swapped",
    "contact": "relay contact: common, open at rest and closed at rest are not where they were",
    "trap": "the plug would go in, but other pins wait behind it",
    "shared": "shares a pin: join the wires before it",
    "volts": "another voltage on the new board",
    "other contact": "only the other relay contact is there",
    "no place": "the new board has no such pin",
    "label": "by the print at the pin alone: look what it carries",
    "new device": "the part at its end is changed along with the board: the new one’s lead goes here, the old one comes off",
    "by hand": "put by hand",
    "other signal": "that pin of the new board carries something else",
    "two outputs": "two outputs would be joined here",
    "two signals": "two different things would be joined here",
    "full": "more wires than this pin holds",
    "unknown": "nobody knows what it carries",
}
