import { answer, api, type Schemas } from "@/api/client";
import { keepPreviousData, useQuery } from "@tanstack/react-query";

export type Pair = Schemas["PairGiven"];

const SHOWN = 8;

/** The first boards whose number, title or maker has this in it. */
export function useBoardsLike(search: string, family: string | undefined, enabled: boolean) {
  return useQuery({
    queryKey: ["bench-boards", search, family],
    placeholderData: keepPreviousData,
    queryFn: () => answer(api.GET("/api/boards", { params: { query: { search, family: family ?? "", size: SHOWN } } })),
    enabled,
  });
}

export function useBenchBoard(partNumber: string) {
  return useQuery({
    queryKey: ["board", partNumber, undefined],
    queryFn: () => answer(api.GET("/api/board/{part_number}", { params: { path: { part_number: partNumber } } })),
    enabled: partNumber !== "",
  });
}

export function useBenchComparison(pair: Pair) {
  return useQuery({
    queryKey: ["bench", pair],
    queryFn: () => answer(api.POST("/api/bench/compare", { body: pair })),
    enabled: pair.original !== "" && pair.replacement !== "",
    placeholderData: keepPreviousData,
  });
}
