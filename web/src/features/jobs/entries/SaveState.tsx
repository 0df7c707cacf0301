import type { Waiting } from "@/api/outbox";
import { Button } from "@/ui/Button";
import { ProblemNotice } from "@/ui/notices";
import { RefusalNotice } from "./Refusal";
import type { Sending } from "./useEntries";

type Props = { sending: Sending; onRetry: () => void; onWithdraw: (each: Waiting) => void };

/** Whether everything is with the depot, said quietly; and what did not go through, until somebody has seen it. */
export function SaveState({ sending, onRetry, onWithdraw }: Props) {
  const { state, waiting, problem, refused, unkept } = sending;
  const entries = waiting === 1 ? "1 entry waits" : `${waiting} entries wait`;
  const words = {
    saved: refused.length ? "The rest is saved" : "Everything is saved",
    sending: "Saving …",
    waiting: `${problem ? "Not sent yet" : "No connection"}: ${entries} on this device`,
  }[state];
  const pressing = problem !== null || refused.length > 0 || state === "waiting";
  return (
    // what did not go through stays in sight, however far down somebody works
    <div className={`mb-3 flex flex-col gap-2 ${pressing ? "sticky top-0 z-10 bg-ground pb-2" : ""}`}>
      <p
        role="status"
        className={`flex min-h-8 flex-wrap items-center gap-3 text-sm ${state === "waiting" ? "font-semibold" : "text-faint"}`}
      >
        {words}
        {unkept && state !== "saved" && ". This browser keeps nothing: leave the page open until it is sent"}
        {state === "waiting" && <Button onClick={onRetry}>Send now</Button>}
      </p>
      {problem && <ProblemNotice problem={problem} />}
      {refused.map((each) => (
        <RefusalNotice key={each.order} each={each} onWithdraw={onWithdraw} />
      ))}
    </div>
  );
}
