import { numberFrom } from "@/ui/numbers";
import type { Schemas } from "@/api/client";

type Point = Schemas["HoldShown"];
/** What is being said of a hold point, as it is typed; `readings` by pair of terminals. */
export type Said = { [name: string]: string | boolean | Record<string, string> };
/** The same as it is sent: readings are numbers. */
export type Sent = { [name: string]: string | boolean | number | Record<string, string | number> };

/** Where what is typed of hold points is kept over a reload: for the one locking off of which it is said. */
export const placeOf = (what: string, lockedOffAt: string | null) => `${what}, locked off ${lockedOffAt ?? "not yet"}`;

/**
 * What of it outlives a reload. Before it is said that the supply is locked off these are words alone: nobody could tell of which
 * locking off a reading or a check was, and one of yesterday is never offered for today.
 */
export function outlives(said: Said, lockedOffAt: string | null): Said {
  if (lockedOffAt !== null) return said;
  const words = Object.entries(said).filter(([name, each]) => typeof each === "string" && name !== "reading");
  return Object.fromEntries(words);
}

/** Whether everything that a hold point asks for was entered. */
export function complete(point: Point, said: Said): boolean {
  return point.asks.every((name) =>
    name === "readings"
      ? point.pairs.every((pair) => readingsOf(said)[pair.id]?.trim())
      : said[name] === true || (typeof said[name] === "string" && said[name].trim() !== ""),
  );
}

/** The readings that were typed, by pair of terminals. */
export function readingsOf(said: Said): Record<string, string> {
  return typeof said.readings === "object" ? said.readings : {};
}

/** What was typed, its readings as numbers; what is no number goes as it is, and the depot says so. */
export function sent(said: Said): Sent {
  const { reading, readings, ...rest } = said;
  return {
    ...rest,
    ...(typeof reading === "string" && reading.trim() && { reading: asNumber(reading) }),
    ...(typeof readings === "object" && {
      readings: Object.fromEntries(Object.entries(readings).map(([pair, text]) => [pair, asNumber(text)])),
    }),
  };
}

function asNumber(text: string): number | string {
  const number = numberFrom(text);
  return Number.isFinite(number) ? number : text;
}
