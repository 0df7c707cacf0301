import { Problem, answer, api } from "@/api/client";
import { newId } from "@/api/ids";
import { drop, keep, waiting, type Entry, type Waiting } from "@/api/outbox";
import { useQueryClient } from "@tanstack/react-query";
import { useCallback, useEffect, useRef, useState } from "react";
import type { Job } from "./api";

export type Change = Pick<Entry, "target" | "after"> &
  Partial<Pick<Entry, "reason" | "read_how">> & { again?: boolean };
export type Sending = { state: "saved" | "sending" | "waiting"; waiting: number; problem: Problem | null };

/**
 * Add entries to a job. Each is kept in the browser first and sent in order; without a connection it waits there and is
 * sent when there is one. The sheet shows it at once.
 */
export function useEntries(job: Job) {
  const queries = useQueryClient();
  const [sending, setSending] = useState<Sending>({ state: "saved", waiting: 0, problem: null });
  const busy = useRef(false);
  const key = ["job", job.id];

  const flush = useCallback(async () => {
    if (busy.current) return;
    busy.current = true;
    let problem: Problem | null = null;
    try {
      let mine = await waitingFor(job.id);
      while (mine[0]) {
        const [first, ...later] = mine;
        setSending({ state: "sending", waiting: mine.length, problem: null });
        try {
          const params = { path: { job_id: job.id } };
          const shown = await answer(api.POST("/api/jobs/{job_id}/entries", { params, body: first.entry }));
          await drop(first.order);
          queries.setQueryData(
            key,
            (await waitingFor(job.id)).reduce((state, each) => applied(state, each.entry), shown),
          );
        } catch (error) {
          problem = error instanceof Problem ? error : new Problem(500, "Something went wrong here", String(error));
          if (problem.offline || problem.status === 401 || problem.status >= 500) {
            setSending({ state: "waiting", waiting: later.length + 1, problem: problem.offline ? null : problem });
            return;
          }
          await drop(first.order);
          await queries.invalidateQueries({ queryKey: key });
        }
        mine = await waitingFor(job.id);
      }
      setSending({ state: "saved", waiting: 0, problem });
    } finally {
      busy.current = false;
    }
    // key is made of job.id
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [job.id, queries]);

  useEffect(() => {
    void flush();
    const again = () => void flush();
    window.addEventListener("online", again);
    const timer = window.setInterval(again, 5000);
    return () => {
      window.removeEventListener("online", again);
      window.clearInterval(timer);
    };
  }, [flush]);

  const put = useCallback(
    async ({ again, ...change }: Change) => {
      const now = queries.getQueryData<Job>(key) ?? job;
      const entry: Entry = { id: newId(), before: valueAt(now, change.target), reason: "", read_how: "", ...change };
      // said again on purpose, such as a choice that is kept, is something new
      if (!again && JSON.stringify(entry.before) === JSON.stringify(entry.after)) return;
      // a sheet that is just being read is older than this entry; the change shows at once, before anything is awaited
      void queries.cancelQueries({ queryKey: key }, { revert: false });
      queries.setQueryData(key, applied(now, entry));
      setSending((old) => ({ state: "sending", waiting: old.waiting + 1, problem: null }));
      await keep(job.id, entry);
      await flush();
      void queries.invalidateQueries({ queryKey: ["jobs"] });
    },
    // key is made of job.id
    // eslint-disable-next-line react-hooks/exhaustive-deps
    [flush, job, queries],
  );

  return { put, sending, retry: flush, forget: () => setSending((old) => ({ ...old, problem: null })) };
}

async function waitingFor(job: string): Promise<Waiting[]> {
  return (await waiting()).filter((each) => each.job === job);
}

type Named = "symptoms" | "report" | "tests" | "causes" | "plates" | "entered" | "revisions" | "features" | "wishes";
type Work = "holds" | "angles" | "blind" | "kept" | "traces" | "pictures" | "wires" | "plugs" | "settled" | "removed";
type Late = "moving" | "temporary" | "decisions" | "ticked";
type End = "kit" | "readbacks" | "looks" | "reentered" | "readings" | "forced" | "defects" | "numbered" | "spent";
type After = "corrections" | "feedback";
type Kept = Named | Work | Late | End | After | "costs" | "found" | "overrides" | "reasons";
type Single = "original" | "replacement" | "serial" | "family" | "power" | "answers" | "school" | "order" | LateSingle;
type LateSingle = "energised" | "learned" | "old_board" | "signed";

/** Where the named targets of the same form stand on the sheet. */
const NAMED: Record<string, Kept> = {
  symptom: "symptoms",
  report: "report",
  test: "tests",
  cause: "causes",
  plate: "plates",
  fact: "entered",
  revision: "revisions",
  feature: "features",
  wish: "wishes",
  cost: "costs",
  found: "found",
  override: "overrides",
  reason: "reasons",
  hold: "holds",
  angle: "angles",
  blind: "blind",
  kept: "kept",
  trace: "traces",
  picture: "pictures",
  wire: "wires",
  plug: "plugs",
  settled: "settled",
  removed: "removed",
  moving: "moving",
  temporary: "temporary",
  decision: "decisions",
  ticked: "ticked",
  kit: "kit",
  readback: "readbacks",
  look: "looks",
  reentered: "reentered",
  reading: "readings",
  forced: "forced",
  defect: "defects",
  numbered: "numbered",
  spent: "spent",
  correction: "corrections",
  feedback: "feedback",
};
const SINGLE: string[] = [
  ...["original", "replacement", "serial", "family", "power", "answers", "school", "order"],
  ...["energised", "learned", "old_board", "signed"],
];
/** What is only ever added under an id of its own: nothing stood there before. */
const ADDED: string[] = ["run"];

/** What stands at a target now, as the server would say it. */
export function valueAt(job: Job, target: string): Entry["before"] {
  const [kind = "", name = ""] = split(target);
  if (ADDED.includes(kind)) return null;
  if (SINGLE.includes(kind)) return asSent(job[kind as Single]);
  const kept = NAMED[kind];
  if (kept) return asSent(job[kept][name]);
  const step = job.steps.find((each) => each.id === name);
  if (step?.state !== "done" || step.note === null) return null;
  return step.end === null ? { note: step.note } : { note: step.note, end: step.end };
}

/** The sheet with an entry on it before the server has answered; what follows from it comes with the answer. */
function applied(job: Job, entry: Entry): Job {
  const [kind = "", name = ""] = split(entry.target);
  if (kind === "serial" || kind === "answers" || kind === "order")
    return { ...job, [kind]: entry.after === null ? null : String(entry.after) };
  const kept = NAMED[kind];
  if (!kept) return job;
  const { [name]: _old, ...rest } = job[kept] as Record<string, unknown>;
  const after = isObject(entry.after) ? { ...entry.after, seen: entry.after } : entry.after;
  return { ...job, [kept]: after === null ? rest : { ...rest, [name]: after } };
}

/** What is sent back as `before`: a value with more around it carries it as `seen`. */
function asSent(value: unknown): Entry["before"] {
  return isObject(value) && "seen" in value ? value.seen : (value ?? null);
}

function isObject(value: unknown): value is Record<string, unknown> {
  return typeof value === "object" && value !== null && !Array.isArray(value);
}

function split(target: string): [string, string] {
  const dot = target.indexOf(".");
  return dot < 0 ? [target, ""] : [target.slice(0, dot), target.slice(dot + 1)];
}
