import type { Job } from "./api";
import type { Put } from "./entries/useEntries";

/** What every step of the sheet is given: the job, and the way to add an entry to it. */
export type StepProps = { job: Job; put: Put };
