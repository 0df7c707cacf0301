import { answer, api, type Schemas } from "@/api/client";
import { newId } from "@/api/ids";
import { keepPreviousData, useMutation, useQuery, useQueryClient } from "@tanstack/react-query";

export type Statement = Schemas["StatementShown"];
export type Import = Schemas["ImportShown"];

export const RELATIONS = [
  "same",
  "supersedes",
  "universal",
  "kit",
  "exchange",
  "repair",
  "donor",
  "not exchangeable",
] as const;
export type Relation = "" | (typeof RELATIONS)[number];
export type StatementsWanted = { board: string; relation: Relation; withdrawn: boolean; page: number };

export function useStatements(wanted: StatementsWanted) {
  return useQuery({
    queryKey: ["statements", wanted],
    queryFn: () => answer(api.GET("/api/statements", { params: { query: wanted } })),
    placeholderData: keepPreviousData,
  });
}

export function useContradictions(page: number) {
  return useQuery({
    queryKey: ["contradictions", page],
    queryFn: () => answer(api.GET("/api/contradictions", { params: { query: { page, size: 10 } } })),
    placeholderData: keepPreviousData,
  });
}

/** Withdraw a statement with a reason, or let it count again. */
export function useWithdraw() {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: ({ id, reason }: { id: string; reason: string | null }) =>
      reason === null
        ? answer(api.POST("/api/statements/{code}/restore", { params: { path: { code: id } } }))
        : answer(api.POST("/api/statements/{code}/withdraw", { params: { path: { code: id } }, body: { reason } })),
    onSuccess: () => {
      void queries.invalidateQueries({ queryKey: ["statements"] });
      void queries.invalidateQueries({ queryKey: ["contradictions"] });
    },
  });
}

export function isRunning(job: Import) {
  return job.state === "waiting" || job.state === "reading" || job.state === "keeping";
}

export function useImports(page: number) {
  return useQuery({
    queryKey: ["imports", page],
    queryFn: () => answer(api.GET("/api/imports", { params: { query: { page, size: 10 } } })),
    placeholderData: keepPreviousData,
    refetchInterval: (query) => (query.state.data?.items.some(isRunning) ? 1000 : false),
  });
}

export function useSendImport() {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: (file: File) => {
      const form = new FormData();
      form.append("id", newId());
      form.append("file", file);
      return answer(api.POST("/api/imports", { body: form as never, bodySerializer: (body) => body as never }));
    },
    onSuccess: () => void queries.invalidateQueries({ queryKey: ["imports"] }),
  });
}

export function useCancelImport() {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: (id: string) =>
      answer(api.POST("/api/imports/{import_id}/cancel", { params: { path: { import_id: id } } })),
    onSuccess: () => void queries.invalidateQueries({ queryKey: ["imports"] }),
  });
}
