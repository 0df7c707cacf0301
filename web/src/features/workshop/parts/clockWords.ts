/** Named clocks and counters as people write them: "since_stop expired, hold" and "n, starts kept". */

export type Clock = { id: string; starts?: "expired"; runs_without_power?: true };
export type Counter = { id: string; survives_power_loss?: true };

const words = (text: string) =>
  text
    .split(",")
    .map((part) => part.trim().split(/\s+/))
    .filter(([id]) => id);

export function clocksFrom(text: string): Clock[] {
  return words(text).map(([id = "", ...rest]) => ({
    id,
    ...(rest.includes("expired") ? { starts: "expired" as const } : {}),
    ...(rest.includes("kept") ? { runs_without_power: true as const } : {}),
  }));
}

export function clocksText(clocks: Clock[]): string {
  return clocks
    .map((each) => [each.id, each.starts === "expired" && "expired", each.runs_without_power && "kept"])
    .map((parts) => parts.filter(Boolean).join(" "))
    .join(", ");
}

export function countersFrom(text: string): Counter[] {
  return words(text).map(([id = "", ...rest]) => ({
    id,
    ...(rest.includes("kept") ? { survives_power_loss: true as const } : {}),
  }));
}

export function countersText(counters: Counter[]): string {
  return counters.map((each) => (each.survives_power_loss ? `${each.id} kept` : each.id)).join(", ");
}
