import { asSeen, hangingWords } from "@/drawing/hanging";
import type { Positions } from "@/drawing/types";
import { InkMark } from "@/ui/inks";
import type { Board } from "./Standing";

/** How a new board would be set, element by element: a bank as the eye meets it, with the way to look at it. */
export function SetPositions({ board, positions }: { board: Board; positions: Positions }) {
  return (
    <span className="flex flex-wrap items-center gap-1">
      {Object.entries(positions).map(([name, value]) => {
        const element = board.elements.find((each) => each.id === name);
        const bank = element?.kind === "dip" ? element : null;
        return (
          <span key={name}>
            <InkMark side="replacement">
              {name} {element ? asSeen(element, value) : value}
            </InkMark>
            {bank && <span className="text-sm"> {hangingWords(bank.hanging, bank.points.length)}</span>}
          </span>
        );
      })}
    </span>
  );
}
