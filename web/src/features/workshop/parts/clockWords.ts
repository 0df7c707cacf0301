/** Named clocks and counters as people write them: "since_stop expired, ran while compressor" and "n, starts kept". */

export type Clock = { id: string; starts?: "expired"; runs_without_power?: true; runs_while?: string };
export type Counter = { id: string; survives_power_loss?: true };

const words = (text: string) =>
  text
    .split(",")
    .map((part) => part.trim().split(/\s+/))
    .filter(([id]) => id);

export function clocksFrom(text: string): Clock[] {
  return words(text).map(([id = "", ...rest]) => {
    const signal = rest.includes("while") ? rest[rest.indexOf("while") + 1] : undefined;
    return {
      id,
      ...(rest.includes("expired") ? { starts: "expired" as const } : {}),
      ...(rest.includes("kept") ? { runs_without_power: true as const } : {}),
      ...(signal ? { runs_while: signal } : {}),
    };
  });
}

export function clocksText(clocks: Clock[]): string {
  return clocks
    .map((each) => [
      each.id,
      each.starts === "expired" && "expired",
      each.runs_without_power && "kept",
      each.runs_while && `while ${each.runs_while}`,
    ])
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
