import { answer, api, Problem, type Schemas } from "@/api/client";
import { newId } from "@/api/ids";
import { forgetSaid } from "@/with_you/elsewhere";
import { playTask } from "@/with_you/practice";
import { keepPreviousData, useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import type { Action, Level, Task } from "./task";
import { leave, waiting, type Ended } from "./waiting";

const PRACTICE = ["practice"];

export function usePractice() {
  return useQuery({ queryKey: [...PRACTICE, "home"], queryFn: () => answer(api.GET("/api/practice")) });
}

export type Wanted = { level: Level; seed: number; original: string; replacement: string };

export function useTask(wanted: Wanted) {
  return useQuery({
    queryKey: [...PRACTICE, "task", wanted],
    queryFn: () => answer(api.GET("/api/practice/task", { params: { query: wanted } })),
    staleTime: Infinity,
  });
}

/** A task that was done is not kept on this device any longer. */
export const forgetTask = ({ level, seed, original, replacement }: Wanted) =>
  forgetSaid(
    `/api/practice/task?${new URLSearchParams({ level, seed: String(seed), original, replacement }).toString()}`,
  );

/** A task after these actions; what was seen before stays until the next is there. */
export function usePlayed(task: Task | undefined, actions: Action[]) {
  return useQuery({
    queryKey: [...PRACTICE, "played", task?.task, actions],
    queryFn: () => playTask(task as Task, actions),
    enabled: task !== undefined,
    placeholderData: keepPreviousData,
    staleTime: Infinity,
    retry: false,
  });
}

/** Keep a task that was ended; whether it was sent, or waits on this device for a connection. */
export async function keepEnded(person: string, ended: Ended): Promise<boolean> {
  leave(person, ended);
  await sendWaiting(person);
  return !waiting(person).some((each) => each.id === ended.id);
}

let sending: Promise<void> = Promise.resolve();

/** Send what a person ended and what waits, the oldest first; what is refused for good is let go of. */
export function sendWaiting(person: string): Promise<void> {
  sending = sending.then(async () => {
    for (const each of waiting(person)) {
      try {
        await answer(api.POST("/api/practice/attempts", { body: each as never }));
      } catch (error) {
        if (!(error instanceof Problem) || error.isForLater) return;
      }
      leave(person, each, true);
    }
  });
  return sending;
}

export function useAttempts(page: number) {
  return useQuery({
    queryKey: [...PRACTICE, "attempts", page],
    queryFn: () => answer(api.GET("/api/practice/attempts", { params: { query: { page, size: 10 } } })),
    placeholderData: keepPreviousData,
  });
}

export function useGroups() {
  return useQuery({
    queryKey: [...PRACTICE, "groups"],
    queryFn: () => answer(api.GET("/api/practice/groups", { params: { query: { size: 50 } } })),
  });
}

export function useGroup(id: string) {
  return useQuery({
    queryKey: [...PRACTICE, "group", id],
    queryFn: () => answer(api.GET("/api/practice/groups/{group_id}", { params: { path: { group_id: id } } })),
  });
}

function useChange<Given, Answered>(mutationFn: (given: Given) => Promise<Answered>) {
  const queries = useQueryClient();
  return useMutation({ mutationFn, onSuccess: () => queries.invalidateQueries({ queryKey: PRACTICE }) });
}

export function useKeepGroup(id: string | undefined) {
  return useChange((given: Omit<Schemas["GroupGiven"], "id">) =>
    answer(api.POST("/api/practice/groups", { body: { id: id ?? newId(), ...given } })),
  );
}

export function useDrawTasks(id: string) {
  return useChange((levels: Level[]) =>
    answer(
      api.POST("/api/practice/groups/{group_id}/draw", {
        params: { path: { group_id: id } },
        body: { levels, seed: newSeed() },
      }),
    ),
  );
}

export function useLoadTasks(id: string) {
  return useChange((file: File) =>
    answer(
      api.POST("/api/practice/groups/{group_id}/tasks", {
        params: { path: { group_id: id } },
        body: file as never,
        bodySerializer: (body: unknown) => body as never,
        headers: { "Content-Type": "application/json" },
      }),
    ),
  );
}

const SEEDS = 1_000_000_000;
export const newSeed = () => Math.floor(Math.random() * SEEDS);
