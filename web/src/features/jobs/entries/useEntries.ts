import { Problem } from "@/api/client";
import { newId } from "@/api/ids";
import { drop, keep, pendingHere, type Entry, type Waiting } from "@/api/outbox";
import { useSession } from "@/api/session";
import { useQueryClient } from "@tanstack/react-query";
import { useCallback, useEffect, useMemo, useRef, useState } from "react";
import type { Job } from "../api";
import { stampOf } from "@/with_you/stamp";
import { isAway } from "@/api/reach";
import { sendLater } from "./background";
import { enterHere } from "./enterHere";
import { usePending, withPending } from "./pending";
import { aloneInTurn, sendAll } from "./sending";
import { valueAt, type Change } from "./targets";
import { withdraw } from "./withdraw";

export type Sending = {
  /** "looking" until it is known whether anything waits here. */
  state: "looking" | "saved" | "sending" | "waiting";
  /** Entries that the server does not have yet. */
  waiting: number;
  /** Why they wait; null without a connection, which is said in words of its own. */
  problem: Problem | null;
  /** Entries that the server would not take: they stay until the person who made them withdraws them. */
  refused: Waiting[];
  /** Whether this browser keeps nothing: what waits is lost when the page closes. */
  unkept: boolean;
};

/**
 * Add entries to a job. Each waits on this device first and is sent in order; without a connection it is sent when there is one. The
 * sheet is shown with what waits: nothing is written into what the depot said.
 */
export function useEntries(job: Job) {
  const queries = useQueryClient();
  const maker = useSession().data?.username ?? "";
  const pending = usePending(maker, job.id);
  /** Why the last try to send did not end: null where it did, or where nothing was tried yet. */
  const [stuck, setStuck] = useState<Problem | null>(null);
  const [unkept, setUnkept] = useState(false);
  /** The last entry that was made here at each target: the next one follows it, whatever the server made of it. */
  const made = useRef(new Map<string, string>());
  const sending = useMemo(() => sendingOf(pending, stuck, unkept), [pending, stuck, unkept]);

  const flush = useCallback(async () => {
    if (!maker) return;
    const sent = await aloneInTurn(() =>
      sendAll(job.id, maker, async (shown) => {
        // what is being read is older than this answer
        await queries.cancelQueries({ queryKey: ["job", shown.id], exact: true }, { revert: false });
        queries.setQueryData(["job", shown.id], shown);
        // the sheets of the machine's other boards show what is said of the machine: they are read anew
        for (const { id } of shown.together?.sheets ?? [])
          if (id === job.id && id !== shown.id) void queries.invalidateQueries({ queryKey: ["job", id] });
          else if (id !== shown.id) queries.removeQueries({ queryKey: ["job", id] });
      }),
    );
    // another tab is at it: what comes of it shows here as well
    if (!sent) return;
    // a sign-in that has run out shows the sign-in page: what waits goes on afterwards
    if (sent.problem?.status === 401) void queries.invalidateQueries({ queryKey: ["session"] });
    if (sent.refused) await queries.invalidateQueries({ queryKey: ["job", job.id] });
    setStuck(sent.problem);
    if (sent.problem) void sendLater();
  }, [job.id, maker, queries]);

  useEffect(() => {
    let asked = false;
    const again = () => {
      // where the line hangs the asking does not pile up behind it
      if (asked) return;
      asked = true;
      void flush().finally(() => (asked = false));
    };
    const soon = window.setTimeout(again, 0);
    window.addEventListener("online", again);
    const timer = window.setInterval(again, 5000);
    return () => {
      window.clearTimeout(soon);
      window.removeEventListener("online", again);
      window.clearInterval(timer);
    };
  }, [flush]);

  /** Whether it was not refused: it was taken, or it waits here. */
  const put = useCallback(
    async ({ again, ...change }: Change) => {
      const at = new Date();
      const key = ["job", job.id];
      const mine = pendingHere(maker, job.id).filter((each) => each.job === job.id);
      const now = withPending(queries.getQueryData<Job>(key) ?? job, mine);
      const before = valueAt(now, change.target);
      const here = mine.filter((each) => each.entry.target === change.target);
      const upon = here.filter((each) => !each.refused).at(-1)?.entry.id ?? made.current.get(change.target) ?? null;
      const entry: Entry = { id: newId(), before, upon, reason: "", read_how: "", maker, ...change };
      // said again on purpose, such as a choice that is kept, is something new
      if (!again && JSON.stringify(entry.before) === JSON.stringify(entry.after)) return true;
      made.current.set(change.target, entry.id);
      if (!isAway()) setStuck(null);
      const keeping = keep(job.id, maker, entry, () => stampOf(maker, job.id, now.entry_count, at));
      // what was refused at this target is answered by saying it anew
      for (const each of here) if (each.refused) await drop(each);
      if (!(await keeping)) setUnkept(true);
      const sent = flush();
      // without a connection the core says at once what the entry makes of the job: the line may hang
      if (!isAway()) await sent;
      if (isAway() && (await enterHere(maker, job.id, entry.id))) await queries.invalidateQueries({ queryKey: key });
      await sent;
      void queries.invalidateQueries({ queryKey: ["jobs"] });
      return !isRefused(maker, job.id, entry.id);
    },
    [flush, job, maker, queries],
  );

  const takeBack = useCallback(
    async (each: Waiting) => {
      await withdraw(each);
      await flush();
    },
    [flush],
  );

  return { put, sending, retry: flush, withdraw: takeBack };
}

function sendingOf(pending: readonly Waiting[] | null, stuck: Problem | null, unkept: boolean): Sending {
  if (!pending) return NOTHING;
  const refused = pending.filter((each) => each.refused);
  const left = pending.length - refused.length;
  const state = left === 0 ? "saved" : stuck ? "waiting" : "sending";
  const problem = left > 0 && stuck && !stuck.offline ? stuck : null;
  return { state, waiting: left, problem, refused, unkept: unkept && left > 0 };
}

const isRefused = (maker: string, job: string, id: string) =>
  pendingHere(maker, job).some((each) => each.entry.id === id && each.refused);

const NOTHING: Sending = { state: "looking", waiting: 0, problem: null, refused: [], unkept: false };

export type Put = ReturnType<typeof useEntries>["put"];
