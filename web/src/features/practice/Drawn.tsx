import { BoardDrawing } from "@/drawing/BoardDrawing";
import type { Positions, Side } from "@/drawing/types";
import type { Task } from "./task";

export type DrawnBoard = { board: Task["original"]; positions: Positions; side: Side };

/** A board as it is drawn, with its positions. */
export function Drawn({ board, positions, side }: DrawnBoard) {
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
