import { answer, api, Problem, type Schemas } from "@/api/client";
import { newId } from "@/api/ids";
import { keepPreviousData, useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useEffect } from "react";
import type { Change } from "./change";
import { drop, keep, waiting, type KeptEdit } from "./kept";

export type Draft = Schemas["DraftInFull"];
export type DraftFunction = Schemas["DraftFunction"];
export type Column = Schemas["ChartColumn"];

const OTHERS_MS = 5_000;
const RETRY_MS = 2_000;

/** The depot's drafts. */
export function useDrafts(live: boolean, page: number) {
  return useQuery({
    queryKey: ["drafts", live, page],
    queryFn: () => answer(api.GET("/api/drafts", { params: { query: { live, page } } })),
    placeholderData: keepPreviousData,
  });
}

/** Boards of the depot of which only a sketch is known. */
export function useSketches(page: number) {
  return useQuery({
    queryKey: ["sketches", page],
    queryFn: () => answer(api.GET("/api/sketches", { params: { query: { page } } })),
    placeholderData: keepPreviousData,
  });
}

/** Take a board into the workshop. */
export function useOpenDraft() {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: (part_number: string) => answer(api.POST("/api/drafts", { body: { part_number } })),
    onSuccess: () =>
      Promise.all([
        queries.invalidateQueries({ queryKey: ["drafts"] }),
        queries.invalidateQueries({ queryKey: ["sketches"] }),
      ]),
  });
}

export type Asked = Schemas["AskedShown"];

/** What open jobs ask of the depot. */
export function useAsked(page: number) {
  return useQuery({
    queryKey: ["asked", page],
    queryFn: () => answer(api.GET("/api/asked", { params: { query: { page } } })),
    placeholderData: keepPreviousData,
  });
}

/** Answer a job that asks. */
export function useAnswer() {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: ({ job, what }: { job: string; what: string }) =>
      answer(
        api.POST("/api/jobs/{job_id}/entries", {
          params: { path: { job_id: job } },
          body: { id: newId(), target: "answered", before: null, after: { what } } as Schemas["EntryGiven"],
        }),
      ),
    onSuccess: () => queries.invalidateQueries({ queryKey: ["asked"] }),
  });
}

/** What speaks against a sketch being a board that was there, and the jobs that would move along. */
export function useAgainst(sketch: string, board: string | null) {
  return useQuery({
    queryKey: ["sketch against", sketch, board],
    queryFn: () => answer(api.GET("/api/sketches/against", { params: { query: { sketch, board: board ?? "" } } })),
    enabled: board !== null,
  });
}

/** Say that a sketch is a board that was there. */
export function useJoin() {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: (said: Schemas["JoinGiven"]) => answer(api.POST("/api/sketches/join", { body: said })),
    onSuccess: () =>
      Promise.all([
        queries.invalidateQueries({ queryKey: ["sketches"] }),
        queries.invalidateQueries({ queryKey: ["boards"] }),
      ]),
  });
}

/** A draft, looked at again every few seconds, for somebody else may be at it too. */
export function useDraft(id: string) {
  return useQuery({
    queryKey: ["draft", id],
    queryFn: () => answer(api.GET("/api/drafts/{draft}", { params: { path: { draft: id } } })),
    refetchInterval: (query) => (["open", "proposed"].includes(query.state.data?.state ?? "open") ? OTHERS_MS : false),
  });
}

const PATHS = {
  meaning: "/api/drafts/{draft}/meaning",
  chart: "/api/drafts/{draft}/chart",
  pins: "/api/drafts/{draft}/pins",
  state: "/api/drafts/{draft}/state",
  place: "/api/drafts/{draft}/place",
  borrow: "/api/drafts/{draft}/borrow",
  undo: "/api/drafts/{draft}/undo",
} as const;

const isForLater = (error: Error) => error instanceof Problem && error.isForLater;
const isSignedOut = (error: Error) => error instanceof Problem && error.status === 401;

/** Edits of a draft, one after the other. Each says which version was looked at. */
export function useChange(draft: Draft) {
  const queries = useQueryClient();
  const path = { params: { path: { draft: draft.id } } };
  const worksHere = () => queries.getQueryData<Schemas["Me"] | null>(["session"])?.username ?? "";
  const maker = worksHere();
  const call = async ({ id, what, body, seen }: KeptEdit): Promise<Draft> => {
    // what one person made is never sent as another's, who signed in while it waited
    if (worksHere() !== maker) throw new Problem(401, "Not signed in", `${maker} made this: it waits for them.`);
    // every one of these takes its own body, which `Change` holds to
    return answer(api.POST(PATHS[what], { ...path, body: { ...body, id, seen } as never }));
  };
  const mutation = useMutation({
    scope: { id: `draft ${draft.id}` },
    mutationFn: call,
    // without a connection an edit waits, and is sent until it is answered; sending one twice changes nothing
    retry: (_, error) => isForLater(error) && !isSignedOut(error),
    retryDelay: RETRY_MS,
    onMutate: (edit) => keep(maker, draft.id, edit),
    onSettled: (_, error, edit) => {
      if (!error || !isForLater(error)) drop(maker, draft.id, edit.id);
    },
    onSuccess: (shown) => queries.setQueryData(["draft", draft.id], shown),
    onError: (error) => queries.invalidateQueries({ queryKey: isSignedOut(error) ? ["session"] : ["draft", draft.id] }),
  });
  const { mutate } = mutation;
  useEffect(() => {
    // what the page was left with before it was answered
    for (const each of waiting(maker, draft.id)) mutate(each);
  }, [maker, draft.id, mutate]);
  return {
    error: mutation.error,
    pending: mutation.isPending,
    offline: mutation.isPending && mutation.failureReason instanceof Problem,
    change: (change: Change, seen = draft.version, then?: () => void) =>
      mutate(
        { id: newId(), what: change.what, body: "body" in change ? change.body : {}, seen },
        then ? { onSuccess: then } : undefined,
      ),
  };
}

export type Changing = ReturnType<typeof useChange>;

/** What columns with these headings are. */
export function useGuess(draft: string) {
  return useMutation({
    mutationFn: (table: { headings: string[]; rows: string[][] }) =>
      answer(api.POST("/api/drafts/{draft}/columns", { params: { path: { draft } }, body: table })),
  });
}

/** What publishing a draft would change. */
export function useChanges(draft: Draft) {
  return useQuery({
    queryKey: ["draft changes", draft.id, draft.version, draft.current],
    queryFn: () => answer(api.GET("/api/drafts/{draft}/changes", { params: { path: { draft: draft.id } } })),
  });
}

type Step = Schemas["StepGiven"] | { to: "published"; over: number; reason: string };

/** What becomes of a draft. */
export function useStep(draft: Draft) {
  const queries = useQueryClient();
  const path = { params: { path: { draft: draft.id } } };
  return useMutation({
    mutationFn: (step: Step): Promise<Draft> =>
      step.to === "published"
        ? answer(
            api.POST("/api/drafts/{draft}/publish", {
              ...path,
              body: { seen: draft.version, over: step.over, reason: step.reason },
            }),
          )
        : answer(api.POST("/api/drafts/{draft}/step", { ...path, body: step })),
    onSuccess: (shown) => {
      queries.setQueryData(["draft", draft.id], shown);
      void queries.invalidateQueries();
    },
  });
}

/** A scenario on the revision in use and on the draft. */
export function playDraft(draft: string, scenario: Schemas["ScenarioGiven"]) {
  return answer(api.POST("/api/drafts/{draft}/play", { params: { path: { draft } }, body: scenario }));
}

/** The first boards of a kind of machine whose number, title or maker has this in it. */
export function useSiblings(search: string, family: string, enabled = true) {
  return useQuery({
    queryKey: ["siblings", search, family],
    queryFn: () => answer(api.GET("/api/boards", { params: { query: { search, family, size: 12 } } })),
    placeholderData: keepPreviousData,
    enabled,
  });
}

/** What is wrong at a place of the draft, and what looks so. */
export function saidAt(draft: Draft, place: string): string {
  return draft.findings
    .filter((each) => each.place === place)
    .map((each) => each.says)
    .join("; ");
}

/** The findings of places that begin so. */
export function findingsUnder(draft: Draft, ...places: string[]) {
  return draft.findings.filter((each) => places.some((place) => each.place.startsWith(place)));
}
