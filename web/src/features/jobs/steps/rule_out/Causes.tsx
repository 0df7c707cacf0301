import { Button } from "@/ui/Button";
import { useState } from "react";
import { DraftField } from "../DraftField";
import type { RuleOutProps } from "./types";

/** Why did it die? A cause that is still there blocks power to the new board. */
export function Causes({ job, put, data }: RuleOutProps) {
  const own = data.suspects.find((each) => each.id === "board");
  // who is at it sees every cause; whoever comes back sees those that were found, and opens the others
  const [every, setEvery] = useState(Object.keys(job.causes).length === 0);
  const shown = data.causes.filter((cause) => every || cause.id in job.causes);
  const asked = Object.keys(job.causes).length > 0 || (own?.weight ?? 0) > 0.5;
  return (
    <details open={asked} className="flex flex-col gap-2">
      <summary className="min-h-11 py-2 font-semibold">Why did it die?</summary>
      <p className="text-sm text-faint">
        A shorted load, water or a wrong supply kills the next board as well: what is not cleared keeps the power off.
      </p>
      <ul className="border-t border-rule">
        {shown.map((cause) => {
          const known = job.causes[cause.id];
          const note = typeof known?.note === "string" ? known.note : "";
          const cleared = known?.cleared === true;
          const set = (change: { note?: string; cleared?: boolean }) =>
            void put({ target: `cause.${cause.id}`, after: { note, cleared, ...change } });
          return (
            <li key={cause.id} className="border-b border-rule py-1">
              <label className="flex min-h-11 items-center gap-3">
                <input
                  type="checkbox"
                  className="size-6 shrink-0"
                  checked={known !== undefined}
                  disabled={job.closed}
                  onChange={(event) =>
                    event.target.checked ? set({}) : void put({ target: `cause.${cause.id}`, after: null })
                  }
                />
                {cause.title}
              </label>
              {known && (
                <div className="flex flex-col gap-2 pb-2 pl-9">
                  <DraftField
                    label="What was seen"
                    value={note}
                    disabled={job.closed}
                    onSave={(text) => set({ note: text })}
                  />
                  {cause.blocks_power && (
                    <label className="flex min-h-11 items-center gap-3">
                      <input
                        type="checkbox"
                        className="size-6 shrink-0"
                        checked={cleared}
                        disabled={job.closed}
                        onChange={(event) => set({ cleared: event.target.checked })}
                      />
                      <span>
                        Cleared: {cause.clear}
                        {!cleared && <strong> Until then the new board gets no power.</strong>}
                      </span>
                    </label>
                  )}
                </div>
              )}
            </li>
          );
        })}
      </ul>
      {shown.length < data.causes.length && (
        <Button kind="quiet" onClick={() => setEvery(true)}>
          {data.causes.length - shown.length} other causes
        </Button>
      )}
    </details>
  );
}
