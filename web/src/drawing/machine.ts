/** A machine of a board’s behaviour, as far as a diagram shows it. */
export type Arrow = {
  to: string;
  if?: Record<string, boolean>;
  when?: Record<string, unknown>;
  after?: number | string;
  clock?: string;
  count?: Record<string, unknown>;
};
export type State = { title?: string; on?: (string | { output: string })[]; go?: Arrow[] };
export type Machine = { id?: string; start: string; states: Record<string, State>; survive_power_loss?: string[] };
