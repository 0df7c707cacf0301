import { useSession } from "@/api/session";
import { Button } from "@/ui/Button";
import { ProblemNotice } from "@/ui/notices";
import { Pager } from "@/ui/Pager";
import { useNavigate } from "@tanstack/react-router";
import { useState } from "react";
import { JoinSheet } from "./JoinSheet";
import { useOpenDraft, useSketches } from "./api";
import { called } from "./words";

/** Boards of which only a sketch is known: whoever has the leaflet completes them, or says which board one is. */
export function Sketches() {
  const [page, setPage] = useState(1);
  const [joining, setJoining] = useState<string | null>(null);
  const leads = useSession().data?.keeps_catalogue;
  const sketches = useSketches(page);
  const open = useOpenDraft();
  const navigate = useNavigate();
  if (!sketches.data?.total) return null;
  return (
    <section className="flex flex-col gap-3">
      <h2>Sketched, to be completed</h2>
      <ProblemNotice problem={open.error} />
      <ul className="border-t border-rule" aria-label="Sketches">
        {sketches.data.items.map((each) => (
          <li key={each.part_number} className="flex flex-wrap items-center gap-x-4 border-b border-rule py-2">
            <span className="font-mono font-semibold">{each.part_number}</span>
            <span>{called(each)}</span>
            <span className="text-faint">{each.standing}</span>
            <span className="ml-auto flex flex-wrap gap-2">
              {leads && (
                <Button
                  kind="quiet"
                  aria-label={`${each.part_number} is a board that is there`}
                  onClick={() => setJoining(each.part_number)}
                >
                  It is a board that is there
                </Button>
              )}
              <Button
                aria-label={`Complete ${each.part_number}`}
                onClick={() =>
                  open.mutate(each.part_number, {
                    onSuccess: (draft) =>
                      void navigate({ to: "/workshop/$draft", params: { draft: draft.id }, search: {} }),
                  })
                }
              >
                Complete it
              </Button>
            </span>
          </li>
        ))}
      </ul>
      <Pager {...sketches.data} onPage={setPage} />
      {joining && <JoinSheet sketch={joining} onClose={() => setJoining(null)} />}
    </section>
  );
}
