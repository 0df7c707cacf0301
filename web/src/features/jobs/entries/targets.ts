/** What stands at a target of the sheet, and the sheet with an entry on it before the server has answered. */
import type { Schemas } from "@/api/client";
import type { Entry } from "@/api/outbox";
import { KEPT_BESIDE, TARGETS } from "@/api/targets";
import type { Job } from "../api";

type Values = Schemas["EntryValues"];
export type Kind = keyof Values;
type Named = {
  [K in keyof typeof TARGETS]: (typeof TARGETS)[K]["named"] extends true ? K : never;
}[keyof typeof TARGETS];
type Alone = Exclude<keyof typeof TARGETS, Named>;
type Of<K extends Kind> = K extends Alone ? K : `${K}.${string}`;
type Said = { reason?: string; read_how?: string; again?: boolean };

/** A change of one target; `after` must be what the server declares for it, null takes it back. */
export type Change = { [K in Kind]: { target: Of<K>; after: Values[K] | null } & Said }[Kind];

/** What stands at a target now, as it was said. */
export function valueAt(job: Job, target: string): unknown {
  const [kind, name] = split(target);
  if (isKind(kind)) {
    const { key, named } = TARGETS[kind];
    const part = partOf(job, key);
    return asSaid((named && isObject(part) ? part[name] : part) ?? null);
  }
  const step = job.steps.find((each) => each.id === name);
  if (step?.state !== "done" || step.note === null) return null;
  return step.end === null ? { note: step.note } : { note: step.note, end: step.end };
}

const SHOWN_AT_ONCE: readonly string[] = ["serial", "answers", "order"];

/** The sheet with an entry on it; what follows from it comes with the answer. */
export function applied(job: Job, entry: Entry): Job {
  const [kind, name] = split(entry.target);
  if (!isKind(kind)) return job;
  const { key, named } = TARGETS[kind];
  if (!named) return SHOWN_AT_ONCE.includes(kind) ? { ...job, [key]: entry.after } : job;
  const part = partOf(job, key);
  if (!isObject(part)) return job;
  const { [name]: old, ...rest } = part;
  if (entry.after === null) return { ...job, [key]: rest };
  const beside = isObject(old) && isObject(entry.after) ? keptBeside(old) : {};
  return { ...job, [key]: { ...rest, [name]: isObject(entry.after) ? { ...beside, ...entry.after } : entry.after } };
}

/** A value without what is kept beside it. */
export function asSaid(value: unknown): unknown {
  if (!isObject(value)) return value;
  return Object.fromEntries(Object.entries(value).filter(([name]) => !KEPT_BESIDE.includes(name)));
}

function keptBeside(value: Record<string, unknown>): Record<string, unknown> {
  return Object.fromEntries(Object.entries(value).filter(([name]) => KEPT_BESIDE.includes(name)));
}

/** A part of the sheet by its name; runs are only ever added, and the sheet does not carry them. */
function partOf(job: Job, key: (typeof TARGETS)[keyof typeof TARGETS]["key"]): unknown {
  return key === "runs" ? {} : job[key];
}

function isKind(kind: string): kind is keyof typeof TARGETS {
  return kind in TARGETS;
}

function isObject(value: unknown): value is Record<string, unknown> {
  return typeof value === "object" && value !== null && !Array.isArray(value);
}

function split(target: string): [string, string] {
  const dot = target.indexOf(".");
  return dot < 0 ? [target, ""] : [target.slice(0, dot), target.slice(dot + 1)];
}
