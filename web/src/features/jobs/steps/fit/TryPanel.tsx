import { Button } from "@/ui/Button";
import { ProblemNotice } from "@/ui/notices";
import { useState } from "react";
import { type Job } from "../../api";
import { usePanel } from "../../endApi";

/** The front panel simulated from the same data: to try the presses before the real keys. */
export function TryPanel({ job, index }: { job: Job; index: number }) {
  const [open, setOpen] = useState(false);
  const [actions, setActions] = useState<string[]>([]);
  const panel = usePanel(job, index, actions, open);
  if (!open)
    return (
      <Button className="self-start" onClick={() => setOpen(true)}>
        Try it on a simulated panel first
      </Button>
    );
  const now = panel.data;
  return (
    <div className="flex flex-col gap-2 border border-dashed border-edge p-3" role="group" aria-label="Simulated panel">
      <p className="text-sm text-faint">Simulated: nothing here reaches the machine.</p>
      <ProblemNotice problem={panel.error} />
      {now && (
        <>
          <p
            role="status"
            aria-label="Simulated display"
            className="self-start border-2 border-text bg-text px-4 py-2 font-mono text-4xl text-ground"
          >
            {now.shows || "–"}
          </p>
          <p className="text-sm">
            Holds{" "}
            {Object.entries(now.stored)
              .map(([name, value]) => `${name} ${value}`)
              .join(", ")}
            {now.reached && <strong>: as planned</strong>}
          </p>
          <div className="flex flex-wrap gap-2">
            {now.keys.map((key) => (
              <Button
                key={key.action}
                aria-label={`${key.key} ${key.action.replace("_", " ")}, simulated key`}
                onClick={() => setActions([...actions, key.action])}
              >
                <span className="font-mono text-xl">{key.key}</span>{" "}
                <span className="text-sm text-faint">{key.action.replace("_", " ")}</span>
              </Button>
            ))}
          </div>
        </>
      )}
      <div className="flex gap-2">
        <Button kind="quiet" disabled={actions.length === 0} onClick={() => setActions(actions.slice(0, -1))}>
          Undo the last press
        </Button>
        <Button kind="quiet" onClick={() => (setActions([]), setOpen(false))}>
          Put it away
        </Button>
      </div>
    </div>
  );
}
