/** The tables of a draft, in the order of their tabs. */
export const PART_NAMES = ["meanings", "charts", "plugs", "behaviour", "changes"] as const;
export type PartName = (typeof PART_NAMES)[number];
