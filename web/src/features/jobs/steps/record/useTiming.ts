import { useEffect, useRef, useState } from "react";
import { watchPort } from "../../api";

export type Seen = { at: number; output: string; on: boolean; within_s: number };
export type Step = { at: number; set: Record<string, boolean> };
export type Timing = { steps: Step[]; seen: Seen[]; at: number };

const BY_HAND_S = 0.5;
const POLL_MS = 250;

/** Time what a live board does: by taps, or by watching its service port four times a second. */
export function useTiming(job: string) {
  const [begun, setBegun] = useState<number | null>(null);
  const [overPort, setOverPort] = useState(false);
  const [watching, setWatching] = useState(false);
  const [problem, setProblem] = useState<unknown>(null);
  const [timing, setTiming] = useState<Timing>({ steps: [], seen: [], at: 0 });
  const last = useRef<{ inputs: Set<string>; outputs: Set<string> } | null>(null);
  const now = () => Math.round(((performance.now() - (begun ?? performance.now())) / 1000) * 1000) / 1000;

  const input = (name: string, value: boolean) =>
    setTiming((old) => ({ ...old, steps: [...old.steps, { at: now(), set: { [name]: value } }] }));
  const output = (name: string, on: boolean, within = BY_HAND_S) =>
    setTiming((old) => ({ ...old, seen: [...old.seen, { at: now(), output: name, on, within_s: within }] }));

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
    let busy = false;
    const look = async () => {
      if (busy) return;
      busy = true;
      try {
        const shown = await watchPort(job);
        const fresh = { inputs: new Set(shown.inputs), outputs: new Set(shown.outputs) };
        const before = last.current ?? { inputs: fresh.inputs, outputs: new Set<string>() };
        differing(before.inputs, fresh.inputs).forEach((name) => input(name, fresh.inputs.has(name)));
        differing(before.outputs, fresh.outputs).forEach((name) =>
          output(name, fresh.outputs.has(name), POLL_MS / 1000 + 0.1),
        );
        last.current = fresh;
        setWatching(true);
      } catch (error) {
        setProblem(error);
        setOverPort(false);
      } finally {
        busy = false;
      }
    };
    const timer = window.setInterval(() => void look(), POLL_MS);
    return () => window.clearInterval(timer);
    // the callbacks only add to what is there
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [begun, overPort, job]);

  return {
    running: begun !== null,
    /** Whether the port has told once how things stand: only then a change can be told from what was there. */
    watching,
    overPort,
    problem,
    timing,
    input,
    output,
    begin: (port: boolean) => {
      last.current = null;
      setProblem(null);
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
