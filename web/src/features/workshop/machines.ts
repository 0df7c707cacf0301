import type { Machine } from "@/drawing/machine";

type Id = { id: string };
export type Behaviour = Partial<Machine> & { internal?: string[]; machines?: (Machine & Id)[] } & Record<
    string,
    unknown
  >;

const OF_ONE_MACHINE = ["start", "states", "survive_power_loss", "notes"];

/** A behaviour with one more machine beside those that it has; a single one gets a name of its own with it. */
export function withMachine(behaviour: Behaviour, id: string): Behaviour {
  const added = { id, start: "idle", states: { idle: { on: [], go: [] } } };
  if (behaviour.machines) return { ...behaviour, machines: [...behaviour.machines, added] };
  const own = Object.fromEntries(Object.entries(behaviour).filter(([name]) => OF_ONE_MACHINE.includes(name)));
  const shared = Object.fromEntries(Object.entries(behaviour).filter(([name]) => !OF_ONE_MACHINE.includes(name)));
  const first = { id: id === "main" ? "first" : "main", ...own } as Machine & Id;
  return { ...shared, machines: [first, added] };
}

/** A behaviour without one of its machines; a last one stands by itself again, and no signal goes between machines. */
export function withoutMachine({ machines = [], internal, ...shared }: Behaviour, index: number): Behaviour {
  const rest = machines.filter((_, at) => at !== index);
  if (rest.length > 1 || rest[0] === undefined) return { ...shared, ...(internal ? { internal } : {}), machines: rest };
  const { id: _, ...last } = rest[0];
  return { ...shared, ...last };
}
