import { UNREADABLE, places, type Element, type Position } from "./types";

export type Hanging = Element["hanging"];

const OPPOSITE = { up: "down", down: "up", left: "right", right: "left" } as const;

/** What stands at the places 1, 2, … in the order in which the eye meets them; or back. */
export function seen<Each>(places: Each[], { backwards }: Hanging): Each[] {
  return backwards ? [...places].reverse() : places;
}

/** The way in which a slider with this mark points as one looks at it; nothing for one that nobody could read. */
export function points(mark: string, { on }: Hanging) {
  return mark === "1" ? on : mark === "0" ? OPPOSITE[on] : undefined;
}

/** How a bank is to be looked at: which place comes first, and where on is. */
export function hangingWords({ axis, backwards, on, known }: Hanging, count: number): string {
  if (!known) return `place 1 to ${count}; nobody wrote down which way it hangs, look for the print beside it`;
  const along = axis === "across" ? "left to right" : "top to bottom";
  return `${along} ${backwards ? `${count} to 1` : `1 to ${count}`}, on is ${on}`;
}

const ARROWS = { up: "↑", down: "↓", left: "←", right: "→" } as const;

/** On as a word and an arrow, such as stands printed beside a bank. */
export function onArrow({ on, known }: Hanging): string {
  if (!known) return "on ?";
  return `on ${ARROWS[on]}`;
}

/** A position as somebody looks at it: a bank's places in the order in which the eye meets them. */
export function asSeen(element: Element, value: Position): string {
  return element.points.length > 1 ? seen(places(element, value), element.hanging).join("") : String(value);
}

/** The switches of an element that are set otherwise than wanted, by name. */
export function setOtherwise(element: Element, value: Position, wanted: Position): string[] {
  if (String(value) === String(wanted)) return [];
  if (element.points.length < 2) return [element.id];
  const [is, should] = [places(element, value), places(element, wanted)];
  return element.points.filter((_, index) => is[index] !== should[index]);
}

/** What somebody copies onto a board, in groups of four that can be said aloud. */
export function inGroups(text: string): string {
  return /^[0-9?]{5,}$/.test(text) ? (text.match(/.{1,4}/g) ?? []).join(" ") : text;
}

/** A position in words. */
export function positionWords(element: Element, value: Position | undefined): string {
  if (value === undefined) return "not read";
  if (value === UNREADABLE) return "unreadable";
  return `${asSeen(element, value)}${element.unit ? ` ${element.unit}` : ""}`;
}
