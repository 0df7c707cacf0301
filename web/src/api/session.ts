import { Problem, answer, api, forgetToken, type Schemas } from "@/api/client";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { notePersonHere } from "./kept";

/** Who is signed in; null where nobody is, or not any more. */
export function useSession() {
  return useQuery({
    queryKey: ["session"],
    queryFn: async () => {
      try {
        const me = await answer(api.GET("/api/session"));
        notePersonHere(me.username);
        return me;
      } catch (error) {
        if (error instanceof Problem && error.status === 401) return null;
        throw error;
      }
    },
    retry: false,
    staleTime: 300_000,
  });
}

export function useSignIn() {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: (given: Schemas["SignIn"]) => answer(api.POST("/api/session", { body: given })),
    onSuccess: (me) => {
      forgetToken();
      // whoever signs in again goes on where the session ran out; nobody sees what another one typed
      notePersonHere(me.username);
      queries.removeQueries({ predicate: (query) => query.queryKey[0] !== "session" });
      queries.setQueryData(["session"], me);
    },
  });
}

/** Whether the first depot is still to be made here. */
export function useOpening() {
  return useQuery({ queryKey: ["session", "opening"], queryFn: () => answer(api.GET("/api/opening")), retry: false });
}

export function useFirstDepot() {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: (given: Schemas["FirstDepot"]) => answer(api.POST("/api/opening", { body: given })),
    onSuccess: (me) => {
      forgetToken();
      notePersonHere(me.username);
      queries.setQueryData(["session"], me);
    },
  });
}

export function useSignOut() {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: () => answer(api.DELETE("/api/session")),
    onSuccess: () => {
      forgetToken();
      queries.removeQueries({ predicate: (query) => query.queryKey[0] !== "session" });
      return queries.resetQueries({ queryKey: ["session"] });
    },
  });
}
