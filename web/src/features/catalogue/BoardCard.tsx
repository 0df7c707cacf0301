import { BoardSketch } from "@/drawing/BoardSketch";
import type { BoardDocument } from "@/drawing/types";
import { Link } from "@tanstack/react-router";
import type { Card } from "./api";

/** A board to choose from: drawn small, with what it is and, where that was asked, what makes it a stand-in. */
export function BoardCard({ board }: { board: Card }) {
  return (
    <li className="min-w-0 border-b border-rule">
      <Link
        to="/catalogue/$partNumber"
        params={{ partNumber: board.part_number }}
        search={{}}
        className="flex h-full flex-wrap items-start gap-x-4 gap-y-2 py-3 no-underline hover:bg-raised"
      >
        <span className="block w-28 shrink-0">
          <BoardSketch name={board.part_number} sketch={board.sketch as BoardDocument} />
        </span>
        <span className="min-w-0 flex-1 basis-40">
          <span className="block font-mono text-lg font-semibold">{board.part_number}</span>
          <span className="block">
            {board.maker}, {board.title}
          </span>
          {board.relation && (
            <span className="block">
              <strong>{board.relation}</strong>
              {(board.links ?? 1) > 1 && ` over ${board.links} boards`}
              {board.missing && board.missing.length > 0 && `; hangs on ${board.missing.map(plain).join(", ")}`}
            </span>
          )}
          <span className="block text-sm text-faint">
            {board.family_title},{" "}
            {board.withdrawn
              ? "withdrawn"
              : board.standing || (board.status === "current" ? "still made" : "discontinued")}
          </span>
        </span>
      </Link>
    </li>
  );
}

/** The name of a fact as words. */
function plain(fact: string): string {
  return fact.replace(/[._]/g, " ");
}
