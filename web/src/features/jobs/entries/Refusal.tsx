import type { Waiting } from "@/api/outbox";
import { Button } from "@/ui/Button";
import { ProblemNotice } from "@/ui/notices";
import { Problem } from "@/api/client";
import { createContext, useContext, type ReactNode } from "react";

const RefusedEntries = createContext<Waiting[]>([]);

/** Makes what was refused known to the fields that it speaks of. */
export function RefusedProvider({ entries, children }: { entries: Waiting[]; children: ReactNode }) {
  return <RefusedEntries.Provider value={entries}>{children}</RefusedEntries.Provider>;
}

/** What the server would not take at a target, beside the field that it speaks of; it stays until it is seen to. */
export function RefusalAt({ target }: { target: string }) {
  const refused = useContext(RefusedEntries).filter((each) => each.entry.target === target);
  return refused.map((each) => (
    <p key={each.order} className="border-l-4 border-text pl-3 font-semibold">
      Not taken: {each.refused?.detail}
    </p>
  ));
}

/** One refused entry: why, and the way to take it back. */
export function RefusalNotice({ each, onWithdraw }: { each: Waiting; onWithdraw: (each: Waiting) => void }) {
  const refused = each.refused;
  if (!refused) return null;
  return (
    <div className="flex flex-col gap-2">
      <ProblemNotice problem={new Problem(refused.status, refused.title, refused.detail, refused.faults)} />
      <Button className="self-start" onClick={() => onWithdraw(each)}>
        I have seen this
      </Button>
    </div>
  );
}
