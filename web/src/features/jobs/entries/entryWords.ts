import { STEP_NAMES } from "@/ui/stepNames";

const KINDS: Record<string, string> = {
  original: "Original",
  replacement: "Replacement",
  found: "Found",
  override: "Set by hand",
  reason: "Reason",
  confirmed: "Confirmed",
};

type Said = { target: string; before?: unknown; after?: unknown };

/** What an entry speaks of. */
export function targetWords(target: string): string {
  const [kind = "", ...rest] = target.split(".");
  const name = rest.join(".");
  return `${KINDS[kind] ?? kind}${name ? ` ${STEP_NAMES[name] ?? name}` : ""}`;
}

/** An entry in one line: of what, from, to. */
export function entryWords(entry: Said): string {
  const what = targetWords(entry.target);
  const order = [entry.before, entry.after].some(isBank) ? ", place 1 first" : "";
  return `${what}${order}: ${valueWords(entry.before)} → ${valueWords(entry.after)}`;
}

/** Whether a value is a bank as it is recorded: drawings show it as it hangs, a record from place 1 on. */
function isBank(value: unknown): boolean {
  return typeof value === "string" && /^[01?]{2,}$/.test(value);
}

/** A value in a word or two. */
export function valueWords(value: unknown): string {
  if (value === null || value === undefined) return "nothing";
  if (typeof value === "object") return String((value as { note?: string }).note || "yes");
  return String(value);
}
