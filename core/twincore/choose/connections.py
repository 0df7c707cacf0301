"""Criteria of what is connected: contacts for every load, a pin for every signal, a socket for every plug."""

from collections.abc import Sequence

from twincore.choose.fitting import AdapterLead, Contact, Fitting, Pin
from twincore.choose.judged import MINUTES, Facts, Judged, Question, Reason, judged
from twincore.measure import designated_rating
from twincore.profile import Family
from twincore.profile.values import is_number

USUAL_VOLTS = 230.0
"""What a contact's designation is read at where nobody measured the supply."""


def judge_contacts(original: Fitting, candidate: Fitting, facts: Facts) -> Judged:
    """Every load that the original switches, against the contact that would switch it.

    A load is a fact of the machine (`load.fan.line.amps`, `load.fan.line.kind`); where nobody measured it, the
    original's own contact says what it can be at most.
    """
    if not original.contacts:
        return judged("contacts", [Reason("contacts unknown", "to check", {"board": original.part_number})])
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
        elif needed <= allowed:
            reasons.append(Reason("contact carries", "fits", data))
        elif measured:
            reasons.append(Reason("contact too small", "no", data))
        else:
            reasons.append(Reason("contact smaller", "to check", data))
            questions.append(Question(f"load.{mine.signal}.amps", {"to": allowed}, "A"))
    return judged("contacts", reasons or [Reason("nothing switched", "fits")], questions)


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


def used_pins(original: Fitting, facts: Facts) -> list[Pin]:
    """The original's pins that this machine uses: all, but those that are known to be without a device."""
    return [each for each in original.pins or () if facts.get(f"uses.{each.signal}") is not False]


def judge_signals(original: Fitting, candidate: Fitting, family: Family, facts: Facts) -> Judged:
    """Whether everything that the machine uses exists on the candidate."""
    if original.pins is None or candidate.pins is None:
        unknown = original if original.pins is None else candidate
        return judged("signals", [Reason("pins unknown", "to check", {"board": unknown.part_number})])
    reasons, questions = [], []
    used = dict.fromkeys([each.signal for each in used_pins(original, facts)])
    missing = [signal for signal in used if candidate.pin_of(signal) is None]
    listed = family.document.get("signals", ()) if missing else ()
    optional = {each["id"] for each in listed if each.get("optional")}
    for signal in missing:
        mine = original.pin_of(signal)
        if facts.get(f"uses.{signal}") is None and (signal in optional or (mine and mine.without_device)):
            reasons.append(Reason("signal perhaps used", "to check", {"signal": signal}))
            questions.append(Question(f"uses.{signal}", False))
        else:
            reasons.append(Reason("signal missing", "no", {"signal": signal}))
    return judged("signals", reasons or [Reason("signals there", "fits", {"count": len(used)})], questions)


def judge_connectors(
    original: Fitting, candidate: Fitting, facts: Facts, adapters: Sequence[AdapterLead] = ()
) -> Judged:
    """Plug by plug: fits whole, through an adapter lead at hand, or pin by pin; the same housing with other pinning is the
    trap that is named.
    """
    if original.pins is None or candidate.pins is None:
        return judged("connectors", [Reason("pins unknown", "to check", {"board": candidate.part_number})])
    reasons: list[Reason] = []
    minutes = 0.0
    plugs = _partners(original, candidate, facts)
    for name, (mine, partner) in plugs.items():
        style = mine[0].style
        its = {each.pin: each.signal for each in candidate.pins if each.connector == partner}
        wrong = [each for each in mine if its.get(each.pin) != each.signal]
        if partner is not None and not wrong:
            reasons.append(Reason("plug fits", "fits", {"connector": name, "to": partner, "style": style}))
            minutes += MINUTES["plug"]
        else:
            lead = _lead_for(mine, candidate, adapters)
            if partner is not None:
                pins = [{"pin": w.pin, "original": w.signal, "replacement": its.get(w.pin)} for w in wrong]
                data = {"connector": name, "to": partner, "style": style, "pins": pins}
                reasons.append(Reason("other pinning", "with work", data))
            elif lead is None:
                told = {"connector": name, "style": style, "count": len(mine)}
                reasons.append(Reason("single wires", "with work", told))
            if lead is not None:
                reasons.append(
                    Reason("adapter lead", "with work", {"connector": name, "lead": lead.title, "price": lead.price})
                )
            minutes += MINUTES["wire"] * len(mine) if lead is None else MINUTES["plug"] * (1 + lead.ends)
    return judged("connectors", reasons or [Reason("nothing plugged", "fits")], [], minutes)


def _lead_for(mine: Sequence[Pin], candidate: Fitting, adapters: Sequence[AdapterLead]) -> AdapterLead | None:
    """The cheapest adapter lead that brings every used pin of one plug to its signal; None where none does."""
    of_style = [each for each in adapters if each.style == mine[0].style]
    if not of_style:
        return None
    signals: dict[tuple[str | None, str], set[str]] = {}
    for pin in candidate.pins or ():
        signals.setdefault((pin.style, pin.pin), set()).add(pin.signal)

    def serves(lead: AdapterLead) -> bool:
        return all(pin.pin in lead.to and pin.signal in signals.get(lead.to[pin.pin], ()) for pin in mine)

    return min((each for each in of_style if serves(each)), key=lambda each: (each.price, each.title), default=None)


def _partners(original: Fitting, candidate: Fitting, facts: Facts) -> dict[str, tuple[list[Pin], str | None]]:
    """For each plug of the original that is used, its used pins and the socket of the candidate that it fits.

    One socket takes one plug: the one of the same name first, then the one with the fewest pins that differ.
    """
    used: dict[str, list[Pin]] = {}
    for pin in used_pins(original, facts):
        used.setdefault(pin.connector, []).append(pin)
    fits = sorted(
        (socket != name, sum([its.get(pin.pin) != pin.signal for pin in pins]), name, socket)
        for name, pins in used.items()
        for socket, (style, its) in candidate.sockets.items()
        if pins[0].style is not None and style == pins[0].style
    )
    partner: dict[str, str] = {}
    for _, _, name, socket in fits:
        if name not in partner and socket not in partner.values():
            partner[name] = socket
    return {name: (pins, partner.get(name)) for name, pins in used.items()}
