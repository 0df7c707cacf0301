import { answer, api } from "@/api/client";
import { keepPreviousData, useQuery } from "@tanstack/react-query";

export function useMachines(search: string, page: number) {
  return useQuery({
    queryKey: ["machines", search, page],
    placeholderData: keepPreviousData,
    queryFn: () => answer(api.GET("/api/machines", { params: { query: { search, page } } })),
  });
}

export function useMachineNow(machine: string) {
  return useQuery({
    queryKey: ["machine-now", machine],
    queryFn: () => answer(api.GET("/api/machines/now", { params: { query: { machine } } })),
  });
}

export function useMachineJobs(machine: string, page: number) {
  return useQuery({
    queryKey: ["machine-jobs", machine, page],
    placeholderData: keepPreviousData,
    queryFn: () => answer(api.GET("/api/machines/jobs", { params: { query: { machine, page } } })),
  });
}
