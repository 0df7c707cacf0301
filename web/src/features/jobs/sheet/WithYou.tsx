import type { Job } from "../api";
import { useSession } from "@/api/session";
import { Button } from "@/ui/Button";
import { ProblemNotice } from "@/ui/notices";
import { clock } from "@/ui/times";
import { useAlong } from "@/with_you/useAlong";

/** Whether this job is along, so that it goes on where there is no connection; and the way to take it. */
export function WithYou({ job }: { job: Job }) {
  const person = useSession().data?.username ?? "";
  const { taken, stays, away, progress, problem, take, leave } = useAlong(person, job.id, job.entry_count, job.closed);
  if (progress)
    return (
      <p role="status">
        Taking along: {progress.done} of {progress.of}, {size(progress.bytes)}
      </p>
    );
  return (
    <div className="flex flex-col gap-2">
      <p>
        {taken ? `With you, as of ${clock(taken.asOf)} (${size(taken.bytes)})` : "Not with you"}
        {away && (taken ? ". No connection: it is worked out on this device." : ". No connection.")}
      </p>
      {!stays && (
        <p className="text-faint">
          The browser does not promise to keep it when the device runs short of room. Send what waits as soon as you
          can.
        </p>
      )}
      {!away && (
        <div className="flex flex-wrap gap-2">
          <Button onClick={() => void take()}>{taken ? "Take it along anew" : "Take along"}</Button>
          {taken?.asked && <Button onClick={() => void leave()}>Leave it behind</Button>}
        </div>
      )}
      <ProblemNotice problem={problem} />
    </div>
  );
}

const size = (bytes: number) => (bytes < 1e6 ? `${Math.ceil(bytes / 1000)} kB` : `${(bytes / 1e6).toFixed(1)} MB`);
