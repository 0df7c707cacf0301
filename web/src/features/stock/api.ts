import { answer, api, type Schemas } from "@/api/client";
import { newId } from "@/api/ids";
import { keepPreviousData, useMutation, useQuery, useQueryClient } from "@tanstack/react-query";

export type Van = Schemas["VanShown"];
export type PieceHeld = Schemas["PieceHeld"];
export type Difference = Schemas["DifferenceShown"];
export type Plan = Schemas["PlanShown"];
export type PlanLine = Schemas["PlanLine"];
export type PlanFound = Schemas["PlanFound"];
export type Matrix = Schemas["MatrixShown"];
export type Grade = Matrix["grades"][number]["grade"];
export type VanGiven = Omit<Schemas["VanGiven"], "id">;
export type PlanGiven = Omit<Schemas["PlanGiven"], "id">;

export const LISTS = ["served", "pieces", "held"] as const;
export type ListName = (typeof LISTS)[number];

const STOCK = ["stock"];

export function useVans() {
  return useQuery({
    queryKey: [...STOCK, "vans"],
    queryFn: () => answer(api.GET("/api/stock/vans", { params: { query: { size: 50 } } })),
  });
}

export function useShelf(van: string, page: number) {
  return useQuery({
    queryKey: [...STOCK, "shelf", van, page],
    queryFn: () =>
      answer(api.GET("/api/stock/vans/{van_id}", { params: { path: { van_id: van }, query: { page, size: 50 } } })),
    placeholderData: keepPreviousData,
  });
}

export function useMoves(van: string, page: number) {
  return useQuery({
    queryKey: [...STOCK, "moves", van, page],
    queryFn: () =>
      answer(
        api.GET("/api/stock/vans/{van_id}/moves", { params: { path: { van_id: van }, query: { page, size: 10 } } }),
      ),
    placeholderData: keepPreviousData,
  });
}

/** Something that changes van stock: whatever shows any of it is asked for again. */
function useChange<Given, Answered>(mutationFn: (given: Given) => Promise<Answered>) {
  const queries = useQueryClient();
  return useMutation({ mutationFn, onSuccess: () => queries.invalidateQueries({ queryKey: STOCK }) });
}

/** Put so many of a piece into a van, or take them out. */
export function useMove(van: string) {
  return useChange((given: { piece: string; change: number }) =>
    answer(
      api.POST("/api/stock/vans/{van_id}/moves", {
        params: { path: { van_id: van } },
        body: { id: newId(), ...given },
      }),
    ),
  );
}

/** Say what was counted on a shelf. The id is the count's: sent again after a lost answer, it counts once. */
export function useCount(van: string) {
  return useChange((given: { id: string; pieces: { piece: string; count: number }[]; whole: boolean }) =>
    answer(api.POST("/api/stock/vans/{van_id}/counts", { params: { path: { van_id: van } }, body: given })),
  );
}

/** Add a van, or change one. */
export function useKeepVan(van: string | undefined) {
  return useChange((given: VanGiven) =>
    van === undefined
      ? answer(api.POST("/api/stock/vans", { body: { id: newId(), ...given } }))
      : answer(api.PUT("/api/stock/vans/{van_id}", { params: { path: { van_id: van } }, body: { id: van, ...given } })),
  );
}

export function useRemoveVan(van: string) {
  return useChange(() => answer(api.DELETE("/api/stock/vans/{van_id}", { params: { path: { van_id: van } } })));
}

const EXACTLY = ["as printed", "written differently"];

/** Boards that a text may mean: the one whose very number it is, else all that it may be. */
export async function meant(text: string): Promise<string[]> {
  const found = await answer(api.GET("/api/boards/marked", { params: { query: { text } } }));
  const exact = found.filter((each) => EXACTLY.includes(each.readings[0]?.how ?? ""));
  return (exact.length > 0 ? exact : found).map((each) => each.part_number);
}

export type ServedWanted = { van: string; board: string; page: number };

export function useServed({ van, board, page }: ServedWanted) {
  return useQuery({
    queryKey: [...STOCK, "served", van, board, page],
    queryFn: () =>
      answer(api.GET("/api/stock/served", { params: { query: { van: van || undefined, board, page, size: 25 } } })),
    placeholderData: keepPreviousData,
  });
}

/** Bring in a list as a file. */
export function useLoadList(list: ListName) {
  return useChange((file: File) =>
    answer(
      api.POST(`/api/stock/${list}`, {
        body: file as never,
        bodySerializer: (body: unknown) => body as never,
        headers: { "Content-Type": "text/csv" },
      }),
    ),
  );
}

export function useMatrix() {
  return useQuery({
    queryKey: [...STOCK, "matrix"],
    queryFn: () => answer(api.GET("/api/stock/matrix")),
  });
}

const LOOK_EVERY_MS = 700;
export const isRunning = (plan: { ended_at: string | null }) => plan.ended_at === null;

export function usePlans(page: number) {
  return useQuery({
    queryKey: [...STOCK, "plans", page],
    queryFn: () => answer(api.GET("/api/stock/plans", { params: { query: { page, size: 10 } } })),
    placeholderData: keepPreviousData,
    refetchInterval: (query) => (query.state.data?.items.some(isRunning) ? LOOK_EVERY_MS : false),
  });
}

export function usePlan(id: string) {
  return useQuery({
    queryKey: [...STOCK, "plan", id],
    queryFn: () => answer(api.GET("/api/stock/plans/{plan_id}", { params: { path: { plan_id: id } } })),
    refetchInterval: (query) => (query.state.data && isRunning(query.state.data) ? LOOK_EVERY_MS : false),
  });
}

export function useAskForPlan() {
  return useChange((given: PlanGiven) => answer(api.POST("/api/stock/plans", { body: { id: newId(), ...given } })));
}

export function useStopPlan(id: string) {
  return useChange(() => answer(api.POST("/api/stock/plans/{plan_id}/stop", { params: { path: { plan_id: id } } })));
}

export function useTakePlan(id: string) {
  return useChange(() => answer(api.POST("/api/stock/plans/{plan_id}/take", { params: { path: { plan_id: id } } })));
}
