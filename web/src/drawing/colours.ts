/**
 * Colours of things as words: solder masks, and wires by their names or by the letter codes of IEC 60757 (1983), two of
 * them for a wire of two colours. What is not known has no colour, and is drawn in the ink.
 */
const MASKS: Record<string, string> = {
  green: "#3f6b4a",
  blue: "#3d5f8f",
  brown: "#7a5a3c",
  black: "#33302c",
  white: "#e9e5da",
  red: "#8f3a33",
};

/** The colour of a board's mask; nothing where nobody said. */
export function maskOf(colour: unknown): string | undefined {
  return MASKS[String(colour ?? "").toLowerCase()];
}

const WIRES: [code: string, name: string, drawn: string][] = [
  ["BK", "black", "#1d1b19"],
  ["BN", "brown", "#7b4a21"],
  ["RD", "red", "#c02626"],
  ["OG", "orange", "#e07b12"],
  ["YE", "yellow", "#efc91f"],
  ["GN", "green", "#2f8a45"],
  ["BU", "blue", "#2f63b5"],
  ["VT", "violet", "#7d4aa8"],
  ["GY", "grey", "#8b8b8b"],
  ["WH", "white", "#fafafa"],
  ["PK", "pink", "#ea9bb5"],
  ["TQ", "turquoise", "#35aeb0"],
];
const OTHER_NAMES: Record<string, string> = { gray: "grey", purple: "violet" };

/** The one or two colours of a wire, as they are drawn; nothing where the words name none. */
export function wireColours(words: string): string[] {
  const text = words.trim();
  const codes = /^([A-Za-z]{2})[-/ ]?([A-Za-z]{2})?$/.exec(text);
  if (codes) {
    const found = [codes[1], codes[2]].flatMap((code) => (code ? byCode(code) : []));
    if (found.length > 0) return found;
  }
  return (text.toLowerCase().match(/[a-z]+/g) ?? []).flatMap(byName).slice(0, 2);
}

function byCode(code: string): string[] {
  return WIRES.filter(([each]) => each === code.toUpperCase()).map(([, , drawn]) => drawn);
}

function byName(word: string): string[] {
  const name = OTHER_NAMES[word] ?? word;
  return WIRES.filter(([, each]) => each === name).map(([, , drawn]) => drawn);
}
