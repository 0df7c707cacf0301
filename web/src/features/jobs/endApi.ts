import { answer, api, type Schemas } from "@/api/client";
import { keepPreviousData, useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { at, planKey, type Job } from "./api";

export function useFitting(job: Job) {
  return useQuery({
    queryKey: ["fitting", ...planKey(job)],
    placeholderData: keepPreviousData,
    queryFn: () => answer(api.GET("/api/jobs/{job_id}/fitting", at(job.id))),
  });
}

export function usePanel(job: Job, panel: number, actions: string[], open: boolean) {
  return useQuery({
    queryKey: ["panel", job.id, job.entry_count, panel, actions],
    placeholderData: keepPreviousData,
    queryFn: () => answer(api.POST("/api/jobs/{job_id}/panel", { ...at(job.id), body: { panel, actions } })),
    enabled: open,
  });
}

export function useSlips(job: Job) {
  return useMutation({
    mutationFn: (given: Schemas["SlipGiven"]) =>
      answer(api.POST("/api/jobs/{job_id}/panel/slips", { ...at(job.id), body: given })),
  });
}

export function useWritePort(job: Job) {
  return useMutation({ mutationFn: () => answer(api.POST("/api/jobs/{job_id}/port/write", at(job.id))) });
}

export function useProving(job: Job) {
  return useQuery({
    queryKey: ["proving", ...planKey(job)],
    placeholderData: keepPreviousData,
    queryFn: () => answer(api.GET("/api/jobs/{job_id}/proving", at(job.id))),
  });
}

export function useRuns(job: Job, page: number) {
  return useQuery({
    queryKey: ["runs", ...planKey(job), page],
    placeholderData: keepPreviousData,
    queryFn: () =>
      answer(api.GET("/api/jobs/{job_id}/runs", { params: { path: { job_id: job.id }, query: { page, size: 5 } } })),
    enabled: job.run_count > 0,
  });
}

export function useHandOver(job: Job) {
  return useQuery({
    queryKey: ["hand-over", ...planKey(job)],
    placeholderData: keepPreviousData,
    queryFn: () => answer(api.GET("/api/jobs/{job_id}/hand-over", at(job.id))),
  });
}

export function useEarlier(job: Job) {
  return useQuery({
    queryKey: ["earlier", job.id],
    queryFn: () => answer(api.GET("/api/jobs/{job_id}/earlier", at(job.id))),
    staleTime: 60_000,
    // somebody else may lock the same machine off, or put its supply on
    refetchInterval: job.closed ? false : 30_000,
  });
}

export function useCalls(page: number) {
  return useQuery({
    queryKey: ["calls", page],
    placeholderData: keepPreviousData,
    queryFn: () => answer(api.GET("/api/calls", { params: { query: { page, size: 10 } } })),
  });
}

export function useBringIn() {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: (file: File) =>
      answer(
        api.POST("/api/packages", {
          body: file as never,
          bodySerializer: (body: unknown) => body as never,
          headers: { "Content-Type": "application/zip" },
        } as never),
      ) as Promise<Schemas["ImportedShown"]>,
    onSuccess: () => void queries.invalidateQueries({ queryKey: ["jobs"] }),
  });
}
