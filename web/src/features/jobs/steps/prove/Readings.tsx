import type { Schemas } from "@/api/client";
import { Band } from "@/drawing/Band";
import type { StepProps } from "../../stepProps";
import { ReadingField } from "../ReadingField";
import { RISK_WORDS } from "./words";

/** Readings on the running machine, each against its band. */
export function Readings({ job, put, readings }: StepProps & { readings: Schemas["ReadingTaken"][] }) {
  return (
    <ul className="border-t border-rule">
      {readings.map((each) => (
        <li key={each.id} className="grid gap-3 border-b border-rule py-3 sm:grid-cols-2">
          <div>
            <ReadingField
              label={`${each.title} in ${each.unit}`}
              hint={`${bandWords(each)}, read to ± ${each.uncertainty} ${each.unit}`}
              className="font-mono text-2xl"
              value={{ value: each.value, beyond: each.beyond }}
              disabled={job.closed}
              onSave={(value) => void put({ target: `reading.${each.id}`, after: value })}
            />
          </div>
          <div className="flex flex-col gap-1">
            {each.risk !== "none" && <p className="font-semibold">{RISK_WORDS[each.risk] ?? each.risk}</p>}
            {each.how.map((line) => (
              <p key={line}>{line}</p>
            ))}
            {each.verdict && (
              <>
                {each.beyond && <p className="font-mono">{each.read}</p>}
                {each.value !== null && !each.beyond && (
                  <Band
                    value={each.value}
                    low={each.low}
                    high={each.high}
                    unit={each.unit}
                    uncertainty={each.uncertainty}
                  />
                )}
                <p className={each.verdict === "outside" ? "font-semibold" : ""}>
                  {each.verdict}
                  {each.margin !== null && `, ${Math.abs(each.margin).toFixed(2)} ${each.unit} from the nearer end`}
                </p>
              </>
            )}
            <p className="text-sm text-faint">{each.source}</p>
          </div>
        </li>
      ))}
    </ul>
  );
}

function bandWords({ low, high, unit }: Schemas["ReadingTaken"]) {
  if (low === null) return `at most ${high} ${unit}`;
  if (high === null) return `at least ${low} ${unit}`;
  return `${low} to ${high} ${unit}`;
}
