"""The façade: judge a candidate on every criterion."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from typing import Any

from twincore.behaviour import Proof, make_twin, prove
from twincore.choose.criteria import CRITERIA, Context
from twincore.choose.fitting import AdapterLead, Fitting
from twincore.choose.ranking import Candidate
from twincore.choose.statements import Statement
from twincore.choose.ways import Way
from twincore.errors import TwinError
from twincore.profile import Board, Family, Record, Value
from twincore.settings import Carried, carry, met_wishes

QUICK_LIMIT = 15_000
"""Search limit of the twin check where many candidates are judged at once."""


@dataclass(frozen=True, slots=True)
class Machine:
    """What is to be put right: the original as a fitting, its family, facts of the machine, the depot's policy."""

    original: Fitting
    family: Family
    facts: Mapping[str, Any]
    change_companions: bool = False
    adapters: Sequence[AdapterLead] = ()
    """The adapter leads at hand."""


@dataclass(frozen=True, slots=True)
class TwinChecked:
    """Carry-over and twin check of a candidate; each is None where it could not be run."""

    carried: Carried | None
    proof: Proof | None


def check_twin(
    original: Board, found: Record, replacement: Board, family: Family, wishes: Mapping[str, Value]
) -> TwinChecked:
    """Carry the settings over and prove, with a limit that suits many candidates."""
    if not replacement.meanings_known:
        return TwinChecked(None, None)
    carried = carry(original, found, replacement, family, wishes)
    if carried.record is None:
        return TwinChecked(carried, None)
    met = met_wishes(carried.functions, wishes)
    try:
        twin = make_twin(original, found, replacement, carried.record, family, met)
        return TwinChecked(carried, prove(twin, QUICK_LIMIT))
    except TwinError:
        return TwinChecked(carried, None)


def judge_candidate(
    machine: Machine,
    fitting: Fitting,
    way: Way | None,
    twin: TwinChecked | None,
    offer: Mapping[str, Any] | None,
    elsewhere: Sequence[Statement] = (),
) -> Candidate:
    """One row of the matrix. Without `twin` the carry-over and the twin check stay `to check`."""
    at = Context(
        machine.original, fitting, machine.family, machine.facts, way, elsewhere, machine.change_companions, machine.adapters, offer
    )  # fmt: skip
    found = Candidate(at, tuple(each.cell(at) for each in CRITERIA))
    return found if twin is None else with_twin(found, twin)


def with_twin(candidate: Candidate, twin: TwinChecked, settings_known: bool = True) -> Candidate:
    """The same row with what carry-over and twin check say; nothing for sure where nobody knows how the original is set."""
    at = replace(candidate.at, carried=twin.carried, proof=twin.proof, checked=True, settings_known=settings_known)
    return Candidate(
        at, tuple(each.cell(at) if each.of_the_twin else candidate.cell(each.id) for each in CRITERIA)
    )  # fmt: skip
