import type { Schemas } from "@/api/client";

type Element = Schemas["ElementShown"];
export type Meaning = Schemas["MeaningKept"];

export const MOST_POINTS = 3;
export const MOST_CELLS = 64;

/** A place that can be asked about: what it may stand at. */
export type Point = { id: string; values: (string | number)[] };

/** The places of a board of which no profile and nobody in this job says what they decide. */
export function unsaidPoints(elements: Element[], functions: object, said: Meaning[]): Point[] {
  const known = new Set<unknown>([
    ...said.flatMap((each) => each.points),
    ...Object.values(functions as Record<string, FunctionNode>).flatMap(pointsOf),
  ]);
  return elements
    .filter((each) => each.range === null)
    .flatMap((each) => each.points.map((id) => ({ id, values: each.values })))
    .filter((each) => !known.has(each.id) && each.values.length <= MOST_CELLS);
}

type FunctionNode = { from?: string; table?: { when: object }[] };
const pointsOf = ({ from, table = [] }: FunctionNode) => [from, ...table.flatMap((row) => Object.keys(row.when))];

/** Every way in which places may stand together, the last one changing fastest, as a leaflet prints its rows. */
export function waysOf(points: Point[]): (string | number)[][] {
  return points.reduce<(string | number)[][]>(
    (ways, point) => ways.flatMap((way) => point.values.map((value) => [...way, value])),
    [[]],
  );
}

/** A name for a function out of its title. */
export function functionName(title: string): string {
  const name = title
    .toLowerCase()
    .normalize("NFKD")
    .replace(/[^a-z0-9]+/g, ".")
    .replace(/^\.+|\.+$/g, "");
  return name.slice(0, 60) || "function";
}

/** What was said, in words: “S1.3 off: 30 s, on: 60 s”. */
export function saidWords(said: Meaning, elements: Element[]): string {
  const points = said.points.map((id) => ({
    id,
    values: elements.find((each) => each.points.includes(id))?.values ?? [],
  }));
  const unit = said.unit ?? (said.type === "duration" ? "s" : "");
  return waysOf(points)
    .flatMap((way, index) => {
      const value = said.values[index];
      if (value === null || value === undefined) return [];
      const told = value === true ? "yes" : value === false ? "no" : String(value);
      return [`${way.map((each, at) => `${said.points[at] ?? ""} ${each}`).join(" ")}: ${told}${unit && ` ${unit}`}`];
    })
    .join(", ");
}
