/** Whether a page has room for two columns; what stands beside the work is open there, and folded where it stands above it. */
export function isWide() {
  return typeof window.matchMedia === "function" && window.matchMedia("(min-width: 1100px)").matches;
}
