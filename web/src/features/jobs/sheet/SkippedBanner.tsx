import { Caution } from "@/ui/notices";
import type { Job } from "../api";

/** Hold points that were skipped stand above everything that is done after them. */
export function SkippedBanner({ job }: { job: Job }) {
  if (job.skipped.length === 0) return null;
  return (
    <div className="mt-2">
      <Caution title={job.skipped.length === 1 ? "A hold point was skipped" : "Hold points were skipped"}>
        <ul>
          {job.skipped.map((each) => (
            <li key={each.id}>
              <strong>{each.title}</strong>: {each.reason} ({each.by})
            </li>
          ))}
        </ul>
      </Caution>
    </div>
  );
}
