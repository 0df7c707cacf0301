import { BoardDrawing } from "@/drawing/BoardDrawing";
import type { Positions, Side } from "@/drawing/types";
import type { Task } from "./task";

/** A board as it is drawn, with its positions. */
export function Drawn({ board, positions, side }: { board: Task["original"]; positions: Positions; side: Side }) {
  return (
    <BoardDrawing
      name={board.part_number}
      document={board.document as never}
      elements={board.elements}
      positions={positions}
      side={side}
    />
  );
}
