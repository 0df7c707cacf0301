import type { TrackedInput } from "@/drawing/levelLine";

/** An input of a family: true or false, or a level with its bounds. */
export type Input = TrackedInput;

type Written = { id: string; title?: string; level?: boolean; unit?: string; from?: number; to?: number };

/** An input as its family writes it, with how it stands at rest. */
export const inputOf =
  (rest: Record<string, boolean | number>) =>
  (written: Written): Input => {
    const { id, from = 0, to = 1, unit = "" } = written;
    const input = { id, title: written.title ?? id };
    return written.level
      ? { ...input, rest: rest[id] ?? from, level: { unit, from, to } }
      : { ...input, rest: rest[id] ?? id === "power" };
  };

/** What an input does, in words: it begins, it ends, or, a level, it goes to a value. */
export function changeTold(inputs: Input[], id: string, value: boolean | number): string {
  const input = inputs.find((each) => each.id === id);
  const title = input?.title ?? id;
  if (typeof value === "boolean") return `${title} ${value ? "begins" : "ends"}`;
  return `${title} goes to ${value} ${input?.level?.unit ?? ""}`.trim();
}
