import type { Schemas } from "@/api/client";
import { Button } from "@/ui/Button";
import { lacking } from "@/ui/lacking";
import { TextArea } from "@/ui/fields";
import { useKeptState } from "@/ui/typed";
import { useState } from "react";
import type { StepProps } from "../stepProps";

/** The way back to power: what is missing is named, hold points are released from the last to the first. */
export function Energise({
  job,
  put,
  fitting,
}: StepProps & { fitting: Pick<Schemas["FittingShown"], "missing_dead" | "missing_beside" | "release"> }) {
  const [released, setReleased] = useState<string[]>([]);
  const [reason, setReason] = useKeptState("left before power", "");
  const [anyway, setAnyway] = useState(false);
  const missing = [...fitting.missing_dead, ...fitting.missing_beside];
  const next = fitting.release[released.length];
  if (missing.length > 0 && !anyway)
    return (
      <section aria-label="Back to power" className="flex flex-col gap-2 border-y border-rule py-3">
        <p className="font-semibold">Before power, still to do on the dead machine:</p>
        <ul className="list-disc pl-5">
          {missing.map((each) => (
            <li key={each}>{each}</li>
          ))}
        </ul>
        <Button kind="quiet" className="self-start" onClick={() => setAnyway(true)}>
          This cannot be done without power
        </Button>
      </section>
    );
  return (
    <section aria-label="Back to power" className="hatched flex flex-col gap-3 p-4">
      <h3>Back to power</h3>
      {missing.length > 0 && (
        <>
          <p>Not done: {missing.join("; ")}.</p>
          <TextArea
            label="Why this is left"
            hint="The reason stands on the job sheet."
            maxLength={2000}
            value={reason}
            onChange={(event) => setReason(event.target.value)}
          />
        </>
      )}
      {job.uncleared.length > 0 && (
        <p className="font-semibold">
          The fault that killed the old board has not been fixed. Fix it before you power up the new one.
        </p>
      )}
      <p>Release the hold points from the last to the first; people clear, covers on, tools out.</p>
      <ol className="list-decimal pl-6">
        {fitting.release.map((point, index) => (
          <li key={point.id} className="py-1">
            <label className="flex min-h-11 items-center gap-3">
              <input
                type="checkbox"
                className="size-6"
                checked={released.includes(point.id)}
                disabled={index > released.length || index < released.length - 1}
                onChange={(event) =>
                  setReleased(event.target.checked ? [...released, point.id] : released.slice(0, -1))
                }
              />
              <span>
                <strong>{point.title}</strong> <span className="text-faint">released</span>
              </span>
            </label>
          </li>
        ))}
      </ol>
      <p className="font-semibold">
        From here the machine has power. Nothing is touched inside; whoever works inside again locks off first.
      </p>
      <Button
        kind="main"
        className="self-start"
        needs={lacking({
          "release every hold point": next !== undefined,
          "the reason why something is left": missing.length > 0 && !reason.trim(),
          "clear what killed the old board": job.uncleared.length > 0,
        })}
        onClick={() => {
          void put({ target: "energised", after: { released }, reason: reason.trim() });
          setReason("");
        }}
      >
        The supply is on
      </Button>
    </section>
  );
}
