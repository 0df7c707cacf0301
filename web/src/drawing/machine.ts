/** A machine of a board’s behaviour, as far as a diagram shows it. */
export type Arrow = {
  to: string;
  if?: Record<string, unknown>;
  when?: Record<string, unknown>;
  after?: number | string;
  clock?: string;
  count?: Record<string, unknown>;
};
export type State = { title?: string; on?: (string | { output: string })[]; go?: Arrow[] };
export type Machine = { id?: string; start: string; states: Record<string, State>; survive_power_loss?: string[] };

/** A machine as far as it can be drawn: of a draft any part may be half-typed, of any kind, and is then left out or shown as it is. */
export function drawable(found: unknown): Machine {
  const machine = fields(found);
  const states = Object.fromEntries(
    Object.entries(fields(machine.states)).map(([name, each]) => [name, stateOf(each)]),
  );
  return {
    start: text(machine.start) ?? "",
    states,
    ...(text(machine.id) === undefined ? {} : { id: text(machine.id) }),
    survive_power_loss: list(machine.survive_power_loss).flatMap((each) => text(each) ?? []),
  };
}

function stateOf(found: unknown): State {
  const state = fields(found);
  const half = text(state.on)?.trim();
  const on = list(state.on).flatMap((each) => text(each) ?? { output: text(fields(each).output) ?? "?" });
  return { title: text(state.title), on: half ? [half] : on, go: list(state.go).map(arrowOf) };
}

function arrowOf(found: unknown): Arrow {
  const arrow = fields(found);
  return {
    to: text(arrow.to) ?? "",
    if: fields(arrow.if),
    when: fields(arrow.when),
    ...(typeof arrow.after === "number" || typeof arrow.after === "string" ? { after: arrow.after } : {}),
    clock: text(arrow.clock),
    ...(arrow.count === undefined ? {} : { count: fields(arrow.count) }),
  };
}

const text = (found: unknown) => (typeof found === "string" ? found : undefined);
const list = (found: unknown): unknown[] => (Array.isArray(found) ? found : []);
const fields = (found: unknown): Record<string, unknown> =>
  typeof found === "object" && found !== null && !Array.isArray(found) ? (found as Record<string, unknown>) : {};
