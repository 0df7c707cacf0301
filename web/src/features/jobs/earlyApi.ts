import { answer, api } from "@/api/client";
import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { at, planKey, type Job } from "./api";

export function useLeaflet(job: Job) {
  return useQuery({
    queryKey: ["leaflet", ...planKey(job)],
    placeholderData: keepPreviousData,
    queryFn: () => answer(api.GET("/api/jobs/{job_id}/leaflet", at(job.id))),
    enabled: job.replacement !== null,
  });
}

export function useTakeAlong(job: Job) {
  return useQuery({
    queryKey: ["take-along", ...planKey(job)],
    placeholderData: keepPreviousData,
    queryFn: () => answer(api.GET("/api/jobs/{job_id}/take-along", at(job.id))),
    enabled: job.original !== null && job.replacement !== null,
  });
}

/** The candidates as they stood when the choice was made. */
export function useAlternatives(job: Job, open: boolean) {
  return useQuery({
    queryKey: ["alternatives", job.id, job.replacement, job.replacement_profile],
    queryFn: () => answer(api.GET("/api/jobs/{job_id}/alternatives", at(job.id))),
    enabled: open && job.chosen !== null,
  });
}

/** Where positions that cannot be read may be taken from. */
export function useAssumable(job: Job, open: boolean) {
  return useQuery({
    queryKey: ["assumable", ...planKey(job)],
    placeholderData: keepPreviousData,
    queryFn: () => answer(api.GET("/api/jobs/{job_id}/assumable", at(job.id))),
    enabled: open && job.original !== null,
  });
}

/** The way in as an earlier job took it. */
export function useWayIn(job: Job) {
  return useQuery({
    queryKey: ["way-in", ...planKey(job)],
    placeholderData: keepPreviousData,
    queryFn: () => answer(api.GET("/api/jobs/{job_id}/way-in", at(job.id))),
    enabled: !job.closed,
  });
}

/** The wires between the boards of a job; asked for only where there are several. */
export function useBetween(job: Job) {
  return useQuery({
    queryKey: ["between", ...planKey(job)],
    queryFn: () => answer(api.GET("/api/jobs/{job_id}/between", at(job.id))),
    enabled: Boolean(job.together),
    placeholderData: keepPreviousData,
  });
}
