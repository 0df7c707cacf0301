import type { Schemas } from "@/api/client";
import { Segments } from "@/ui/Segments";
import type { StepProps } from "../../stepProps";

const WAYS = [
  ["moved", "Moved across"],
  ["stays", "Stays on the old board"],
  ["not there", "Was not there"],
] as const;

/** The parts that go across, each with its caution and its place: none can be forgotten. */
export function MovePart({ job, put, fitting }: StepProps & { fitting: Schemas["FittingShown"] }) {
  return (
    <ul className="border-t border-rule">
      {fitting.moving.map((part) => (
        <li key={part.id} className="flex flex-col gap-2 border-b border-rule py-3">
          <p>
            <span className="font-mono font-semibold">{part.id}</span> {part.what}
            {part.place && `, to ${part.place}`}
            {part.caution && <strong className="block">{part.caution}</strong>}
          </p>
          <Segments
            label={`${part.id} ${part.what}`}
            choices={WAYS}
            value={part.value ?? ""}
            disabled={job.closed || job.energised !== null}
            onChange={(value) => void put({ target: `moving.${part.id}`, after: value })}
          />
        </li>
      ))}
    </ul>
  );
}
