import type { Schemas } from "@/api/client";
import type { Job } from "../../api";

/** What stands out before anything is set: off its own table, a test mode found on, a slot between two marks. */
export function Notes({ job, comparison }: { job: Job; comparison: Schemas["ComparisonShown"] }) {
  const { off_own_table: off, acting, between, alternatives } = comparison;
  return (
    <>
      {Object.entries(job.assumed).map(([name, each]) => (
        <p key={name} role="note" className="border-l-4 border-text pl-3">
          <strong>
            <span className="font-mono">{name}</span> is assumed
          </strong>
          , not read ({each.by}): all that follows rests on it.
        </p>
      ))}
      {off.length > 0 && (
        <div role="note" className="border-l-4 border-text pl-3">
          <p className="font-semibold">The original itself stood off its own table. Set wrong, or for a reason?</p>
          <ul>
            {off.map((each) => (
              <li key={each.point}>
                <span className="font-mono">{each.point}</span> stood {each.found}; its leaflet says {each.table} for
                this machine.
              </li>
            ))}
          </ul>
        </div>
      )}
      {acting.map((each) => (
        <p key={each.point} role="note" className="border-l-4 border-text pl-3">
          <span className="font-mono">{each.point}</span> was found on: {each.what}
          {each.ends && `, ends ${each.ends}`}. It is a state and is not carried over.
        </p>
      ))}
      {between.map((each) => (
        <p key={each.id}>
          {each.title} was read between two marks: <strong>{each.value}</strong>, somewhere from {each.low} to{" "}
          {each.high}.
        </p>
      ))}
      {alternatives.length > 0 && (
        <details>
          <summary className="min-h-11 py-2 font-semibold">
            {alternatives.length} other settings give the same functions
          </summary>
          <ul className="font-mono">
            {alternatives.map((each, index) => (
              <li key={index}>
                {Object.entries(each)
                  .map(([name, value]) => `${name} ${String(value)}`)
                  .join("  ")}
              </li>
            ))}
          </ul>
        </details>
      )}
    </>
  );
}
