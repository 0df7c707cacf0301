import type { Schemas } from "@/api/client";

export type Element = Schemas["ElementShown"];
export type Position = string | number;
export type Positions = Record<string, Position>;
export type Side = "original" | "replacement";

/** Where a part sits on a board, in millimetres from the lower left corner. */
export type Placed = {
  ref: string;
  at: [number, number];
  size?: [number, number];
  turn?: number;
};

/** What a drawing takes from a board's document. */
export type BoardDocument = {
  size_mm?: [number, number];
  holes?: { at: [number, number]; diameter_mm: number }[];
  layout?: Placed[];
  connectors?: {
    id: string;
    style?: string;
    keyed?: boolean;
    pins: { pin: number | string; mark?: string; signal?: string }[];
  }[];
  look?: Record<string, string | number | boolean>;
};

/** What every editor of one element takes. */
export type EditorProps = {
  element: Element;
  value: Position | undefined;
  side: Side;
  /** Whether an unreadable position is an allowed answer (in a record it is, in a plan it is not). */
  unreadable?: boolean;
  disabled?: boolean;
  onChange: (value: Position) => void;
};

export const UNREADABLE = "?";

/** How a board leaves its maker, as far as that is known. */
export function factorySettings(elements: Element[]): Positions {
  return Object.fromEntries(elements.flatMap(({ id, factory }) => (factory === null ? [] : [[id, factory]])));
}

/** The places of a bank or code as written, unreadable where nothing is known. */
export function places(element: Element, value: Position | undefined): string[] {
  const text = value === undefined ? "" : String(value);
  return element.points.map((_, index) => text[index] ?? UNREADABLE);
}
