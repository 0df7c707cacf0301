import { Problem } from "@/api/client";
import { jobOf } from "@/api/outbox";
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useCallback, useEffect, useState } from "react";
import { askToStay } from "./room";
import { leaveBehind, takeAlong, type Progress } from "./taking";
import { changeTaken, takenJob } from "./takings";
import { useAway } from "./useAway";

const isOnDevice = () => "serviceWorker" in navigator && navigator.serviceWorker.controller !== null;

/** How long a job is looked at before it comes along by itself, and how long it is left in peace after an entry. */
const QUIET_MS = 4000;

/**
 * Whether a job is along, and as of when. It comes along by itself while it is looked at, and is taken anew when the depot
 * has more entries than it had.
 */
export function useAlong(person: string, id: string, entries: number, closed: boolean) {
  const job = jobOf(id);
  const away = useAway();
  const queries = useQueryClient();
  const [progress, setProgress] = useState<Progress | null>(null);
  const [problem, setProblem] = useState<Problem | null>(null);
  const key = ["along", person, job];
  const taken = useQuery({
    queryKey: key,
    queryFn: async () => (await takenJob(person, job)) ?? null,
    enabled: !!person,
  });
  const there = taken.data;
  const stays = useQuery({
    queryKey: ["stays"],
    queryFn: askToStay,
    enabled: there?.asked === true,
    staleTime: Infinity,
  });

  const take = useCallback(
    async (asked: boolean) => {
      setProblem(null);
      try {
        const now = await takenJob(person, job);
        // what was sent from here is entered here already: only what others entered is worth taking it anew
        if (!asked && now && now.entries + now.since.length >= entries) return;
        await takeAlong(person, job, asked, asked ? setProgress : undefined);
      } catch (error) {
        if (asked) setProblem(error instanceof Problem ? error : new Problem(507, "Not taken along", String(error)));
      }
      setProgress(null);
      await queries.invalidateQueries({ queryKey: ["along", person, job] });
    },
    [entries, job, person, queries],
  );
  const leave = useCallback(async () => {
    await leaveBehind(person, job);
    await queries.invalidateQueries({ queryKey: ["along", person, job] });
  }, [job, person, queries]);

  const stale = there === null ? !closed : there !== undefined && there.entries < entries;
  useEffect(() => {
    // where the application itself is not on the device, a job along would not open
    if (away || !person || !stale || !isOnDevice()) return;
    const timer = setTimeout(() => void take(false), QUIET_MS);
    return () => clearTimeout(timer);
  }, [away, entries, person, stale, take]);
  useEffect(() => {
    void changeTaken(person, job, (old) => old && { ...old, lookedAt: Date.now() });
  }, [person, job]);
  return { taken: there ?? null, stays: stays.data ?? true, away, progress, problem, take: () => take(true), leave };
}
