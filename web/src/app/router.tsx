import type { Pair } from "@/features/bench/BenchPage";
import { oneOf } from "@/ui/oneOf";
import { JobPage } from "@/features/jobs/sheet/JobPage";
import { JobsPage } from "@/features/jobs/list/JobsPage";
import { WaitingPage } from "@/features/jobs/waiting/WaitingPage";
import { RELATIONS } from "@/features/references/api";
import { PART_NAMES, type PartName } from "@/features/workshop/partNames";
import { Link, createRootRoute, createRoute, createRouter, lazyRouteComponent, redirect } from "@tanstack/react-router";
import { Shell } from "./Shell";

const root = createRootRoute({
  component: Shell,
  notFoundComponent: () => (
    <main className="mx-auto max-w-3xl px-4 py-6">
      <h1>Nothing here</h1>
      <p className="my-3">There is no page at this address.</p>
      <Link to="/">To the jobs</Link>
    </main>
  ),
});

const page = (value: unknown) => Math.max(1, Math.floor(Number(value)) || 1);
const text = (value: unknown) => (typeof value === "string" ? value : typeof value === "number" ? String(value) : "");
/** Positions of a bench as an address carries them; anything else is left out. */
const positions = (value: unknown) => {
  if (typeof value !== "object" || value === null) return undefined;
  const stood = Object.entries(value).filter((each): each is [string, string | number] =>
    ["string", "number"].includes(typeof each[1]),
  );
  return stood.length > 0 ? Object.fromEntries(stood) : undefined;
};
const home = createRoute({
  getParentRoute: () => root,
  path: "/",
  beforeLoad: () => {
    throw redirect({ to: "/jobs", search: { show: "open", search: "", page: 1 } });
  },
});
const jobs = createRoute({
  getParentRoute: () => root,
  path: "/jobs",
  validateSearch: (search: Record<string, unknown>) => ({
    show: oneOf(search.show, ["open", "closed", "all"] as const, "open"),
    search: text(search.search),
    page: page(search.page),
  }),
  component: JobsPage,
});
const job = createRoute({ getParentRoute: () => root, path: "/jobs/$id", component: JobPage });
const waiting = createRoute({ getParentRoute: () => root, path: "/waiting", component: WaitingPage });
const catalogue = createRoute({
  getParentRoute: () => root,
  path: "/catalogue",
  validateSearch: (search: Record<string, unknown>) => ({
    search: text(search.search),
    family: text(search.family),
    maker: text(search.maker),
    status: oneOf(search.status, ["", "current", "discontinued"] as const, ""),
    instead: text(search.instead),
    page: page(search.page),
  }),
  component: lazyRouteComponent(() => import("@/features/catalogue/CataloguePage"), "CataloguePage"),
});
const load = createRoute({
  getParentRoute: () => root,
  path: "/catalogue/load",
  component: lazyRouteComponent(() => import("@/features/catalogue/LoadPage"), "LoadPage"),
});
const board = createRoute({
  getParentRoute: () => root,
  path: "/catalogue/$partNumber",
  validateSearch: (search: Record<string, unknown>): { revision?: number } => ({
    revision: Number(search.revision) > 0 ? page(search.revision) : undefined,
  }),
  component: lazyRouteComponent(() => import("@/features/catalogue/BoardPage"), "BoardPage"),
});
const references = createRoute({
  getParentRoute: () => root,
  path: "/references",
  validateSearch: (search: Record<string, unknown>) => ({
    board: text(search.board),
    relation: oneOf(search.relation, ["", ...RELATIONS] as const, ""),
    withdrawn: search.withdrawn === true,
    page: page(search.page),
  }),
  component: lazyRouteComponent(() => import("@/features/references/ReferencesPage"), "ReferencesPage"),
});
const paged = { validateSearch: (search: Record<string, unknown>) => ({ page: page(search.page) }) };
const contradictions = createRoute({
  getParentRoute: () => root,
  path: "/references/contradictions",
  ...paged,
  component: lazyRouteComponent(() => import("@/features/references/ContradictionsPage"), "ContradictionsPage"),
});
const imports = createRoute({
  getParentRoute: () => root,
  path: "/references/imports",
  ...paged,
  component: lazyRouteComponent(() => import("@/features/references/ImportsPage"), "ImportsPage"),
});
const machines = createRoute({
  getParentRoute: () => root,
  path: "/machines",
  validateSearch: (search: Record<string, unknown>) => ({ search: text(search.search), page: page(search.page) }),
  component: lazyRouteComponent(() => import("@/features/machines/MachinesPage"), "MachinesPage"),
});
const machine = createRoute({
  getParentRoute: () => root,
  path: "/machine",
  validateSearch: (search: Record<string, unknown>) => ({ name: text(search.name), page: page(search.page) }),
  component: lazyRouteComponent(() => import("@/features/machines/MachinePage"), "MachinePage"),
});
const stock = createRoute({
  getParentRoute: () => root,
  path: "/stock",
  component: lazyRouteComponent(() => import("@/features/stock/VansPage"), "VansPage"),
});
const van = createRoute({
  getParentRoute: () => root,
  path: "/stock/van/$id",
  ...paged,
  component: lazyRouteComponent(() => import("@/features/stock/VanPage"), "VanPage"),
});
const served = createRoute({
  getParentRoute: () => root,
  path: "/stock/machines",
  validateSearch: (search: Record<string, unknown>) => ({
    van: text(search.van),
    board: text(search.board),
    page: page(search.page),
  }),
  component: lazyRouteComponent(() => import("@/features/stock/ServedPage"), "ServedPage"),
});
const cover = createRoute({
  getParentRoute: () => root,
  path: "/stock/cover",
  component: lazyRouteComponent(() => import("@/features/stock/CoverPage"), "CoverPage"),
});
const plans = createRoute({
  getParentRoute: () => root,
  path: "/stock/plans",
  ...paged,
  component: lazyRouteComponent(() => import("@/features/stock/PlansPage"), "PlansPage"),
});
const plan = createRoute({
  getParentRoute: () => root,
  path: "/stock/plans/$plan",
  component: lazyRouteComponent(() => import("@/features/stock/PlanPage"), "PlanPage"),
});
const practice = createRoute({
  getParentRoute: () => root,
  path: "/practice",
  component: lazyRouteComponent(() => import("@/features/practice/PracticePage"), "PracticePage"),
});
const practiceTask = createRoute({
  getParentRoute: () => root,
  path: "/practice/$level",
  validateSearch: (search: Record<string, unknown>) => ({
    seed: Math.max(0, Math.floor(Number(search.seed)) || 0),
    original: text(search.original),
    replacement: text(search.replacement),
  }),
  component: lazyRouteComponent(() => import("@/features/practice/TaskPage"), "TaskPage"),
});
const practiceGroup = createRoute({
  getParentRoute: () => root,
  path: "/practice/group/$id",
  component: lazyRouteComponent(() => import("@/features/practice/GroupPage"), "GroupPage"),
});
const depot = createRoute({
  getParentRoute: () => root,
  path: "/depot",
  component: lazyRouteComponent(() => import("@/features/depot/DepotPage"), "DepotPage"),
});
const account = createRoute({
  getParentRoute: () => root,
  path: "/account",
  component: lazyRouteComponent(() => import("@/features/account/AccountPage"), "AccountPage"),
});
const workshop = createRoute({
  getParentRoute: () => root,
  path: "/workshop",
  validateSearch: (search: Record<string, unknown>): { take?: string } => ({ take: text(search.take) || undefined }),
  component: lazyRouteComponent(() => import("@/features/workshop/WorkshopPage"), "WorkshopPage"),
});
const draft = createRoute({
  getParentRoute: () => root,
  path: "/workshop/$draft",
  validateSearch: (search: Record<string, unknown>): { part?: PartName } => ({
    part: PART_NAMES.find((each) => each === search.part),
  }),
  component: lazyRouteComponent(() => import("@/features/workshop/DraftPage"), "DraftPage"),
});
const bench = createRoute({
  getParentRoute: () => root,
  path: "/bench",
  validateSearch: (search: Record<string, unknown>): Pair => ({
    original: text(search.original) || undefined,
    replacement: text(search.replacement) || undefined,
    found: positions(search.found),
    plan: positions(search.plan),
  }),
  component: lazyRouteComponent(() => import("@/features/bench/BenchPage"), "BenchPage"),
});

/** Jobs come with the application; the other pages when they are gone to, and ahead of that to a device that keeps it. */
export const router = createRouter({
  routeTree: root.addChildren([
    home,
    jobs,
    job,
    waiting,
    catalogue,
    load,
    board,
    references,
    contradictions,
    imports,
    machines,
    machine,
    stock,
    van,
    served,
    cover,
    plans,
    plan,
    practice,
    practiceTask,
    practiceGroup,
    depot,
    account,
    workshop,
    draft,
    bench,
  ]),
});

declare module "@tanstack/react-router" {
  interface Register {
    router: typeof router;
  }
}
