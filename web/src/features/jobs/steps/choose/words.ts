/** The criteria in the order of the matrix, with a short name for narrow columns. */
export const CRITERIA: [id: string, name: string, short: string][] = [
  ["listing", "Listing", "List"],
  ["supply", "Supply", "Supply"],
  ["machine", "Machine", "Mach."],
  ["contacts", "Contacts", "Cont."],
  ["signals", "Signals", "Sign."],
  ["connectors", "Plugs", "Plugs"],
  ["mounting", "Mounting", "Mount"],
  ["settings", "Settings", "Sett."],
  ["behaviour", "Twin check", "Twin"],
  ["parts", "Parts", "Parts"],
  ["surroundings", "Surroundings", "Place"],
  ["availability", "To be had", "Had"],
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
