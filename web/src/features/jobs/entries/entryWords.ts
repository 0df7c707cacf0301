/** What entries say, in the words that the depot or the core has for them; in plain ones where neither can be asked. */
import { answer, api, type Schemas } from "@/api/client";
import { useQuery } from "@tanstack/react-query";
import { at } from "../api";

export type EntryWords = Schemas["EntryWords"];
type Change = { target: string; before?: unknown; after?: unknown };

/** An entry in one line: of what, from, to. */
export const entryLine = ({ about, before, after }: EntryWords) => `${about}: ${before} → ${after}`;

/** What changes of a sheet say, each in words. */
export function useEntryWords(sheet: string, changes: Change[]): EntryWords[] {
  const asked = changes.map(({ target, before, after }) => ({ target, before, after }));
  const words = useQuery({
    queryKey: ["entry-words", sheet, asked],
    queryFn: () => answer(api.POST("/api/jobs/{job_id}/entries/words", { ...at(sheet), body: { changes: asked } })),
    enabled: asked.length > 0,
    staleTime: Infinity,
    retry: false,
  });
  return words.data?.length === asked.length ? words.data : asked.map(plainWords);
}

/** An entry with every part of what was said, where nobody is there who knows how things are called. */
export function plainWords({ target, before, after }: Change): EntryWords {
  return { about: target.replaceAll("_", " ").replace(".", " "), before: plain(before), after: plain(after) };
}

function plain(value: unknown): string {
  if (value === null || value === undefined) return "nothing";
  if (typeof value === "boolean") return value ? "yes" : "no";
  if (Array.isArray(value)) return value.map(plain).join(", ");
  if (typeof value !== "object") return String(value);
  const parts = Object.entries(value).filter(([, each]) => each !== null && each !== "");
  return parts.map(([name, each]) => `${name.replaceAll("_", " ")} ${plain(each)}`).join(", ") || "confirmed";
}
