"""A socket for every plug."""

from collections.abc import Sequence

from twincore.choose.criteria.base import Context, Criterion
from twincore.choose.fitting import AdapterLead, Fitting, Pin
from twincore.choose.judged import MINUTES, Facts, Judged, Reason


class Connectors(Criterion):
    """Plug by plug: fits whole, through an adapter lead at hand, or pin by pin; the same housing with other pinning is the
    trap that is named.
    """

    id = "connectors"
    same_again = True

    def judge(self, at: Context) -> Judged:
        """By the pins that the machine uses."""
        original, candidate, facts, adapters = at.original, at.candidate, at.facts, at.adapters
        if original.pins is None or candidate.pins is None:
            return self.judged([Reason("pins unknown", "to check", {"board": candidate.part_number})])
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
                        Reason(
                            "adapter lead", "with work", {"connector": name, "lead": lead.title, "price": lead.price}
                        )
                    )
                minutes += MINUTES["wire"] * len(mine) if lead is None else MINUTES["plug"] * (1 + lead.ends)
        return self.judged(reasons or [Reason("nothing plugged", "fits")], [], minutes)


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
    for pin in original.used_pins(facts):
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
