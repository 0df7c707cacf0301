import { useEffect, useRef, useState } from "react";

export type Seen = { at: number; output: string; on: boolean; within_s: number };
export type Step = { at: number; set: Record<string, boolean | number> };
export type Timing = { steps: Step[]; seen: Seen[]; at: number };
type Now = { inputs: string[]; outputs: string[]; at: number; within: number };

const BY_HAND_S = 0.5;
const TRANSPORT_S = 0.1;

/** Time what a live board does: by taps, by typing, or streamed from its service port as it happens. */
export function useTiming(job: string, side: "original" | "replacement") {
  const [begun, setBegun] = useState<number | null>(null);
  const [overPort, setOverPort] = useState(false);
  const [watching, setWatching] = useState(false);
  const [lost, setLost] = useState("");
  const [timing, setTiming] = useState<Timing>({ steps: [], seen: [], at: 0 });
  const last = useRef<{ inputs: Set<string>; outputs: Set<string> } | null>(null);
  /** The server's clock when the run began: what the port shows is timed there. */
  const zero = useRef<number | null>(null);
  /** When the port was last known to stand so, by the server's clock; and whether the stream broke off since. */
  const heard = useRef<{ at: number; broke: boolean }>({ at: 0, broke: false });
  const now = () => Math.round(((performance.now() - (begun ?? performance.now())) / 1000) * 1000) / 1000;

  const input = (name: string, value: boolean | number, at = now()) =>
    setTiming((old) => ({ ...old, steps: ordered([...old.steps, { at, set: { [name]: value } }]) }));
  const output = (name: string, on: boolean, within = BY_HAND_S, at = now()) =>
    setTiming((old) => ({ ...old, seen: ordered([...old.seen, { at, output: name, on, within_s: within }]) }));

  useEffect(() => {
    if (begun === null) return;
    const timer = window.setInterval(
      () => setTiming((old) => ({ ...old, at: (performance.now() - begun) / 1000 })),
      250,
    );
    return () => window.clearInterval(timer);
  }, [begun]);

  useEffect(() => {
    if (begun === null || !overPort) return;
    const source = new EventSource(`/api/jobs/${job}/port/stream?side=${side}`);
    source.addEventListener("now", (event) => {
      const shown = JSON.parse(event.data as string) as Now;
      zero.current ??= shown.at - (performance.now() - begun) / 1000;
      const at = Math.max(0, Math.round((shown.at - zero.current) * 1000) / 1000);
      const fresh = { inputs: new Set(shown.inputs), outputs: new Set(shown.outputs) };
      const before = last.current ?? { inputs: fresh.inputs, outputs: new Set<string>() };
      differing(before.inputs, fresh.inputs).forEach((name) => input(name, fresh.inputs.has(name), at));
      // what changed while the stream was broken off may have changed at any time since it last told anything
      const gap = heard.current.broke ? Math.max(0, shown.at - heard.current.at) : 0;
      heard.current = { at: shown.at, broke: false };
      const within = Math.round((Math.max(shown.within, gap) + TRANSPORT_S) * 1000) / 1000;
      differing(before.outputs, fresh.outputs).forEach((name) => output(name, fresh.outputs.has(name), within, at));
      last.current = fresh;
      setWatching(true);
      setLost("");
    });
    source.addEventListener("here", (event) => {
      // nothing changed: until now it stands as it was told, unless the stream broke off and has not told anew
      if (!heard.current.broke) heard.current.at = (JSON.parse(event.data as string) as { at: number }).at;
    });
    source.addEventListener("lost", (event) => setLost((JSON.parse(event.data as string) as { why: string }).why));
    source.addEventListener("back", () => setLost(""));
    // the browser asks anew by itself; until then it is said
    source.onerror = () => {
      heard.current.broke = true;
      setLost("the connection is gone");
    };
    return () => source.close();
    // the callbacks only add to what is there
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [begun, overPort, job, side]);

  return {
    running: begun !== null,
    /** Whether the port has told once how things stand: only then a change can be told from what was there. */
    watching,
    overPort,
    /** Why the port is silent just now; empty while it is not. */
    lost,
    timing,
    input,
    output,
    byHand: () => setOverPort(false),
    begin: (port: boolean) => {
      last.current = null;
      zero.current = null;
      heard.current = { at: 0, broke: false };
      setLost("");
      setWatching(false);
      setTiming({ steps: [], seen: [], at: 0 });
      setOverPort(port);
      setBegun(performance.now());
    },
    end: () => {
      const until = Math.ceil(now()) + 1;
      setBegun(null);
      setOverPort(false);
      return until;
    },
  };
}

function differing(one: Set<string>, two: Set<string>): string[] {
  return [...new Set([...one, ...two])].filter((name) => one.has(name) !== two.has(name));
}

function ordered<T extends { at: number }>(events: T[]): T[] {
  return events
    .map((event, index) => ({ event, index }))
    .sort((a, b) => a.event.at - b.event.at || a.index - b.index)
    .map(({ event }) => event);
}
