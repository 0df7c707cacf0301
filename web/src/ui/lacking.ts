/** What is missing of all that is wanted, in words: for a button that cannot be pressed yet. */
export function lacking(wanted: Record<string, boolean>): string {
  return Object.keys(wanted)
    .filter((name) => wanted[name])
    .join(", ");
}
