import { answer, api } from "@/api/client";
import { useQuery } from "@tanstack/react-query";
import { everyPage } from "./everyPage";

/** The kinds of machine that people of this depot see. */
export function useFamilies(wanted = true) {
  return useQuery({
    queryKey: ["families"],
    queryFn: () => everyPage((page) => answer(api.GET("/api/families", { params: { query: { page, size: 100 } } }))),
    staleTime: 60_000,
    enabled: wanted,
  });
}

/** One kind of machine with its document. */
export function useFamily(code: string | undefined) {
  return useQuery({
    queryKey: ["family", code],
    queryFn: () => answer(api.GET("/api/families/{code}", { params: { path: { code: code ?? "" } } })),
    enabled: code !== undefined,
    staleTime: 60_000,
  });
}
