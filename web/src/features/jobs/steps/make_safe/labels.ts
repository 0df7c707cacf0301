/** What is asked of a hold point. */
export const LABELS: Record<string, string> = {
  where: "Where",
  tag: "Number on the tag",
  instrument: "Instrument",
  reading: "Reading",
  checked_before: "Instrument checked on a live source before",
  checked_after: "Instrument checked again after",
};
