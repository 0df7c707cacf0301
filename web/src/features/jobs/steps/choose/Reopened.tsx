import { Button } from "@/ui/Button";
import { lacking } from "@/ui/lacking";
import { TextField } from "@/ui/fields";
import { useKeptState } from "@/ui/typed";
import type { StepProps } from "../../stepProps";

/** The record is complete and the choice looks otherwise now: what changed, and whether it is kept. */
export function Reopened({ job, put }: StepProps) {
  const [reason, setReason, forget] = useKeptState("why it is kept", "");
  const { rejudged, replacement } = job;
  if (!rejudged || !replacement) return null;
  return (
    <div role="alert" className="flex flex-col gap-2 border-l-4 border-text bg-raised px-4 py-3">
      <p className="font-semibold">The choice is open again: the complete record changes how the boards stand.</p>
      <ul className="list-disc pl-5">
        {rejudged.changes.map((each) => (
          <li key={each.board}>
            <span className="font-mono">{each.board}</span> is {each.what}: was {each.was}; now {each.now}
          </li>
        ))}
      </ul>
      {!job.closed && (
        <>
          <div className="max-w-md">
            <TextField
              label={`Why ${replacement} is kept`}
              maxLength={2000}
              value={reason}
              onChange={(event) => setReason(event.target.value)}
            />
          </div>
          <Button
            className="self-start"
            needs={lacking({ "the reason": !reason.trim() })}
            onClick={() => {
              void put({ target: "replacement", after: replacement, reason: reason.trim(), again: true });
              forget();
            }}
          >
            Keep {replacement}
          </Button>
          <p className="text-sm text-faint">Or take another one below.</p>
        </>
      )}
    </div>
  );
}
