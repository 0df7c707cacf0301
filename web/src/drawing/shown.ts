import type { Schemas } from "@/api/client";

/** What a board shows over time: an entry for each change. */
export type Shown = Schemas["ShownAt"];

/** What stands at a time; undefined before anything is shown. */
export function shownAt(shown: Shown[], at: number): Shown | undefined {
  return shown.filter((each) => each.at <= at).at(-1);
}
