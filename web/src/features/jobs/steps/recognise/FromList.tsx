import { Pager } from "@/ui/Pager";
import { useState } from "react";
import { useBoardChoices } from "../../api";
import { BoardChoice } from "../BoardChoice";

type Props = { chosen: string | null; family: string | null; onChoose: (partNumber: string, how: string) => void };

/** The catalogue's list, of this family where it is known. */
export function FromList({ chosen, family, onChoose }: Props) {
  const [open, setOpen] = useState(false);
  const [page, setPage] = useState(1);
  const boards = useBoardChoices("", page, family ?? "");
  return (
    <details onToggle={(event) => setOpen(event.currentTarget.open)}>
      <summary className="min-h-11 py-2 font-semibold">Choose from the list</summary>
      {open && (
        <>
          <ul className="border-t border-rule">
            {boards.data?.items.map((board) => (
              <BoardChoice
                key={board.part_number}
                board={board}
                chosen={chosen === board.part_number}
                onChoose={() => onChoose(board.part_number, "chosen from the list")}
              >
                {board.standing || (board.status === "current" ? "still made" : "discontinued")}
              </BoardChoice>
            ))}
          </ul>
          {boards.data && <Pager {...boards.data} onPage={setPage} />}
        </>
      )}
    </details>
  );
}
