import { answer, api, type Schemas } from "@/api/client";
import { useQuery } from "@tanstack/react-query";

export type There = Schemas["Whereabouts"];

/** In which vans these boards are: one's own first, then the nearest. */
export function useWhereabouts(pieces: string[]): Map<string, There[]> {
  const asked = useQuery({
    queryKey: ["stock", "whereabouts", pieces],
    queryFn: () => answer(api.GET("/api/stock/whereabouts", { params: { query: { piece: pieces } } })),
    enabled: pieces.length > 0,
    staleTime: 30_000,
  });
  const found = new Map<string, There[]>();
  for (const each of asked.data ?? []) found.set(each.piece, [...(found.get(each.piece) ?? []), each]);
  return found;
}

/** Where the nearest one is, in words; null where no van has it. */
export function thereWords(there: There[] | undefined): string | null {
  const [nearest] = there ?? [];
  if (!nearest) return null;
  if (nearest.mine) return "in your van";
  const far = nearest.minutes === null ? "" : `, ${nearest.minutes} min away`;
  return `in ${nearest.name}${far}`;
}
