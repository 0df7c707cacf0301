"""A sketch read back in words, so that whoever made it hears what was understood."""

from twincore.sketch.model import Sketch, SketchedElement, SketchedPlug

KIND_WORDS = {
    "rotary": "a dial", "jumper": "a jumper", "trimmer": "a trimmer", "program": "a program number",
}  # fmt: skip


def sketch_words(sketch: Sketch) -> list[str]:
    """Each thing of a sketch as a sentence; what nobody could tell is said to be not known."""
    lines = [_element(each) for each in sketch.elements] + [_plug(each) for each in sketch.plugs]
    seen = [f"{sketch.relays} relay{'s' if sketch.relays > 1 else ''}"] if sketch.relays else []
    seen += [f"a {part}" for part in sketch.parts]
    if seen:
        lines.append(f"Also seen: {', '.join(seen)}.")
    if sketch.colour or sketch.size_mm:
        size = f"{sketch.size_mm[0]:g} by {sketch.size_mm[1]:g} mm" if sketch.size_mm else ""
        lines.append(f"The board is {', '.join(each for each in (sketch.colour, size) if each)}.")
    return lines


def _element(element: SketchedElement) -> str:
    match element.kind:
        case "dip":
            on = f"on is {element.on}" if element.on else "nobody could tell which way is on"
            first = f"number 1 is at the {element.first}" if element.first else "nobody could tell where number 1 is"
            return f"{element.id}: a bank of {element.places} switches; {on}, {first}."
        case "thumbwheel":
            return f"{element.id}: {element.places} thumbwheel{'s' if element.places > 1 else ''}, 0 to 9 each."
        case "code":
            return f"{element.id}: a code of {element.places} digits."
        case "parameter":
            low, high, step = element.span or (0, 0, 1)
            unit = f" {element.unit}" if element.unit else ""
            return f"{element.id}: a number from {low:g} to {high:g}{unit} in steps of {step:g}."
    return f"{element.id}: {KIND_WORDS[element.kind]} that may stand at {', '.join(element.values)}."


def _plug(plug: SketchedPlug) -> str:
    keyed = "nobody could tell whether it is keyed" if plug.keyed is None else "keyed" if plug.keyed else "not keyed"
    marked = f", marked {' '.join(plug.marks)}" if plug.marks else ""
    return f"{plug.id}: a plug with {plug.pins} pin{'s' if plug.pins > 1 else ''}, {keyed}{marked}."
