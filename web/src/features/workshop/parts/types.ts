import type { Changing, Draft } from "../api";

/** What every part of a draft is shown with; `onMark` marks a part of the drawing. */
export type PartProps = { draft: Draft; changing: Changing; onMark: (ref: string) => void };
