import type { Schemas } from "@/api/client";
import type { Entry } from "@/api/outbox";
import { TARGETS } from "@/api/targets";
import type { Job } from "@/features/jobs/api";

/** A job about which nothing is known yet, with parts set as a test needs them. */
export function jobSheet(parts: Partial<Job> = {}): Job {
  const nothing = Object.fromEntries(Object.values(TARGETS).map(({ key, named }) => [key, named ? {} : null]));
  return {
    ...nothing,
    id: "11111111-1111-4111-8111-111111111111",
    code: "SQ-0001",
    machine: "Deck oven 1",
    complaint: "",
    step: "rule_out",
    steps: [],
    power: "on",
    closed: false,
    entry_count: 0,
    run_count: 0,
    powered: [],
    remembered: [],
    uncleared: [],
    skipped: [],
    void: [],
    how: {},
    known_facts: {},
    origin: null,
    ...parts,
  } as Job;
}

export function entry(target: string, after: unknown, more: Partial<Entry> = {}): Entry {
  return {
    id: `id of ${target}`,
    target,
    before: null,
    after,
    reason: "",
    read_how: "",
    upon: null,
    maker: "wennick",
    ...more,
  };
}

export const wennick: Schemas["Me"] = {
  username: "wennick",
  name: "Wennick Tarl",
  role: "technician",
  depot: "Saltmarsh Quay",
  keeps_catalogue: false,
};

export function element(more: Partial<Schemas["ElementShown"]> = {}): Schemas["ElementShown"] {
  return {
    id: "S1",
    kind: "dip",
    title: "",
    unit: "",
    values: [],
    range: null,
    points: ["S1.1", "S1.2", "S1.3"],
    factory: "000",
    locked: [],
    contacts: [],
    hanging: { axis: "across", backwards: false, on: "up", known: true },
    ...more,
  } as Schemas["ElementShown"];
}
