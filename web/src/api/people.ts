import { useQuery } from "@tanstack/react-query";
import { answer, api } from "./client";

/** Everybody of the depot, to choose from; for who may see them. */
export function usePeople(wanted: boolean) {
  return useQuery({
    queryKey: ["people", "to choose from"],
    queryFn: () => answer(api.GET("/api/people", { params: { query: { size: 50 } } })),
    enabled: wanted,
  });
}
