/** Edits that the server has not answered yet: kept on the device under who made them, so that a reload loses none. */

import type { Change } from "./change";

export type KeptEdit = { id: string; what: Change["what"]; body: object; seen: number };

const place = (maker: string, draft: string) => `workshop ${maker} ${draft}`;

/** The edits of somebody that still wait. */
export function waiting(maker: string, draft: string): KeptEdit[] {
  try {
    const found: unknown = JSON.parse(localStorage.getItem(place(maker, draft)) ?? "[]");
    return Array.isArray(found) ? (found as KeptEdit[]) : [];
  } catch {
    return [];
  }
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
  try {
    if (edits.length) localStorage.setItem(place(maker, draft), JSON.stringify(edits));
    else localStorage.removeItem(place(maker, draft));
  } catch {
    // no room on the device: the page still has it
  }
}
