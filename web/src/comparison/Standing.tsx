import { HungBank } from "@/drawing/HungBank";
import type { Element, Positions, Side } from "@/drawing/types";
import { Button } from "@/ui/Button";
import { SideName } from "@/ui/inks";

export type Board = { part_number: string; elements: Element[]; document: Record<string, unknown> };

type Props = {
  side: Side;
  title: string;
  board: Board;
  positions: Positions;
  overrides?: Positions;
  onEdit?: (element: string) => void;
};

/** How a board stands, element by element as the eye meets it: banks drawn as they hang, anything else in large type. */
export function Standing({ side, title, board, positions, overrides = {}, onEdit }: Props) {
  return (
    <section aria-label={title} className="min-w-0">
      <h3 className="mb-2">
        <SideName side={side}>
          {title} <span className="font-mono">{board.part_number}</span>
        </SideName>
      </h3>
      <ul className="flex flex-col gap-3">
        {board.elements.map((element) => (
          <li key={element.id}>
            <div className="flex flex-wrap items-center gap-3">
              <span className="w-14 font-mono font-semibold">{element.id}</span>
              {element.kind === "dip" ? (
                <HungBank element={element} value={positions[element.id]} side={side} />
              ) : (
                <span
                  className={`border-2 px-3 py-1 font-mono text-2xl ${side === "original" ? "border-original text-original" : "rounded-xl border-replacement text-replacement"}`}
                >
                  {positions[element.id] ?? "–"}
                  {element.unit && <span className="text-base"> {element.unit}</span>}
                </span>
              )}
              {onEdit && (
                <Button kind="quiet" aria-label={`Change ${element.id}`} onClick={() => onEdit(element.id)}>
                  Change{element.id in overrides ? "d" : ""}
                </Button>
              )}
            </div>
          </li>
        ))}
        {board.elements.length === 0 && <li className="text-faint">Nothing to set on this board.</li>}
      </ul>
    </section>
  );
}
