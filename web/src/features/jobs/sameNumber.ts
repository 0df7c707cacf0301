import type { Job } from "./api";

/** Whether the very same number goes in again: then what is plain is asked on one screen a step. */
export function isSameNumber(job: Job): boolean {
  return job.original !== null && job.original === job.replacement;
}
