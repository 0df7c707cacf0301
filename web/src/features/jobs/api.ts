import { newId } from "@/api/ids";
import { answer, api, type Schemas } from "@/api/client";
import { keepPreviousData, useMutation, useQuery, useQueryClient } from "@tanstack/react-query";

export type Job = Schemas["JobShown"];
export type JobsWanted = { show: "open" | "closed" | "all"; search: string; page: number };

export const at = (id: string) => ({ params: { path: { job_id: id } } });

export function useJobs(wanted: JobsWanted) {
  return useQuery({
    queryKey: ["jobs", wanted],
    queryFn: () => answer(api.GET("/api/jobs", { params: { query: wanted } })),
    placeholderData: keepPreviousData,
  });
}

export function useOpenJob() {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: (job: Schemas["NewJob"]) => answer(api.POST("/api/jobs", { body: job })),
    onSuccess: (job) => {
      queries.setQueryData(["job", job.id], job);
      void queries.invalidateQueries({ queryKey: ["jobs"] });
    },
  });
}

export function useJob(id: string) {
  return useQuery({ queryKey: ["job", id], queryFn: () => answer(api.GET("/api/jobs/{job_id}", at(id))) });
}

/** The steps that the person who is signed in has ended before, in whatever job: there nothing needs to be explained. */
export function useStepsDone() {
  return useQuery({
    queryKey: ["steps-done"],
    queryFn: () => answer(api.GET("/api/steps-done")),
    staleTime: Infinity,
  });
}

export function useJobBoard(job: Job, side: "original" | "replacement") {
  const board = side === "original" ? job.original_board : job.replacement_board;
  return useQuery({
    queryKey: ["job-board", job.id, side, board?.part_number, board?.revision],
    queryFn: () => answer(api.GET("/api/jobs/{job_id}/boards/{side}", { params: { path: { job_id: job.id, side } } })),
    enabled: board !== null,
    staleTime: Infinity,
  });
}

/** What answers hang on: every entry that the server has may change them; what still waits here does not count yet. */
export function planKey(job: Job) {
  return [job.id, job.entry_count];
}

export function useComparison(job: Job) {
  return useQuery({
    queryKey: ["comparison", ...planKey(job)],
    queryFn: () => answer(api.GET("/api/jobs/{job_id}/comparison", at(job.id))),
    enabled: job.original !== null && job.replacement !== null,
    placeholderData: keepPreviousData,
  });
}

export function useCandidates(job: Job, page: number) {
  return useQuery({
    queryKey: ["candidates", ...planKey(job), page],
    placeholderData: keepPreviousData,
    queryFn: () =>
      answer(
        api.GET("/api/jobs/{job_id}/candidates", { params: { path: { job_id: job.id }, query: { page, size: 12 } } }),
      ),
    enabled: job.original !== null,
    // what the parts desk says comes in later; ask again while it is being asked
    refetchInterval: (query) =>
      query.state.data?.items.some((each) => each.offer === null) && query.state.dataUpdateCount < 6 ? 2500 : false,
  });
}

/** A number in hand, judged alone. */
export function useHave(job: Job, text: string) {
  return useQuery({
    queryKey: ["have", ...planKey(job), text],
    queryFn: () =>
      answer(api.GET("/api/jobs/{job_id}/have", { params: { path: { job_id: job.id }, query: { text } } })),
    enabled: text !== "",
  });
}

export function useBeside(job: Job, partNumber: string) {
  return useQuery({
    queryKey: ["beside", ...planKey(job), partNumber],
    queryFn: () =>
      answer(
        api.GET("/api/jobs/{job_id}/beside/{part_number}", {
          params: { path: { job_id: job.id, part_number: partNumber } },
        }),
      ),
  });
}

/** How a candidate would behave, and what comes closer. */
export function useTwin(job: Job, partNumber: string) {
  return useQuery({
    queryKey: ["twin", ...planKey(job), partNumber],
    queryFn: () =>
      answer(
        api.GET("/api/jobs/{job_id}/twin/{part_number}", {
          params: { path: { job_id: job.id, part_number: partNumber } },
        }),
      ),
  });
}

export function useCosts(job: Job, partNumber: string) {
  return useQuery({
    queryKey: ["costs", ...planKey(job), partNumber],
    placeholderData: keepPreviousData,
    queryFn: () =>
      answer(
        api.GET("/api/jobs/{job_id}/costs", {
          params: { path: { job_id: job.id }, query: { part_number: partNumber } },
        }),
      ),
  });
}

export function useRuleOut(job: Job) {
  return useQuery({
    queryKey: ["rule-out", ...planKey(job)],
    placeholderData: keepPreviousData,
    queryFn: () => answer(api.GET("/api/jobs/{job_id}/rule-out", at(job.id))),
    enabled: job.family !== null,
  });
}

export function useMachine(job: Job) {
  return useQuery({
    queryKey: ["machine", ...planKey(job)],
    placeholderData: keepPreviousData,
    queryFn: () => answer(api.GET("/api/jobs/{job_id}/machine", at(job.id))),
  });
}

export function useKey(job: Job, open: boolean) {
  return useQuery({
    queryKey: ["key", ...planKey(job)],
    placeholderData: keepPreviousData,
    queryFn: () => answer(api.GET("/api/jobs/{job_id}/key", at(job.id))),
    enabled: open,
  });
}

export function usePlates(text: string, family: string | null) {
  return useQuery({
    queryKey: ["plates", text, family],
    placeholderData: keepPreviousData,
    queryFn: () => answer(api.GET("/api/plates", { params: { query: { text, family: family ?? "" } } })),
    enabled: text.trim().length > 1,
  });
}

export function useSerial(text: string, scheme: string) {
  return useQuery({
    queryKey: ["serial", text, scheme],
    placeholderData: keepPreviousData,
    queryFn: () => answer(api.GET("/api/serial", { params: { query: { text, scheme } } })),
    enabled: text.trim().length > 1,
  });
}

export function useMakeSafe(job: Job) {
  return useQuery({
    queryKey: ["make-safe", ...planKey(job)],
    placeholderData: keepPreviousData,
    queryFn: async () => ({
      ...(await answer(api.GET("/api/jobs/{job_id}/make-safe", at(job.id)))),
      read_at: performance.now(),
    }),
  });
}

export function useRecord(job: Job) {
  return useQuery({
    queryKey: ["record", ...planKey(job)],
    placeholderData: keepPreviousData,
    queryFn: () => answer(api.GET("/api/jobs/{job_id}/record", at(job.id))),
    enabled: job.original !== null,
  });
}

export function useTraces(job: Job, open: boolean) {
  return useQuery({
    queryKey: ["traces", ...planKey(job)],
    placeholderData: keepPreviousData,
    queryFn: () => answer(api.GET("/api/jobs/{job_id}/traces", at(job.id))),
    enabled: open,
  });
}

export function useWiring(job: Job) {
  return useQuery({
    queryKey: ["wiring", ...planKey(job)],
    placeholderData: keepPreviousData,
    queryFn: () => answer(api.GET("/api/jobs/{job_id}/wiring", at(job.id))),
    enabled: job.replacement !== null,
    retry: false,
  });
}

export function usePresses(job: Job) {
  return useQuery({
    queryKey: ["presses", ...planKey(job)],
    placeholderData: keepPreviousData,
    queryFn: () => answer(api.GET("/api/jobs/{job_id}/presses", at(job.id))),
    enabled: job.replacement !== null,
  });
}

export function useReadPort(job: Job) {
  return useMutation({ mutationFn: () => answer(api.POST("/api/jobs/{job_id}/port/read", at(job.id))) });
}

export function useDraft(job: Job) {
  return useMutation({ mutationFn: () => answer(api.POST("/api/jobs/{job_id}/draft", at(job.id))) });
}

export function useCheckDraft(job: Job) {
  return useMutation({
    mutationFn: (behaviour: Record<string, unknown>) =>
      answer(api.POST("/api/jobs/{job_id}/draft/check", { ...at(job.id), body: { behaviour } })),
  });
}

export function useLoadDraft(job: Job) {
  return useMutation({
    mutationFn: (behaviour: Record<string, unknown>) =>
      answer(api.POST("/api/jobs/{job_id}/draft/load", { ...at(job.id), body: { behaviour } })),
  });
}

/** Put a drafted behaviour into the workshop’s draft of the original, where it is completed and published. */
export function useTakeDraft(job: Job) {
  return useMutation({
    mutationFn: async (behaviour: Record<string, unknown>) => {
      const draft = await answer(api.POST("/api/drafts", { body: { part_number: job.original ?? "" } }));
      const source = { worth: "measured", sources: [{ what: `timed runs of ${job.code}` }] };
      const put = (seen: number, name: string, after: unknown) =>
        answer(
          api.POST("/api/drafts/{draft}/place", {
            params: { path: { draft: draft.id } },
            body: { path: ["board", ...name.split(".")], after, seen, id: newId() },
          }),
        );
      const first = await put(draft.version, "behaviour", behaviour);
      return put(first.version, "standing.behaviour", source);
    },
  });
}

export function readBank(id: string, picture: string, given: Schemas["BankGiven"]) {
  return answer(
    api.POST("/api/jobs/{job_id}/pictures/{picture_id}/bank", {
      params: { path: { job_id: id, picture_id: picture } },
      body: given,
    }),
  );
}

export function useEntriesPage(id: string, page: number, count: number) {
  return useQuery({
    queryKey: ["entries", id, page, count],
    queryFn: () => answer(api.GET("/api/jobs/{job_id}/entries", { params: { path: { job_id: id }, query: { page } } })),
    placeholderData: keepPreviousData,
  });
}

export function useMarked(text: string) {
  return useQuery({
    queryKey: ["marked", text],
    queryFn: () => answer(api.GET("/api/boards/marked", { params: { query: { text } } })),
    enabled: text.trim().length > 1,
    placeholderData: keepPreviousData,
  });
}

export function useBoardChoices(search: string, page: number, family = "") {
  return useQuery({
    queryKey: ["board-choices", search, page, family],
    queryFn: () => answer(api.GET("/api/boards", { params: { query: { search, page, family, size: 25 } } })),
    placeholderData: keepPreviousData,
  });
}

export function useFamily(code: string | null) {
  return useQuery({
    queryKey: ["family", code],
    queryFn: () => answer(api.GET("/api/families/{code}", { params: { path: { code: code ?? "" } } })),
    enabled: code !== null,
    staleTime: 60_000,
  });
}

export function playJob(id: string, scenario: Schemas["ScenarioGiven"]) {
  return answer(api.POST("/api/jobs/{job_id}/play", { ...at(id), body: scenario }));
}
