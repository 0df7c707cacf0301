/** A job's sheet as somebody sees it: what the depot said last, with all that waits here upon it. */
import { useSession } from "@/api/session";
import { onPending, pendingOf, readPending, type Waiting } from "@/api/outbox";
import { useCallback, useEffect, useMemo, useSyncExternalStore } from "react";
import { useJob, type Job } from "../api";
import { applied } from "./targets";

/** What waits of a job, with all its boards; null until it is known. */
export function usePending(maker: string, job: string): readonly Waiting[] | null {
  useEffect(() => {
    if (maker && pendingOf(maker, job) === null) void readPending(maker);
  }, [maker, job]);
  return useSyncExternalStore(
    onPending,
    useCallback(() => (maker ? pendingOf(maker, job) : NONE), [maker, job]),
  );
}

const NONE: readonly Waiting[] = [];

/** The depot's sheet with the entries that wait, in their order; what was refused is not among them. */
export const withPending = (sheet: Job, pending: readonly Waiting[]): Job =>
  pending
    .filter((each) => each.job === sheet.id && !each.refused)
    .reduce((shown, each) => applied(shown, each.entry), sheet);

/** A job by its address, as somebody sees it. */
export function useSheet(id: string) {
  const { data, error } = useJob(id);
  const maker = useSession().data?.username ?? "";
  const pending = usePending(maker, id);
  const shown = useMemo(() => (data && pending ? withPending(data, pending) : undefined), [data, pending]);
  return { data: shown, error };
}
