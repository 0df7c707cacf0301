import { useSession } from "@/api/session";
import { Button } from "@/ui/Button";
import { ProblemNotice } from "@/ui/notices";
import { Pager } from "@/ui/Pager";
import { when } from "@/ui/times";
import { useState } from "react";
import { useMakeCurrent, useRevisions } from "./api";

type Props = { partNumber: string; shown: number; onShow: (revision: number) => void };

/** Every revision of a board, newest first; whoever keeps the catalogue makes an earlier one current again. */
export function Revisions({ partNumber, shown, onShow }: Props) {
  const [page, setPage] = useState(1);
  const session = useSession();
  const revisions = useRevisions(partNumber, page);
  const newest = useRevisions(partNumber, 1).data?.items[0]?.number;
  const again = useMakeCurrent();
  return (
    <section className="flex flex-col gap-3">
      <h2>Revisions</h2>
      <ul className="border-t border-rule">
        {revisions.data?.items.map((each) => (
          <li key={each.number} className="border-b border-rule">
            <button
              type="button"
              className="min-h-11 w-full py-2 text-left"
              aria-current={each.number === shown}
              onClick={() => onShow(each.number)}
            >
              Revision {each.number}, {when(each.loaded_at)}, {each.loaded_by}
              {each.number === shown && " (shown)"}
            </button>
          </li>
        ))}
      </ul>
      {revisions.data && <Pager {...revisions.data} onPage={setPage} />}
      <ProblemNotice problem={again.error} />
      {session.data?.keeps_catalogue && newest !== undefined && shown < newest && (
        <Button
          className="self-start"
          onClick={() =>
            again.mutate({ part_number: partNumber, revision: shown }, { onSuccess: (board) => onShow(board.revision) })
          }
        >
          Make revision {shown} current again
        </Button>
      )}
    </section>
  );
}
