import type { Draft } from "./api";

export const STATE_WORDS: Record<Draft["state"], string> = {
  open: "worked on",
  proposed: "proposed to the parts lead",
  published: "published",
  given_up: "put away",
};

export const TYPE_WORDS: Record<string, string> = {
  duration: "a time",
  number: "a number",
  count: "a count",
  choice: "one of several",
  flag: "yes or no",
};

export const WORTHS = [
  ["leaflet", "a leaflet or manual"],
  ["measured", "measured on a board"],
  ["usual", "the usual of its kind"],
  ["sketched", "seen at the machine"],
] as const;

/** A name for use in documents, made of a title: letters, digits and points. */
export function idFrom(title: string, taken: string[]): string {
  const base =
    title
      .toLowerCase()
      .normalize("NFKD")
      .replace(/[^a-z0-9]+/g, ".")
      .replace(/^\.+|\.+$/g, "")
      .slice(0, 60) || "one";
  for (let number = 1; ; number++) {
    const name = number === 1 ? base : `${base}.${number}`;
    if (!taken.includes(name)) return name;
  }
}

/** A board by its maker and title, as far as they are known. */
export function called({ maker, title }: { maker: string; title: string }): string {
  return [maker === "not known" ? "" : maker, title].filter(Boolean).join(", ");
}
