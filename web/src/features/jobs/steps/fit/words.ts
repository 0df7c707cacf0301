/** What somebody copies onto a board, in groups of four that can be said aloud. */
export function inGroups(value: string | number | undefined): string {
  const text = String(value ?? "");
  return /^[0-9?]{5,}$/.test(text) ? (text.match(/.{1,4}/g) ?? []).join(" ") : text;
}
