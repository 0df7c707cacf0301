import type { Schemas } from "@/api/client";

type Place = (string | number)[];

/** Something that somebody does to a draft. */
export type Change =
  | { what: "meaning"; body: Omit<Schemas["GridGiven"], "seen"> }
  | { what: "chart"; body: Omit<Schemas["ChartGiven"], "seen"> }
  | { what: "pins"; body: Omit<Schemas["PinsGiven"], "seen"> }
  | { what: "state"; body: Omit<Schemas["StateGiven"], "seen"> }
  | { what: "place"; body: { path: Place; after: unknown } }
  | { what: "borrow"; body: Omit<Schemas["BorrowGiven"], "seen"> }
  | { what: "undo" };
