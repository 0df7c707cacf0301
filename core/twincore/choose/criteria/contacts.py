"""A contact for every load."""

from twincore.choose.criteria.base import Context, Criterion
from twincore.choose.fitting import Contact
from twincore.choose.judged import Facts, Judged, Question, Reason
from twincore.measure import designated_rating
from twincore.profile.values import is_number

USUAL_VOLTS = 230.0
"""What a contact's designation is read at where nobody measured the supply."""


class Contacts(Criterion):
    """Every load that the original switches, against the contact that would switch it.

    A load is a fact of the machine (`load.fan.line.amps`, `load.fan.line.kind`); where nobody measured it, the
    original's own contact says what it can be at most. A rating for one kind of load says nothing of another: a motor
    or a coil is harder on a contact than a heater of the same current (common practice, no source).
    """

    id = "contacts"
    same_again = True

    def judge(self, at: Context) -> Judged:
        """Load by load."""
        original, candidate, facts = at.original, at.candidate, at.facts
        if not original.contacts:
            return self.judged([Reason("contacts unknown", "to check", {"board": original.part_number})])
        reasons, questions = [], []
        for mine in original.contacts:
            its = candidate.contact_of(mine.signal)
            kind = str(facts.get(f"load.{mine.signal}.kind", "motor" if "motor" in mine.amps else "resistive"))
            load = facts.get(f"load.{mine.signal}.amps")
            measured = is_number(load)
            needed = float(load) if is_number(load) else _amps(mine, kind, facts)
            allowed = None if its is None else _amps(its, kind, facts)
            data = {"signal": mine.signal, "kind": kind, "needed": needed, "allowed": allowed, "measured": measured}
            if its is None and candidate.contacts is not None and candidate.pin_of(mine.signal) is None:
                continue  # the missing signal is told by its own criterion
            if allowed is None or needed is None:
                reasons.append(Reason("contact unknown", "to check", data))
            elif needed <= allowed and its is not None and (measured or kind in mine.amps) and not _names(its, kind):
                reasons.append(Reason("contact of another kind", "to check", data))
            elif needed <= allowed:
                reasons.append(Reason("contact carries", "fits", data))
            elif measured:
                reasons.append(Reason("contact too small", "no", data))
            else:
                reasons.append(Reason("contact smaller", "to check", data))
                questions.append(Question(f"load.{mine.signal}.amps", {"to": allowed}, "A"))
        return self.judged(reasons or [Reason("nothing switched", "fits")], questions)


def _names(contact: Contact, kind: str) -> bool:
    """Whether a contact's rating says anything of this kind of load; a designation does."""
    return kind in contact.amps or (not contact.amps and contact.rating is not None)


def _amps(contact: Contact, kind: str, facts: Facts) -> float | None:
    """What a contact may carry of a kind of load, in ampere; a designation is read at the machine's supply."""
    if kind in contact.amps:
        return contact.amps[kind]
    if contact.rating:
        supply = facts.get("supply.volts")
        volts = float(supply) if is_number(supply) else USUAL_VOLTS
        rating = designated_rating(contact.rating, min(volts, float(contact.rating[1:])))
        return rating.thermal_a if kind == "resistive" else rating.break_a
    return min(contact.amps.values(), default=None)
