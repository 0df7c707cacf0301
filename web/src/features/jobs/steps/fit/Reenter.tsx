import type { Schemas } from "@/api/client";
import type { StepProps } from "../../stepProps";
import { DraftField } from "../DraftField";

/** What the old board knew and the new one has to be told: entered, then written down as the new board shows it. */
export function Reenter({ job, put, fitting }: StepProps & { fitting: Schemas["FittingShown"] }) {
  return (
    <ul className="border-t border-rule">
      {fitting.reenter.map((each) => (
        <li key={each.id} className="grid gap-2 border-b border-rule py-3 sm:grid-cols-2">
          <div>
            <p className="font-semibold">{each.what}</p>
            <p className="text-original">{each.value}</p>
            {each.enter && <p className="text-sm text-faint">{each.enter}</p>}
          </div>
          <DraftField
            label={`The new board shows now: ${each.what}`}
            value={job.reentered[each.id] ?? ""}
            disabled={job.closed}
            onSave={(text) => void put({ target: `reentered.${each.id}`, after: text || null })}
          />
        </li>
      ))}
    </ul>
  );
}
