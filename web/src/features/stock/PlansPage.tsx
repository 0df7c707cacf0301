import { useSession } from "@/api/session";
import { Button } from "@/ui/Button";
import { Choice, NumberField } from "@/ui/fields";
import { Empty, Loading, ProblemNotice } from "@/ui/notices";
import { numberFrom } from "@/ui/numbers";
import { Pager } from "@/ui/Pager";
import { when } from "@/ui/times";
import { Link, useNavigate, useSearch } from "@tanstack/react-router";
import { useTypedForm } from "@/ui/typed";
import { isRunning, useAskForPlan, usePlans, type Grade, type PlanLine } from "./api";
import { StockLinks } from "./StockLinks";
import { ENOUGH, askedWords, moneyWords, proofWords, rateWords, stateWords } from "./words";

/** Ask for a plan, and the plans that there are. */
export function PlansPage() {
  const { page } = useSearch({ from: "/stock/plans" });
  const navigate = useNavigate({ from: "/stock/plans" });
  const plans = usePlans(page);
  const keeps = useSession().data?.keeps_catalogue === true;
  return (
    <main className="mx-auto flex max-w-3xl flex-col gap-5 px-4 py-6">
      <h1>Plans</h1>
      <StockLinks />
      {keeps && <Ask onAsked={(plan) => void navigate({ to: "/stock/plans/$plan", params: { plan } })} />}
      <ProblemNotice problem={plans.error} />
      {plans.isPending && <Loading what="Reading the plans" />}
      {plans.data?.total === 0 && <Empty>No plan was asked for yet.</Empty>}
      <ul className="border-t border-rule">
        {plans.data?.items.map((each) => (
          <Line key={each.id} plan={each} />
        ))}
      </ul>
      {plans.data && <Pager {...plans.data} onPage={(next) => void navigate({ search: { page: next } })} />}
    </main>
  );
}

function Ask({ onAsked }: { onAsked: (plan: string) => void }) {
  const ask = useAskForPlan();
  const { fields, set } = useTypedForm("plan", { grade: "work" as Grade, days: "14", budget: "", lend: false });
  const { grade, days, budget, lend } = fields;
  const money = budget.trim() === "" ? null : numberFrom(budget);
  const wrong = !(numberFrom(days) > 0 && numberFrom(days) <= 366)
    ? "days above 0, at most 366"
    : money !== null && !(money >= 0)
      ? "a value of at least 0"
      : "";
  return (
    <form
      className="flex flex-col gap-4"
      onSubmit={(event) => {
        event.preventDefault();
        ask.mutate({ grade, days: numberFrom(days), lend, budget: money }, { onSuccess: (plan) => onAsked(plan.id) });
      }}
    >
      <p>
        Which boards each van carries, so that as many failures as possible are put right at the first visit, within
        what each van may hold.
      </p>
      <Choice label="What is enough" value={grade} onChange={(event) => set({ grade: event.target.value as Grade })}>
        {ENOUGH.map(([each, words]) => (
          <option key={each} value={each}>
            {words}
          </option>
        ))}
      </Choice>
      <div className="flex flex-wrap items-end gap-4">
        <NumberField label="Days to filling" value={days} onType={(text) => set({ days: text })} />
        <NumberField label="Value of all" value={budget} onType={(text) => set({ budget: text })} />
        <label className="flex min-h-12 items-center gap-3">
          <input
            type="checkbox"
            className="size-6"
            checked={lend}
            onChange={(event) => set({ lend: event.target.checked })}
          />
          vans lend to each other
        </label>
      </div>
      <ProblemNotice problem={ask.error} />
      <Button type="submit" kind="main" className="self-start" needs={wrong} disabled={ask.isPending}>
        Work it out
      </Button>
    </form>
  );
}

function Line({ plan }: { plan: PlanLine }) {
  return (
    <li className="border-b border-rule">
      <Link
        to="/stock/plans/$plan"
        params={{ plan: plan.id }}
        className="flex min-h-14 flex-col py-3 no-underline hover:bg-raised"
      >
        <strong>
          {plan.gap !== null
            ? `${rateWords(plan)} at the first visit for ${moneyWords(plan.cost ?? 0)}, ${proofWords(plan.gap)}`
            : isRunning(plan)
              ? `${stateWords(plan)} …`
              : stateWords(plan)}
          {plan.taken_at && ", taken"}
        </strong>
        <span className="text-sm text-faint">
          {when(plan.asked_at)}, {plan.asked_by}; {askedWords(plan)}
        </span>
      </Link>
    </li>
  );
}
