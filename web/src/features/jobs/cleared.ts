import type { Job } from "./api";

/** Whether it turned out not to be the board: then what was wrong is put right, and nothing is exchanged. */
export function isCleared(job: Job): boolean {
  return job.steps.some((step) => step.id === "rule_out" && step.end === "cleared");
}
