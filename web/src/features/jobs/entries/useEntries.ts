import { Problem } from "@/api/client";
import { newId } from "@/api/ids";
import { drop, keep, waiting, type Entry, type Waiting } from "@/api/outbox";
import { useSession } from "@/api/session";
import { useQueryClient } from "@tanstack/react-query";
import { useCallback, useEffect, useRef, useState } from "react";
import type { Job } from "../api";
import { stampOf } from "@/with_you/stamp";
import { isAway } from "@/api/reach";
import { sendLater } from "./background";
import { enterHere } from "./enterHere";
import { aloneInTurn, sendAll } from "./sending";
import { applied, valueAt, type Change } from "./targets";

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
const NOTHING: Sending = { state: "looking", waiting: 0, problem: null, refused: [], unkept: false };

/**
 * Add entries to a job. Each is kept in the browser first and sent in order; without a connection it waits there and is
 * sent when there is one. The sheet shows it at once.
 */
export function useEntries(job: Job) {
  const queries = useQueryClient();
  const maker = useSession().data?.username ?? "";
  const [sending, setSending] = useState<Sending>(NOTHING);
  /** The last entry that was made here at each target: the next one follows it, whatever the server made of it. */
  const made = useRef(new Map<string, string>());
  /** Entries that show already and that the browser's database does not have yet. */
  const coming = useRef<Entry[]>([]);

  const look = useCallback(async () => {
    const mine = await waiting(maker, job.id);
    const refused = mine.filter((each) => each.refused);
    // what the browser does not have yet is not saved either
    const onTheWay = coming.current.filter(({ id }) => mine.every(({ entry }) => entry.id !== id)).length;
    return { refused, onTheWay, left: mine.length - refused.length + onTheWay };
  }, [maker, job.id]);

  const flush = useCallback(async () => {
    if (!maker) return;
    const key = ["job", job.id];
    const sent = await aloneInTurn(() =>
      sendAll(job.id, maker, async (shown) => {
        const all = (await waiting(maker, job.id)).filter((each) => !each.refused);
        const kept = all.filter((each) => each.job === shown.id).map((each) => each.entry);
        // an answer is older than what was touched since: it does not undo it for a moment, under the next tap
        const mine = shown.id === job.id ? coming.current : [];
        const later = [...kept, ...mine.filter((each) => kept.every(({ id }) => id !== each.id))];
        queries.setQueryData(["job", shown.id], later.reduce(applied, shown));
        // the sheets of the machine's other boards show what is said of the machine: they are read anew
        for (const { id } of shown.together?.sheets ?? [])
          if (id === job.id && id !== shown.id) void queries.invalidateQueries({ queryKey: ["job", id] });
          else if (id !== shown.id) queries.removeQueries({ queryKey: ["job", id] });
        setSending((old) => ({ ...old, state: later.length ? "sending" : old.state, waiting: later.length }));
      }),
    );
    // a sign-in that has run out shows the sign-in page: what waits goes on afterwards
    if (sent?.problem?.status === 401) void queries.invalidateQueries({ queryKey: ["session"] });
    if (sent?.refused) await queries.invalidateQueries({ queryKey: key });
    const { refused, onTheWay, left } = await look();
    const problem = sent?.problem && !sent.problem.offline ? sent.problem : null;
    const state = onTheWay ? "sending" : left ? "waiting" : "saved";
    setSending((old) => ({ ...old, state, waiting: left, problem, refused }));
    if (sent?.problem) void sendLater();
  }, [job.id, look, maker, queries]);

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
      const now = queries.getQueryData<Job>(key) ?? job;
      const before = valueAt(now, change.target);
      const upon = made.current.get(change.target) ?? null;
      const entry: Entry = { id: newId(), before, upon, reason: "", read_how: "", maker, ...change };
      // said again on purpose, such as a choice that is kept, is something new
      if (!again && JSON.stringify(entry.before) === JSON.stringify(entry.after)) return true;
      made.current.set(change.target, entry.id);
      // a sheet that is just being read is older than this entry; the change shows at once, before anything is awaited
      void queries.cancelQueries({ queryKey: key }, { revert: false });
      queries.setQueryData(key, applied(now, entry));
      coming.current = [...coming.current, entry];
      setSending((old) => ({ ...old, state: "sending", waiting: old.waiting + 1 }));
      // what was refused at this target is answered by saying it anew
      for (const each of (await look()).refused)
        if (each.job === job.id && each.entry.target === entry.target) await drop(each.order);
      const whole = { ...entry, ...(await stampOf(maker, job.id, now.entry_count, at)) };
      const kept = await keep(job.id, maker, whole);
      coming.current = coming.current.filter((each) => each !== entry);
      if (!kept) setSending((old) => ({ ...old, unkept: true }));
      const sent = flush();
      // without a connection the core says at once what the entry makes of the job: the line may hang
      if (!isAway()) await sent;
      if (isAway() && (await enterHere(maker, job.id, entry.id))) {
        await look().then(({ refused, left }) => setSending((old) => ({ ...old, refused, waiting: left })));
        await queries.invalidateQueries({ queryKey: key });
      }
      await sent;
      void queries.invalidateQueries({ queryKey: ["jobs"] });
      return (await look()).refused.every((each) => each.entry.id !== entry.id);
    },
    [flush, job, look, maker, queries],
  );

  const withdraw = useCallback(
    async (each: Waiting) => {
      await drop(each.order);
      await flush();
    },
    [flush],
  );

  return { put, sending, retry: flush, withdraw };
}

export type Put = ReturnType<typeof useEntries>["put"];
