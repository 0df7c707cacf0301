import { Button } from "@/ui/Button";
import { ProblemNotice } from "@/ui/notices";
import { RefusedElsewhere } from "./Refusal";
import type { Sending } from "./useEntries";
import type { ReactNode } from "react";

type Props = {
  sending: Sending;
  onRetry: () => void;
  /** Where else to look, beside what waits. */
  children?: ReactNode;
};

/** Whether everything is with the depot, in a word that is always in sight. */
export function SavedWord({ sending }: { sending: Sending }) {
  const { state, waiting, problem, refused, unkept } = sending;
  const entries = waiting === 1 ? "1 entry waits" : `${waiting} entries wait`;
  const words = {
    looking: "",
    saved: refused.length ? "The rest is saved" : "Everything is saved",
    sending: "Saving …",
    waiting: `${problem ? "Not sent yet" : "No connection"}: ${entries} on this device`,
  }[state];
  // a phone has room for the machine's name or for all the words
  const short =
    state === "waiting"
      ? `${waiting} wait${waiting === 1 ? "s" : ""} here`
      : state === "saved" && refused.length === 0 && "saved";
  return (
    <p role="status" className={state === "waiting" ? "font-semibold" : "text-faint"}>
      {short ? (
        <>
          <span aria-hidden="true" className="sm:hidden">
            {short}
          </span>
          <span className="sr-only sm:not-sr-only">{words}</span>
        </>
      ) : (
        words
      )}
      {unkept && state !== "saved" && ". This browser keeps nothing: leave the page open until it is sent"}
    </p>
  );
}

/** What did not go through, until somebody has seen it; it stays in sight, however far down somebody works. */
export function SaveState({ sending, onRetry, children }: Props) {
  const { state, problem, refused } = sending;
  if (state !== "waiting" && !problem && refused.length === 0) return null;
  return (
    <div className="sticky top-20 z-10 mb-3 flex flex-col gap-2 bg-ground pb-2">
      {state === "waiting" && (
        <div className="flex flex-wrap items-center gap-3">
          <Button onClick={onRetry}>Send now</Button>
          {children}
        </div>
      )}
      {problem && <ProblemNotice problem={problem} />}
      <RefusedElsewhere />
    </div>
  );
}
