import { ElementEditor } from "@/drawing/ElementEditor";
import type { Element, Position, Positions, Side } from "@/drawing/types";

type Props = {
  elements: Element[];
  values: Positions;
  side: Side;
  /** What each is called for whoever does not see the headings: the element's name comes before it. */
  called: string;
  disabled?: boolean;
  onChange: (positions: Positions) => void;
};

/** Every element of a board, each to be put as it stands or shall stand. */
export function Editors({ elements, values, side, called, disabled, onChange }: Props) {
  return elements.map((element) => (
    <section key={element.id} aria-label={`${element.id} ${called}`}>
      <h3 className="mb-1">
        {element.id} {element.title}
      </h3>
      <ElementEditor
        element={element}
        value={values[element.id]}
        side={side}
        unreadable={side === "original"}
        disabled={disabled}
        onChange={(value: Position) => onChange({ [element.id]: value })}
      />
    </section>
  ));
}
