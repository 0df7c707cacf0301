import type { Schemas } from "@/api/client";
import { newId } from "@/api/ids";
import { Button } from "@/ui/Button";
import { lacking } from "@/ui/lacking";
import { TextField } from "@/ui/fields";
import { useKeptState } from "@/ui/typed";
import type { StepProps } from "../../stepProps";
import { Segments } from "@/ui/Segments";

const PARTS = [
  ["to move", "To move"],
  ["moved", "Moved"],
  ["stays", "Stays"],
  ["not there", "Not there"],
] as const;

/** Parts that go across to the new board, and states that only hold for now and must not. */
export function PartsPart({ job, put, record }: StepProps & { record: Schemas["RecordShown"] }) {
  const [what, setWhat] = useKeptState("something else for now", "");
  const noted = Object.entries(job.temporary);
  const offered = record.temporary.filter((each) => !(each.id in job.temporary));
  return (
    <>
      {record.moving.map((part) => (
        <div key={part.id} className="flex flex-col gap-1">
          <p>
            <span className="font-mono">{part.id}</span> {part.what}
            {part.caution && <strong className="block">{part.caution}</strong>}
          </p>
          <Segments
            label={`${part.id} ${part.what}`}
            choices={PARTS}
            value={part.value ?? ""}
            disabled={job.closed}
            onChange={(value) => void put({ target: `moving.${part.id}`, after: value })}
          />
        </div>
      ))}
      <h4 className="font-semibold">Only for now: not carried over</h4>
      {record.acting.map((each) => (
        <p key={each} role="note" className="border-l-4 border-text pl-3">
          Found on: {each}. It is a state, not a setting; the plan leaves it out.
        </p>
      ))}
      {noted.map(([id, state]) => (
        <label key={id} className="flex min-h-11 items-center gap-3">
          <input
            type="checkbox"
            className="size-6 shrink-0"
            disabled={job.closed}
            checked={state.undone}
            onChange={(event) =>
              void put({ target: `temporary.${id}`, after: { what: state.what, undone: event.target.checked } })
            }
          />
          {state.what} {state.undone ? "(undone)" : "(still on: to be undone)"}
        </label>
      ))}
      {!job.closed && (
        <div className="flex flex-wrap items-end gap-2">
          {offered.map((each) => (
            <Button
              key={each.id}
              onClick={() => void put({ target: `temporary.${each.id}`, after: { what: each.title } })}
            >
              {each.title}
            </Button>
          ))}
          <div className="w-72 max-w-full">
            <TextField
              label="Something else bridged, held or overridden"
              maxLength={200}
              value={what}
              onChange={(event) => setWhat(event.target.value)}
            />
          </div>
          <Button
            needs={lacking({ "what it is": !what.trim() })}
            onClick={() => (void put({ target: `temporary.${newId()}`, after: { what: what.trim() } }), setWhat(""))}
          >
            Note it
          </Button>
        </div>
      )}
    </>
  );
}
