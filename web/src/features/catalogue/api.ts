import { Problem, answer, api, type Schemas } from "@/api/client";
import { keepPreviousData, useMutation, useQuery, useQueryClient } from "@tanstack/react-query";

export type BoardsWanted = { search: string; status: "" | "current" | "discontinued"; page: number };

export function useBoards(wanted: BoardsWanted) {
  return useQuery({
    queryKey: ["boards", wanted],
    queryFn: () => answer(api.GET("/api/boards", { params: { query: wanted } })),
    placeholderData: keepPreviousData,
  });
}

export function useBoard(partNumber: string, revision?: number) {
  return useQuery({
    queryKey: ["board", partNumber, revision],
    queryFn: () =>
      answer(
        api.GET("/api/board/{part_number}", { params: { path: { part_number: partNumber }, query: { revision } } }),
      ),
  });
}

export function useRevisions(partNumber: string, page: number) {
  return useQuery({
    queryKey: ["revisions", partNumber, page],
    queryFn: () =>
      answer(
        api.GET("/api/board-revisions/{part_number}", {
          params: { path: { part_number: partNumber }, query: { page } },
        }),
      ),
    placeholderData: keepPreviousData,
  });
}

export function useFamily(code: string | undefined) {
  return useQuery({
    queryKey: ["family", code],
    queryFn: () => answer(api.GET("/api/families/{code}", { params: { path: { code: code ?? "" } } })),
    enabled: code !== undefined,
    staleTime: 60_000,
  });
}

/** Load a file, or only check it. */
export function useLoad() {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: async ({ text, keep }: { text: string; keep: boolean }): Promise<Schemas["LoadedShown"]> => {
      if (!text.trim()) throw new Problem(422, "There is no file yet", "Choose a file, or paste its text.");
      const call = api.POST("/api/documents", {
        params: { query: { keep } },
        body: text as never,
        bodySerializer: (body) => body as unknown as string,
        headers: { "Content-Type": "application/json" },
      });
      return answer(call);
    },
    onSuccess: (_, { keep }) => {
      if (keep) void queries.invalidateQueries();
    },
  });
}
