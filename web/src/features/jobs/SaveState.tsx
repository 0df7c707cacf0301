import { Button } from "@/ui/Button";
import { ProblemNotice } from "@/ui/notices";
import type { Sending } from "./useEntries";

type Props = { sending: Sending; onRetry: () => void; onSeen: () => void };

/** Whether everything is with the depot, said quietly; and what did not go through. */
export function SaveState({ sending, onRetry, onSeen }: Props) {
  const words = {
    saved: "Everything is saved",
    sending: "Saving …",
    waiting: `No connection: ${sending.waiting} ${sending.waiting === 1 ? "entry waits" : "entries wait"} on this device`,
  }[sending.state];
  return (
    // what did not go through stays in sight, however far down somebody works
    <div
      className={`mb-3 flex flex-col gap-2 ${sending.problem || sending.state === "waiting" ? "sticky top-0 z-10 bg-ground pb-2" : ""}`}
    >
      <p
        role="status"
        className={`flex min-h-8 flex-wrap items-center gap-3 text-sm ${sending.state === "waiting" ? "font-semibold" : "text-faint"}`}
      >
        {words}
        {sending.state === "waiting" && <Button onClick={onRetry}>Send now</Button>}
      </p>
      {sending.problem && (
        <div className="flex flex-col gap-2">
          <ProblemNotice problem={sending.problem} />
          <Button className="self-start" onClick={onSeen}>
            I have seen this
          </Button>
        </div>
      )}
    </div>
  );
}
