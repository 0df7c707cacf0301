/** Edits that the server has not answered yet: kept on the device under who made them, so that a reload loses none. */

import { keepValue, keptValue } from "@/api/kept";
import type { Change } from "./change";

export type KeptEdit = { id: string; what: Change["what"]; body: object; seen: number };

const place = (draft: string) => `workshop ${draft}`;

/** The edits of somebody that still wait. */
export function waiting(maker: string, draft: string): KeptEdit[] {
  const found = keptValue<unknown>(place(draft), maker);
  return Array.isArray(found) ? (found as KeptEdit[]) : [];
}

export function keep(maker: string, draft: string, edit: KeptEdit) {
  store(maker, draft, [...waiting(maker, draft).filter((each) => each.id !== edit.id), edit]);
}

export function drop(maker: string, draft: string, id: string) {
  store(
    maker,
    draft,
    waiting(maker, draft).filter((each) => each.id !== id),
  );
}

function store(maker: string, draft: string, edits: KeptEdit[]) {
  keepValue(place(draft), edits.length ? edits : null, maker);
}
