import { Button } from "@/ui/Button";
import type { Change } from "../entries/targets";
import type { StepProps } from "../stepProps";

/** Entries that say nothing that can stand: told with what was expected, and taken back before anything else is said. */
export function VoidBanner({ job, put }: StepProps) {
  if (job.void.length === 0) return null;
  return (
    <section aria-label="Entries that cannot stand" className="hatched my-2 flex flex-col gap-2 px-3 py-2">
      {job.void.map(({ number, target, expected, here }) => (
        <p key={number} className="flex flex-wrap items-center gap-x-4 gap-y-1">
          <span className="grow">
            <strong>
              Entry {number} (<span className="font-mono">{target}</span>) cannot stand:
            </strong>{" "}
            {expected}.{" "}
            {job.closed || here ? "It is left out of this sheet." : "Take it back on the other board’s sheet."}
          </span>
          {here && !job.closed && (
            <Button
              aria-label={`Take entry ${number} back`}
              onClick={() => void put({ target, after: null, reason: "It cannot stand", again: true } as Change)}
            >
              Take it back
            </Button>
          )}
        </p>
      ))}
    </section>
  );
}
