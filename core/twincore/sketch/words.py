"""A sketch read back in words, so that whoever made it hears what was understood."""

from twincore.profile import KINDS
from twincore.sketch.model import Sketch, SketchedElement, SketchedPlug


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
    return f"{element.id}: {KINDS[element.kind].sketch_words(element)}."


def _plug(plug: SketchedPlug) -> str:
    keyed = "nobody could tell whether it is keyed" if plug.keyed is None else "keyed" if plug.keyed else "not keyed"
    marked = f", marked {' '.join(plug.marks)}" if plug.marks else ""
    return f"{plug.id}: a plug with {plug.pins} pin{'s' if plug.pins > 1 else ''}, {keyed}{marked}."
