"""Each criterion by itself: may this candidate take the original's place in this machine? (What is connected: connections.py.)"""

from collections.abc import Mapping, Sequence
from typing import Any

from twincore.behaviour import Proof
from twincore.choose.fitting import SURROUNDINGS, Fitting
from twincore.choose.judged import MINUTES, Facts, Judged, Question, Reason, judged
from twincore.choose.kit import kit_lines
from twincore.choose.mounting import best_mounting
from twincore.choose.statements import Statement
from twincore.choose.ways import Way
from twincore.profile.facts import fact_agrees, missing_facts
from twincore.profile.values import is_number
from twincore.settings import Carried

UNITS = {"temperature_c": "°C", "humidity_percent": "%", "altitude_m": "m"}


def judge_listing(way: Way | None, facts: Facts, elsewhere: Sequence[Statement] = ()) -> Judged:
    """Who says that this board may stand in for the original; what is listed as not exchangeable beats everything.

    `elsewhere` are statements that list it for other machines: a condition of theirs fails here.
    """
    if way is None:
        told = [
            Reason("listed elsewhere", "to check", {"statement": s.id, "failed": _failed(s, facts)}) for s in elsewhere
        ]
        return judged("listing", told or [Reason("not listed", "to check")])
    if way.forbidden is not None:
        return judged("listing", [Reason("not exchangeable", "no", {"statement": way.forbidden.id})])
    reasons, questions = [], []
    if way.perhaps_forbidden is not None:
        missing = missing_facts(way.perhaps_forbidden.conditions, facts) or ()
        reasons.append(
            Reason("not exchangeable if", "to check", {"statement": way.perhaps_forbidden.id, "facts": list(missing)})
        )
    listed = {"relation": way.relation, "links": len(way.links), "statements": [each.id for each in way.statements]}
    if way.missing:
        reasons.append(Reason("listed if", "to check", {**listed, "facts": list(way.missing)}))
        conditions = {name: c for each in way.statements for name, c in each.conditions.items()}
        questions += [Question(name, conditions[name]) for name in way.missing]
    else:
        reasons.append(Reason("listed", "fits", listed))
    for other in dict.fromkeys(o for link in way.links for o in link.statement.originals if o != link.origin):
        there = facts.get(f"attached.{other}")
        verdict = "to check" if there is None else "with work" if there else "no"
        reasons.append(Reason("takes another's place as well", verdict, {"other": other}))
        if there is None:
            questions.append(Question(f"attached.{other}", True))
    if any(not each.source for each in way.statements):
        reasons.append(Reason("no source", "fits", {}))
    reasons += [Reason("needs", "with work", {"what": need}) for need in way.needs]
    return judged("listing", reasons, questions, MINUTES["need"] * len(way.needs))


def _failed(statement: Statement, facts: Facts) -> list[dict[str, Any]]:
    """The conditions of a statement that do not hold here, with what this machine has."""
    return [
        {"fact": name, "wanted": condition, "value": facts[name]}
        for name, condition in statement.conditions.items()
        if name in facts and not fact_agrees(facts[name], condition)
    ]


def judge_supply(original: Fitting, candidate: Fitting, facts: Facts) -> Judged:
    """Volts, hertz and phases of the machine's supply against what the candidate takes."""
    reasons, questions = [], []
    if candidate.volts is None:
        reasons.append(Reason("supply unknown", "to check"))
    else:
        low, high = candidate.volts
        wanted = {"from": low, "to": high}
        measured = facts.get("supply.volts")
        if is_number(measured):
            inside = low <= measured <= high
            reasons.append(
                Reason("volts measured", "fits" if inside else "no", {"volts": float(measured), "band": [low, high]})
            )
        elif original.volts is None:
            reasons.append(Reason("volts to measure", "to check", {"band": [low, high]}))
            questions.append(Question("supply.volts", wanted, "V"))
        else:
            mine = original.volts
            data = {"band": [low, high], "original": list(mine)}
            if low <= mine[0] and mine[1] <= high:
                reasons.append(Reason("volts covered", "fits", data))
            elif mine[1] < low or high < mine[0]:
                reasons.append(Reason("volts apart", "no", data))
            else:
                reasons.append(Reason("volts overlap", "to check", data))
                questions.append(Question("supply.volts", wanted, "V"))
    reasons += _differing("hertz", original.hertz, candidate.hertz, facts)
    phases = [None if each.phases is None else (float(each.phases),) for each in (original, candidate)]
    reasons += _differing("phases", phases[0], phases[1], facts)
    return judged("supply", reasons, questions)


def _differing(
    name: str, original: tuple[float, ...] | None, candidate: tuple[float, ...] | None, facts: Facts
) -> list[Reason]:
    """Whether what the machine has (a fact, else what the original took) is among what the candidate takes."""
    fact = facts.get(f"supply.{name}")
    needed = (float(fact),) if is_number(fact) else original
    if candidate is None or needed is None or set(needed) <= set(candidate):
        return []
    return [Reason(f"{name} differ", "no", {"needed": list(needed), "taken": list(candidate)})]


def judge_machine(candidate: Fitting, facts: Facts) -> Judged:
    """What the candidate's maker says it accepts, against the facts of the machine: stages, motor, sensors, options."""
    reasons, questions = [], []
    for each in candidate.accepts:
        name = each["fact"]
        condition = each.get("one_of") or {"from": each["between"][0], "to": each["between"][1]}
        if name not in facts:
            reasons.append(Reason("fact unknown", "to check", {"fact": name, "wanted": condition}))
            questions.append(Question(name, condition, each.get("unit", "")))
        elif fact_agrees(facts[name], condition):
            reasons.append(Reason("fact accepted", "fits", {"fact": name, "value": facts[name]}))
        else:
            reasons.append(Reason("fact refused", "no", {"fact": name, "value": facts[name], "wanted": condition}))
    return judged("machine", reasons or [Reason("nothing asked", "fits")], questions)


def judge_mounting(original: Fitting, candidate: Fitting, facts: Facts) -> Judged:
    """Holes that serve, holes to drill, and whether the outline or height fouls anything."""
    if original.plate is None or candidate.plate is None:
        unknown = original if original.plate is None else candidate
        return judged("mounting", [Reason("outline unknown", "to check", {"board": unknown.part_number})])
    found = best_mounting(original.plate, candidate.plate)
    data = {"turn": found.turn, "serve": len(found.pairs), "new": len(found.new_holes), "over_mm": list(found.over_mm)}
    reasons, questions = [], []
    if found.new_holes:
        reasons.append(Reason("holes to drill", "with work", data))
    else:
        reasons.append(Reason("holes serve", "fits", data))
    for side, over in zip(("left", "bottom", "right", "top", "height"), found.over_mm, strict=True):
        if over is None or over <= 0:
            continue
        room = facts.get(f"room.{side}_mm")
        beyond = {"side": side, "over_mm": over}
        if not is_number(room):
            reasons.append(Reason("reaches beyond", "to check", beyond))
            questions.append(Question(f"room.{side}_mm", {"from": over}, "mm"))
        else:
            verdict = "fits" if room >= over else "no"
            reasons.append(Reason("room there" if verdict == "fits" else "no room", verdict, beyond))
    return judged("mounting", reasons, questions, MINUTES["hole"] * len(found.new_holes))


def judge_settings(carried: Carried | None) -> Judged:
    """Whether its positions can give the functions of the original, and what was wanted besides."""
    if carried is None:
        return judged("settings", [Reason("settings unknown", "to check")])
    if carried.record is None:
        return judged("settings", [Reason("no position", "no", {"functions": list(carried.why)})])
    off = [each for each in carried.functions if each.missed]
    reasons = [
        Reason("function off", "no" if each.importance == "safety" else "to check",
               {"function": each.id, "got": each.got, "importance": each.importance})
        for each in off
    ]  # fmt: skip
    open_ones = [each.id for each in carried.functions if each.verdict == "open"]
    if open_ones:
        reasons.append(Reason("functions open", "to check", {"functions": open_ones}))
    reasons = reasons or [Reason("functions met", "fits", {"moved": carried.moved})]
    return judged("settings", reasons, [], MINUTES["position"] * carried.moved)


def judge_behaviour(proof: Proof | None, checked: bool) -> Judged:
    """What the twin check says; without one, that it was not run."""
    if proof is None:
        return judged("behaviour", [Reason("not proved" if checked else "not run", "to check")])
    verdict = {"identical": "fits", "within tolerance": "fits", "different": "no"}.get(proof.verdict, "to check")
    return judged("behaviour", [Reason(proof.verdict, verdict, {"offsets": len(proof.offsets)})])


def judge_parts(
    original: Fitting, candidate: Fitting, way: Way | None, facts: Facts, change_companions: bool
) -> Judged:
    """Parts that move across, kit parts that this machine needs, companions to change along with the board or to leave."""
    reasons: list[Reason] = []
    for each in original.moves:
        reasons.append(Reason("part moves", "with work", {"what": each["what"], "caution": each.get("caution", "")}))
    for line in kit_lines(candidate.kit, facts):
        # whether it is needed or not, it is in the kit
        told = {
            "not needed": Reason("kit part not needed", "fits", {"item": line.item}),
            "perhaps": Reason("kit part perhaps", "fits", {"item": line.item, "facts": list(line.facts)}),
        }
        reasons.append(told.get(line.needed, Reason("kit part", "fits", {"item": line.item, "count": line.count})))
    names = [each["item"] for each in candidate.companions] + [
        c for s in (way.statements if way else ()) for c in s.companions
    ]
    for name in dict.fromkeys(names):
        if change_companions:
            reasons.append(Reason("companion changes", "with work", {"item": name}))
        else:
            reasons.append(Reason("companion stays", "fits", {"item": name}))
    minutes = MINUTES["part"] * sum(each.verdict == "with work" for each in reasons)
    return judged("parts", reasons or [Reason("nothing moves", "fits")], [], minutes)


def judge_surroundings(original: Fitting, candidate: Fitting, facts: Facts) -> Judged:
    """Heat, humidity and altitude at the machine against what the candidate stands.

    What nobody measured is taken from what the original stood there; where that says nothing either, it is to be found out.
    What no maker says is not known, and no board fits by that.
    """
    reasons, questions = [], []
    for name, asked in SURROUNDINGS.items():
        band, mine = candidate.surroundings.get(name), original.surroundings.get(name)
        if band is None:
            if mine is not None:
                reasons.append(Reason("surroundings unknown", "to check", {"what": name, "original": list(mine)}))
            continue
        data = {"what": name, "band": list(band)}
        unmeasured = [fact for fact in asked if not is_number(facts.get(fact))]
        for fact in asked:
            if fact not in unmeasured:
                inside = band[0] <= facts[fact] <= band[1]
                code = "surroundings measured" if inside else "surroundings refused"
                more = {"fact": fact, "value": float(facts[fact])}
                reasons.append(Reason(code, "fits" if inside else "no", data | more))
        if unmeasured and mine is not None and band[0] <= mine[0] and mine[1] <= band[1]:
            reasons.append(Reason("surroundings covered", "fits", data | {"original": list(mine)}))
            continue
        for fact in unmeasured:
            reasons.append(Reason("surroundings to measure", "to check", data | {"fact": fact}))
            questions.append(Question(fact, {"from": band[0], "to": band[1]}, UNITS[name]))
    return judged("surroundings", reasons or [Reason("surroundings not said", "to check")], questions)


def judge_availability(candidate: Fitting, offer: Mapping[str, Any] | None) -> Judged:
    """Price, stock and days as last heard from the parts desk (`stock`, `days`, `age_s`), or that nobody asked yet."""
    if offer is None:
        if candidate.status == "discontinued":
            return judged("availability", [Reason("discontinued", "to check")])
        return judged("availability", [Reason("not asked", "to check")])
    data = dict(offer)
    if offer.get("unknown"):
        return judged("availability", [Reason("desk does not know it", "to check", data)])
    if offer["stock"] > 0:
        return judged("availability", [Reason("in stock", "fits", data)])
    if offer.get("days") is None:
        return judged("availability", [Reason("cannot be had", "no", data)])
    return judged("availability", [Reason("to be ordered", "with work", data)])


def questions_of(cells: Sequence[Judged]) -> tuple[Question, ...]:
    """What to find out on the machine, each fact once."""
    found: dict[str, Question] = {}
    for cell in cells:
        for question in cell.questions:
            found.setdefault(question.fact, question)
    return tuple(found.values())
