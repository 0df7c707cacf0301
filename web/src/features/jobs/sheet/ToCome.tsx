import type { Job } from "../api";
import { STEP_NAMES } from "@/ui/stepNames";

/** The steps that wait, a line each, with what they wait for. */
export function ToCome({ job }: { job: Job }) {
  const waiting = job.steps.filter((step) => step.state === "waiting");
  if (waiting.length === 0) return null;
  return (
    <ul aria-label="To come" className="border-t border-rule py-1 text-faint">
      {waiting.map((step) => (
        <li key={step.id} className="py-0.5">
          {step.name}{" "}
          <span className="text-sm">
            waits for {step.waits_for.map((each) => STEP_NAMES[each] ?? each).join(" and ")}
          </span>
        </li>
      ))}
    </ul>
  );
}
