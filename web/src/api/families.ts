import { answer, api } from "@/api/client";
import { useQuery } from "@tanstack/react-query";

/** The kinds of machine that people of this depot see. */
export function useFamilies(wanted = true) {
  return useQuery({
    queryKey: ["families"],
    queryFn: () => answer(api.GET("/api/families", { params: { query: { size: 100 } } })),
    staleTime: 60_000,
    enabled: wanted,
  });
}
