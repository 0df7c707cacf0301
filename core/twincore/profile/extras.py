"""What a board's profile may also say, checked against its own elements: what acts, panels, learning, service port."""

from fractions import Fraction
from graphlib import CycleError, TopologicalSorter
from typing import Any

from twincore.profile.elements import Element, Point
from twincore.profile.faults import FaultList, known
from twincore.profile.kinds import KINDS


def check_extras(
    root: dict[str, Any], elements: dict[str, Element], points: dict[str, Point], faults: FaultList
) -> None:
    """Refuse names that this board does not have, and values that they cannot take."""
    for index, act in enumerate(root.get("acts", ())):
        point = points.get(act["point"])
        if point is None:
            faults.add(f"acts[{index}].point", f"expected a point of this board ({known(points)})")
        elif act["when"] not in point.domain or len(point.domain) < 2:
            faults.add(f"acts[{index}].when", f"expected one of {known(point.domain)}, and a position besides it")
    for name in ("remembers", "temporary", "fitting_steps"):
        faults.unique([each["id"] for each in root.get(name, ())], f"{name}[{{}}].id", "name")
    for index, panel in enumerate(root.get("panels", ())):
        _check_panel(panel, f"panels[{index}]", elements, faults)
    if "service_port" in root:
        _check_port(root["service_port"], elements, [each["id"] for each in root.get("remembers", ())], faults)


def _check_panel(panel: dict[str, Any], place: str, elements: dict[str, Element], faults: FaultList) -> None:
    kinds = [name for name, kind in KINDS.items() if panel["kind"] in kind.panels]
    for where, name in _set_by(panel, place):
        if name not in elements:
            faults.add(where, f"expected an element of this board ({known(elements)})")
        elif elements[name].kind not in kinds:
            faults.add(where, f"expected an element that a {panel['kind']} panel sets ({', '.join(kinds)})")
    if panel["kind"] == "guided":
        _check_dialogue(panel, place, elements, faults)
    keys = [key for action, key in panel["keys"].items() if action != "notes"]
    if panel["kind"] != "menu" and len(set(keys)) != len(keys):
        faults.add(f"{place}.keys", "expected a key of its own for every action")
    fast = {"fast_up", "fast_down"} & set(panel["keys"])
    if fast and "fast" not in panel:
        faults.add(f"{place}.fast", "expected how many steps one fast press makes")


def panel_elements(panel: dict[str, Any]) -> list[str]:
    """The elements that a panel sets, as its file has it."""
    return [name for _, name in _set_by(panel, "")]


def _set_by(panel: dict[str, Any], place: str) -> list[tuple[str, str]]:
    """The elements that a panel sets, each with the place in the file that names it."""
    match panel["kind"]:
        case "menu":
            return [(f"{place}.items[{index}]", name) for index, name in enumerate(panel["items"])]
        case "guided":
            return [
                (f"{place}.steps.{name}.sets", each["sets"]) for name, each in panel["steps"].items() if "sets" in each
            ]
    return [(f"{place}.element", panel["element"])]


def _check_dialogue(panel: dict[str, Any], place: str, elements: dict[str, Element], faults: FaultList) -> None:
    """Every step leads to one that there is, by answers that can be given, and to an end."""
    steps = panel["steps"]
    if panel.get("start", next(iter(steps))) not in steps:
        faults.add(f"{place}.start", f"expected a step of this dialogue ({known(steps)})")
    for name, step in steps.items():
        where = f"{place}.steps.{name}.then"
        answers = then if isinstance(then := step.get("then"), dict) else {}
        for each in _led_to(step):
            if each not in steps:
                faults.add(where, f"expected a step of this dialogue ({known(steps)})")
        element = elements.get(step.get("sets", ""))
        if answers and element is None:
            faults.add(where, "expected one step: nothing is answered here")
        elif element is not None and (wrong := [each for each in answers if each not in element.points[0].domain]):
            faults.add(
                where, f"expected answers that can be given ({known(element.points[0].domain)}), found {known(wrong)}"
            )
    try:
        TopologicalSorter({name: _led_to(step) for name, step in steps.items()}).prepare()
    except CycleError as error:
        ring = [name for name in steps if name in error.args[1]]
        faults.add(
            f"{place}.steps.{ring[0]}.then", f"expected a way on that comes to an end; {', '.join(ring)} lead round"
        )


def _led_to(step: dict[str, Any]) -> list[str]:
    """The steps that a step leads to."""
    then = step.get("then")
    return list(then.values()) if isinstance(then, dict) else [then] if then else []


def register_words(element: Element | None, scale: Fraction) -> int:
    """How many registers of 16 bits every position of an element fits into; 1 for anything that is no element."""
    if element is None:
        return 1
    bits = element.rules.register_bits(element, scale)
    return max(1, -(-bits // 16))


def _check_port(port: dict[str, Any], elements: dict[str, Element], remembers: list[str], faults: FaultList) -> None:
    faults.unique([each["gives"] for each in port["registers"]], "service_port.registers[{}].gives", "name")
    taken: set[int] = set()
    for index, register in enumerate(port["registers"]):
        among = remembers if register.get("kind") == "remembers" else list(elements)
        if register["gives"] not in among:
            faults.add(f"service_port.registers[{index}].gives", f"expected one of {known(among)}")
        words = register_words(elements.get(register["gives"]), Fraction(register.get("scale", 1)))
        addresses = set(range(register["at"], register["at"] + words))
        if taken & addresses:
            told = f"{words} registers of its own, from here on" if words > 1 else "a register of its own"
            faults.add(f"service_port.registers[{index}].at", f"expected {told}")
        taken |= addresses
