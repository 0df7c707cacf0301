import type { Candidate, ReasonShown } from "./candidate";

/** The criteria in the order in which they are judged. */
export const CRITERIA: [id: string, name: string][] = [
  ["listing", "Listing"],
  ["supply", "Supply"],
  ["machine", "Machine"],
  ["contacts", "Contacts"],
  ["signals", "Signals"],
  ["connectors", "Plugs"],
  ["mounting", "Mounting"],
  ["settings", "Settings"],
  ["behaviour", "Twin check"],
  ["parts", "Parts"],
  ["surroundings", "Surroundings"],
  ["availability", "To be had"],
];

export function nameOf(criterion: string) {
  return CRITERIA.find(([id]) => id === criterion)?.[1] ?? criterion;
}

/** How long ago something was said. */
export function ageWords(seconds: number) {
  if (seconds < 90) return "just now";
  if (seconds < 5400) return `${Math.round(seconds / 60)} minutes ago`;
  if (seconds < 129_600) return `${Math.round(seconds / 3600)} hours ago`;
  return `${Math.round(seconds / 86_400)} days ago`;
}

const WORST_FIRST = ["no", "to check", "with work"];

/** What speaks against a candidate or has to be done for it, the worst first, each thing once. */
export function reasonsInOrder(candidate: Candidate): ReasonShown[] {
  // whether it can be had stands beside the price
  const judged = candidate.cells.filter((cell) => cell.criterion !== "availability");
  const reasons = judged.flatMap((cell) => cell.reasons);
  const ranked = WORST_FIRST.flatMap((verdict) => reasons.filter((each) => each.verdict === verdict));
  return ranked.filter((each, index) => ranked.findIndex((other) => other.words === each.words) === index);
}

/** When a candidate is here. */
export function haveWords(offer: Candidate["offer"]): string {
  if (!offer) return "being asked";
  if (offer.unknown) return "not known";
  if (offer.price === null) return "no answer";
  if (offer.on_van) return "on the van";
  if (offer.stock) return `${offer.stock} in stock`;
  if (offer.days === null) return "cannot be had";
  return offer.days === 1 ? "1 day" : `${offer.days} days`;
}
