import { answer, api, type Schemas } from "@/api/client";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";

const ACCOUNT = ["account"];

/** How one signs in, and where one is signed in. */
export function useAccount() {
  return useQuery({ queryKey: ACCOUNT, queryFn: () => answer(api.GET("/api/account")) });
}

/** Something changed of one’s account; the answer is the account as it is then. */
function useChange<Said>(mutationFn: (said: Said) => Promise<Schemas["AccountShown"]>) {
  const queries = useQueryClient();
  return useMutation({ mutationFn, onSuccess: (now) => queries.setQueryData(ACCOUNT, now) });
}

export function useEndSession() {
  return useChange((id: string) => answer(api.DELETE("/api/account/sessions/{id}", { params: { path: { id } } })));
}

export function useTakeAway() {
  return useChange((password: string) => answer(api.DELETE("/api/account/second-factor", { body: { password } })));
}

/** A secret for the device, and then the first code of it, which takes it into use. */
export function useSecondFactor() {
  const queries = useQueryClient();
  const offer = useMutation({ mutationFn: () => answer(api.POST("/api/account/second-factor")) });
  const take = useMutation({
    mutationFn: (code: string) => answer(api.PUT("/api/account/second-factor", { body: { code } })),
    onSuccess: () => queries.invalidateQueries({ queryKey: ACCOUNT }),
  });
  return { offer, take };
}

export function useOwnPassword() {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: (body: Schemas["OwnPassword"]) => answer(api.PUT("/api/session/password", { body })),
    onSuccess: () => queries.invalidateQueries({ queryKey: ACCOUNT }),
  });
}
