import { Problem, answer, api, type Schemas } from "@/api/client";
import { everyPage } from "@/api/everyPage";
import { keepPreviousData, useMutation, useQuery, useQueryClient } from "@tanstack/react-query";

export type BoardsWanted = {
  search: string;
  family: string;
  maker: string;
  status: "" | "current" | "discontinued";
  /** The board that is to be replaced; the list is then of what may stand in for it. */
  instead: string;
  page: number;
};
export const EVERY_BOARD: BoardsWanted = { search: "", family: "", maker: "", status: "", instead: "", page: 1 };
export type Card = Schemas["BoardCard"] & Partial<Pick<Schemas["StandIn"], "relation" | "links" | "missing">>;
type Cards = { items: Card[]; total: number; page: number; size: number };

/** The boards that are looked for; with `instead`, those that the cross-references name for that board. */
export function useBoards({ instead, ...query }: BoardsWanted) {
  return useQuery({
    queryKey: ["boards", query, instead],
    queryFn: async (): Promise<Cards> =>
      instead
        ? answer(api.GET("/api/stand-ins/{original}", { params: { path: { original: instead }, query } }))
        : answer(api.GET("/api/boards", { params: { query } })),
    placeholderData: keepPreviousData,
  });
}

/** The makers to choose from. */
export function useMakers() {
  return useQuery({
    queryKey: ["makers"],
    queryFn: () => everyPage((page) => answer(api.GET("/api/makers", { params: { query: { page, size: 100 } } }))),
  });
}

/** What the cross-references say of a board, in either direction. */
export function useStatementsOf(board: string) {
  return useQuery({
    queryKey: ["statements of", board],
    queryFn: () => answer(api.GET("/api/statements", { params: { query: { board, size: 50 } } })),
  });
}

export function useBoard(partNumber: string, revision?: number) {
  return useQuery({
    queryKey: ["board", partNumber, revision],
    queryFn: () =>
      answer(
        api.GET("/api/board/{part_number}", { params: { path: { part_number: partNumber }, query: { revision } } }),
      ),
  });
}

export function useRevisions(partNumber: string, page: number) {
  return useQuery({
    queryKey: ["revisions", partNumber, page],
    queryFn: () =>
      answer(
        api.GET("/api/board-revisions/{part_number}", {
          params: { path: { part_number: partNumber }, query: { page } },
        }),
      ),
    placeholderData: keepPreviousData,
  });
}

/** What the depot’s jobs teach about a board. */
export function useUses(partNumber: string) {
  return useQuery({
    queryKey: ["uses", partNumber],
    queryFn: () => answer(api.GET("/api/board-uses/{part_number}", { params: { path: { part_number: partNumber } } })),
  });
}

/** Add one cross-reference. */
export function useAddStatement() {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: (given: Schemas["StatementGiven"]) => answer(api.POST("/api/statements", { body: given })),
    onSuccess: () => queries.invalidateQueries(),
  });
}

/** Withdraw a board, bring it back, or remove it. */
export function useRetire() {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: async (
      step: { part_number: string } & (
        { to: "withdraw"; why: string; successor: string } | { to: "bring back" | "remove" }
      ),
    ) => {
      const { part_number } = step;
      if (step.to === "withdraw")
        return answer(
          api.POST("/api/boards/withdraw", { body: { part_number, why: step.why, successor: step.successor } }),
        );
      if (step.to === "bring back") return answer(api.POST("/api/boards/bring-back", { body: { part_number } }));
      return answer(api.POST("/api/boards/remove", { body: { part_number } }));
    },
    onSuccess: () => queries.invalidateQueries(),
  });
}

/** Make an earlier revision of a board the current one again. */
export function useMakeCurrent() {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: (body: { part_number: string; revision: number }) =>
      answer(api.POST("/api/boards/make-current", { body })),
    onSuccess: () => queries.invalidateQueries(),
  });
}

/** Load a file, or only check it. */
export function useLoad() {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: async ({ text, keep }: { text: string; keep: boolean }): Promise<Schemas["LoadedShown"]> => {
      if (!text.trim()) throw new Problem(422, "There is no file yet", "Choose a file, or paste its text.");
      const call = api.POST("/api/documents", {
        params: { query: { keep } },
        body: text as never,
        bodySerializer: (body) => body as unknown as string,
        headers: { "Content-Type": "application/json" },
      });
      return answer(call);
    },
    onSuccess: (_, { keep }) => {
      if (keep) void queries.invalidateQueries();
    },
  });
}
