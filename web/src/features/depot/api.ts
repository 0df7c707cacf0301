import { answer, api, type Schemas } from "@/api/client";
import { keepPreviousData, useMutation, useQuery, useQueryClient } from "@tanstack/react-query";

export type Person = Schemas["PersonShown"];

/** The people of the depot. */
export function usePeople(page: number) {
  return useQuery({
    queryKey: ["people", page],
    queryFn: () => answer(api.GET("/api/people", { params: { query: { page } } })),
    placeholderData: keepPreviousData,
  });
}

/** Something said of the depot’s people, who are read again then. */
function useStaffing<Said, Answer>(mutationFn: (said: Said) => Promise<Answer>) {
  const queries = useQueryClient();
  return useMutation({ mutationFn, onSuccess: () => queries.invalidateQueries({ queryKey: ["people"] }) });
}

export function useAddPerson() {
  return useStaffing((person: Schemas["NewPerson"]) => answer(api.POST("/api/people", { body: person })));
}

export function useChangePerson() {
  return useStaffing(({ username, ...body }: Schemas["PersonChanged"] & { username: string }) =>
    answer(api.PUT("/api/people/{username}", { params: { path: { username } }, body })),
  );
}

export function useGivePassword() {
  return useStaffing(({ username, password }: { username: string; password: string }) =>
    answer(api.PUT("/api/people/{username}/password", { params: { path: { username } }, body: { password } })),
  );
}

export function useTakeSecondFactor() {
  return useStaffing((username: string) =>
    answer(api.DELETE("/api/people/{username}/second-factor", { params: { path: { username } } })),
  );
}

export function useLoseDevices() {
  return useStaffing((username: string) =>
    answer(api.DELETE("/api/people/{username}/devices", { params: { path: { username } } })),
  );
}

/** Who signed in, who could not, and which files were taken away. */
export function useHappened(page: number) {
  return useQuery({
    queryKey: ["happened", page],
    queryFn: () => answer(api.GET("/api/depot/happened", { params: { query: { page } } })),
    placeholderData: keepPreviousData,
  });
}
