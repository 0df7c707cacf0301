/** Lines of a sketch, as tapping makes them; whoever types writes the same. */
export type Kind =
  "bank" | "dial" | "jumper" | "trimmer" | "number" | "code" | "wheels" | "program" | "plug" | "relays" | "seen";
/** What is tapped of one thing before it is put down. */
export type Draft = {
  name: string;
  count: number;
  values: string;
  on: string;
  from: string;
  keyed: string;
  /** What is printed at the pins, from pin 1. */
  marks: string;
};

type Offer = {
  word: string;
  /** What its names begin with. */
  letter: string;
  counts?: number[];
  counted?: string;
};

export const OFFERS: Record<Exclude<Kind, "seen">, Offer> = {
  bank: { word: "Switch bank", letter: "S", counts: [2, 3, 4, 5, 6, 8, 10, 12], counted: "switches" },
  dial: { word: "Dial", letter: "R" },
  jumper: { word: "Jumper", letter: "J", counts: [2, 3, 4], counted: "pins" },
  trimmer: { word: "Trimmer", letter: "VR" },
  wheels: { word: "Thumbwheels", letter: "W", counts: [1, 2, 3, 4], counted: "wheels" },
  program: { word: "Program number", letter: "prog" },
  number: { word: "Number in a menu", letter: "P" },
  code: { word: "Code to key in", letter: "K", counts: [3, 4, 5, 6, 8], counted: "digits" },
  plug: { word: "Plug", letter: "C", counts: [1, 2, 3, 4, 6, 8, 10, 12], counted: "pins" },
  relays: { word: "Relays", letter: "", counts: [1, 2, 3, 4, 5, 6], counted: "relays" },
};
export const SEEN = ["lamp", "button", "fuse", "display"] as const;

/** What stands in a new thing of a kind before anything is tapped. */
export function freshDraft(kind: Kind, lines: string): Draft {
  const offer = kind === "seen" ? undefined : OFFERS[kind];
  const values = { dial: "0..9", trimmer: "0..10", program: "A..F", number: "0..300 by 5 s" }[kind as string] ?? "";
  return { name: nameFor(offer?.letter ?? "", lines), count: 0, values, on: "", from: "", keyed: "", marks: "" };
}

/** The first name of a letter that no line has yet: S1, S2 … */
export function nameFor(letter: string, lines: string): string {
  if (!letter) return "";
  const taken = new Set(lines.split(/[\n;]/).map((line) => line.trim().split(/\s+/)[0]));
  for (let number = 1; ; number++) if (!taken.has(`${letter}${number}`)) return `${letter}${number}`;
}

/** One thing as a line; nothing while something is missing that only whoever looks can say. */
export function lineOf(kind: Kind, { name, count, values, on, from, keyed, marks }: Draft): string | null {
  const counted = kind !== "seen" && OFFERS[kind].counts !== undefined;
  if (counted && count === 0) return null;
  switch (kind) {
    case "bank":
      return [`${name} bank ${count}`, on && `on ${on}`, from && `from ${from}`].filter(Boolean).join(", ");
    case "plug":
      return [
        `${name} plug ${count}`,
        keyed,
        marks.trim() &&
          `marked ${marks
            .trim()
            .split(/[\s,;]+/)
            .join(" ")}`,
      ]
        .filter(Boolean)
        .join(", ");
    case "relays":
      return `relays ${count}`;
    case "jumper":
    case "code":
    case "wheels":
      return `${name} ${kind} ${count}`;
    case "seen":
      return name;
    default:
      return values.trim() ? `${name} ${kind} ${values.trim()}` : null;
  }
}

/** The ends at which number 1 may be, by the way in which on points. */
export function endsFor(on: string): string[] {
  if (on === "up" || on === "down") return ["left", "right"];
  return on === "left" || on === "right" ? ["top", "bottom"] : ["left", "right", "top", "bottom"];
}

/** Lines with one more; without the last one. */
export const withLine = (lines: string, line: string) => (lines.trim() ? `${lines.trimEnd()}\n${line}` : line);
export const withoutLast = (lines: string) => lines.trimEnd().split("\n").slice(0, -1).join("\n");

/** A place in a picture, in per cent from the left and from the top. */
export type Place = { x: number; y: number };

/** Where in a box somebody tapped; its middle, where it was pressed by keyboard. */
export function placeIn(box: DOMRect, { clientX, clientY, detail }: MouseLike): Place {
  if (detail === 0) return { x: 50, y: 50 };
  const share = (from: number, length: number, at: number) =>
    Math.round(Math.min(1, Math.max(0, (at - from) / length)) * 1000) / 10;
  return { x: share(box.left, box.width, clientX), y: share(box.top, box.height, clientY) };
}
type MouseLike = { clientX: number; clientY: number; detail: number };

/** A line with the place where its thing is. */
export const atPlace = (line: string, at: Place | null) => (at ? `${line}, at ${at.x} ${at.y}` : line);

/** The line that says of which shape a picture is: at most 1,000 across. */
export async function shapeOf(picture: Blob): Promise<string> {
  const image = await createImageBitmap(picture, { imageOrientation: "from-image" });
  const part = Math.min(1, 1000 / Math.max(image.width, image.height));
  return `picture ${Math.round(image.width * part)} x ${Math.round(image.height * part)}`;
}

/** Lines with another shape of the picture, or with none; places stay, for another picture of the same board. */
export function withShape(lines: string, shape: string): string {
  const rest = lines.split("\n").filter((line) => !/^\s*picture\b/.test(line));
  return [...(shape ? [shape] : []), ...rest].join("\n").trim();
}
