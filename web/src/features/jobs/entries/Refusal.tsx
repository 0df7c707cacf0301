import type { Waiting } from "@/api/outbox";
import { Button } from "@/ui/Button";
import { ProblemNotice } from "@/ui/notices";
import { Problem } from "@/api/client";
import { createContext, useContext, type ReactNode } from "react";

type Refused = { entries: Waiting[]; onWithdraw: (each: Waiting) => void };
const RefusedEntries = createContext<Refused>({ entries: [], onWithdraw: () => undefined });

/** Makes what was refused known to the fields that it speaks of. */
export function RefusedProvider({ entries, onWithdraw, children }: Refused & { children: ReactNode }) {
  return <RefusedEntries.Provider value={{ entries, onWithdraw }}>{children}</RefusedEntries.Provider>;
}

/** What the server would not take at a target, beside the field that it speaks of; stays until it is seen to. */
export function RefusalAt({ target }: { target: string }) {
  const { entries, onWithdraw } = useContext(RefusedEntries);
  return entries
    .filter((each) => each.entry.target === target)
    .map((each) => <RefusalNotice key={each.order} each={each} onWithdraw={onWithdraw} />);
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
