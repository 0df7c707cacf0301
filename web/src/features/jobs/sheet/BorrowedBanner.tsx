import { Button } from "@/ui/Button";
import type { Job } from "../api";
import type { StepProps } from "../stepProps";

const TOLD = ["cannot tell", "skipped", "cannot do", "not sure"];

/** What tests moved or pulled and nobody has said to be back: in sight on every page of the job until it is. */
export function BorrowedBanner({ job, put }: StepProps) {
  const open = Object.entries(job.tests).filter(
    ([, test]) => test.undo && test.restored !== true && !TOLD.includes(test.result ?? ""),
  );
  if (open.length === 0 || job.closed) return null;
  return (
    <section aria-label="To be put back" className="hatched my-2 flex flex-col gap-2 px-3 py-2">
      {open.map(([name, test]) => (
        <p key={name} className="flex flex-wrap items-center gap-x-4 gap-y-1">
          <span className="grow">
            <strong>Still to be put back:</strong> {test.undo}
            {test.as_found && <span className="text-faint"> (it stood: {test.as_found})</span>}
          </span>
          <Button
            aria-label={`It is back: ${test.undo}`}
            onClick={() => void put({ target: `test.${name}`, after: { ...said(test), restored: true } })}
          >
            It is back
          </Button>
        </p>
      ))}
    </section>
  );
}

/** A test as it was said, without what is kept beside it. */
function said({ result, value, beyond, uncertainty, at_c, note, as_found }: Job["tests"][string]) {
  const all = { result, value, beyond, uncertainty, at_c, note, as_found };
  return Object.fromEntries(Object.entries(all).filter(([, each]) => each != null));
}
