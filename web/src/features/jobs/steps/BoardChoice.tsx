import { Button } from "@/ui/Button";
import { InkMark } from "@/ui/inks";
import type { ReactNode } from "react";

type Props = {
  board: { part_number: string; maker: string; title: string };
  children?: ReactNode;
  chosen: boolean;
  onChoose: () => void;
};

/** A board that it may be, why, and the way to take it. */
export function BoardChoice({ board, children, chosen, onChoose }: Props) {
  return (
    <li className="flex flex-wrap items-center justify-between gap-3 border-b border-rule py-2">
      <span className="min-w-0">
        <InkMark side="original">{board.part_number}</InkMark> {board.maker}, {board.title}
        <span className="block text-sm text-faint">{children}</span>
      </span>
      {chosen ? (
        <span className="font-semibold">chosen</span>
      ) : (
        <Button aria-label={`This is it: ${board.part_number}`} onClick={onChoose}>
          This is it
        </Button>
      )}
    </li>
  );
}
