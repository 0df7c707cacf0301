import type { Job } from "../../api";

/** What speaks against it that the work is done, or is missing. */
export function Doubts({ job, doubts }: { job: Job; doubts: string[] }) {
  if (doubts.length === 0 || job.closed) return null;
  return (
    <section aria-label="What speaks against it">
      <p className="font-semibold">This speaks against it, or is missing:</p>
      <ul className="list-disc pl-5 leading-snug">
        {doubts.map((each) => (
          <li key={each}>{each}</li>
        ))}
      </ul>
    </section>
  );
}
