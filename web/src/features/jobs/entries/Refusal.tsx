import type { Waiting } from "@/api/outbox";
import { Button } from "@/ui/Button";
import { ProblemNotice } from "@/ui/notices";
import { Problem } from "@/api/client";
import { createContext, useCallback, useContext, useLayoutEffect, useMemo, useState, type ReactNode } from "react";

type Withdraw = (each: Waiting) => unknown;
type Refused = {
  entries: Waiting[];
  onWithdraw: Withdraw;
  /** The targets whose fields show what was refused; a target twice where two fields do. */
  shown: readonly string[];
  /** Say that a field shows what was refused at its target; the answer takes that back. */
  showing: (target: string) => () => void;
};

const RefusedEntries = createContext<Refused>({
  entries: [],
  onWithdraw: () => {},
  shown: [],
  showing: () => () => {},
});

/** Makes what was refused known to the fields that it speaks of. */
export function RefusedProvider(props: { entries: Waiting[]; onWithdraw: Withdraw; children: ReactNode }) {
  const { entries, onWithdraw, children } = props;
  const [shown, setShown] = useState<readonly string[]>([]);
  const showing = useCallback((target: string) => {
    setShown((before) => [...before, target]);
    return () => setShown((now) => now.filter((_, index) => index !== now.indexOf(target)));
  }, []);
  const value = useMemo(() => ({ entries, onWithdraw, shown, showing }), [entries, onWithdraw, shown, showing]);
  return <RefusedEntries.Provider value={value}>{children}</RefusedEntries.Provider>;
}

/** What the server would not take at a target, beside the field that it speaks of; it stays until it is seen to. */
export function RefusalAt({ target }: { target: string }) {
  const { entries, onWithdraw, showing } = useContext(RefusedEntries);
  const refused = entries.filter((each) => each.entry.target === target);
  const some = refused.length > 0;
  useLayoutEffect(() => (some ? showing(target) : undefined), [some, showing, target]);
  return refused.map((each) => (
    <div key={each.order} role="alert" className="flex flex-col gap-2 border-l-4 border-text pl-3">
      <p className="font-semibold">Not saved. {each.refused?.detail}</p>
      <Seen each={each} onWithdraw={onWithdraw} />
    </div>
  ));
}

/** What was refused where no field in sight of the page shows it: why, and the way to take it back. */
export function RefusedElsewhere() {
  const { entries, onWithdraw, shown } = useContext(RefusedEntries);
  return entries
    .filter((each) => !shown.includes(each.entry.target))
    .map(
      (each) =>
        each.refused && (
          <div key={each.order} className="flex flex-col gap-2">
            <ProblemNotice
              problem={new Problem(each.refused.status, each.refused.title, each.refused.detail, each.refused.faults)}
            />
            <Seen each={each} onWithdraw={onWithdraw} />
          </div>
        ),
    );
}

function Seen({ each, onWithdraw }: { each: Waiting; onWithdraw: Withdraw }) {
  return (
    <Button className="self-start" onClick={() => onWithdraw(each)}>
      I have seen this
    </Button>
  );
}
