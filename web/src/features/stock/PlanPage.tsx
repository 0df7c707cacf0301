import { useSession } from "@/api/session";
import { Button } from "@/ui/Button";
import { Loading, ProblemNotice } from "@/ui/notices";
import { Part } from "@/ui/Part";
import { when } from "@/ui/times";
import { Link, useParams } from "@tanstack/react-router";
import { isRunning, usePlan, useStopPlan, useTakePlan, type Plan, type PlanFound } from "./api";
import { Curve } from "./Curve";
import { PlannedVans } from "./PlannedVans";
import { askedWords, changeWords, moneyWords, proofWords, rateWords, stateWords } from "./words";

/** One plan: how far it is, then what it says and how sure that is. */
export function PlanPage() {
  const { plan: id } = useParams({ from: "/stock/plans/$plan" });
  const plan = usePlan(id);
  return (
    <main className="mx-auto flex max-w-3xl flex-col gap-5 px-4 py-6">
      <p className="text-faint">
        <Link to="/stock/plans" search={{ page: 1 }}>
          Plans
        </Link>
      </p>
      <ProblemNotice problem={plan.error} />
      {plan.isPending && <Loading what="Reading the plan" />}
      {plan.data && (
        <>
          <Head plan={plan.data} />
          {isRunning(plan.data) && <Running plan={plan.data} />}
          {plan.data.fault && <p role="alert">{plan.data.fault}</p>}
          {plan.data.found && <Found plan={plan.data} found={plan.data.found} />}
        </>
      )}
    </main>
  );
}

function Head({ plan }: { plan: Plan }) {
  const { found } = plan;
  return (
    <div>
      <h1>{found ? `${rateWords(found)} at the first visit` : stateWords(plan)}</h1>
      {found && (
        <p className="text-lg">
          <strong>{proofWords(found.gap)}</strong>: {found.served.toFixed(2)} of {found.failures.toFixed(2)} failures
          expected, no plan more than {found.at_most.toFixed(2)}. It costs {moneyWords(found.cost)}.
        </p>
      )}
      <p className="text-faint">
        {when(plan.asked_at)}, {plan.asked_by}; {askedWords(plan)}
      </p>
    </div>
  );
}

function Running({ plan }: { plan: Plan }) {
  const stop = useStopPlan(plan.id);
  const keeps = useSession().data?.keeps_catalogue === true;
  return (
    <div className="flex flex-col gap-3">
      <progress
        className="h-3 w-full"
        max={1}
        value={plan.state === "waiting" ? undefined : plan.share}
        aria-label={`${stateWords(plan)}: ${Math.round(plan.share * 100)} %`}
      />
      {keeps && (
        <Button className="self-start" disabled={stop.isPending} onClick={() => stop.mutate(undefined)}>
          Stop it
        </Button>
      )}
      <ProblemNotice problem={stop.error} />
    </div>
  );
}

function Found({ plan, found }: { plan: Plan; found: PlanFound }) {
  const take = useTakePlan(plan.id);
  const keeps = useSession().data?.keeps_catalogue === true;
  return (
    <>
      {found.left_out.length > 0 && (
        <p role="note">
          Left out, for nobody says what they cost: <span className="font-mono">{found.left_out.join(", ")}</span>
        </p>
      )}
      <PlannedVans vans={found.vans} />
      {keeps && (
        <div className="flex flex-wrap items-center gap-3">
          <Button kind="main" disabled={take.isPending} onClick={() => take.mutate(undefined)}>
            {plan.taken_at ? "Let the vans carry this again" : "Let the vans carry this"}
          </Button>
          {plan.taken_at && <span className="text-faint">taken {when(plan.taken_at)}</span>}
        </div>
      )}
      <ProblemNotice problem={take.error} />
      <Part
        title="What changes"
        status={found.changes.length === 0 ? "nothing" : `${found.changes.length} changes`}
        open
      >
        <ul className="border-t border-rule">
          {found.changes.map((each, index) => (
            <li key={index} className="flex gap-3 border-b border-rule py-2">
              <strong className="w-8 text-right font-mono">{each.count}</strong>
              <span className="font-mono">{each.piece}</span>
              <span className="grow text-right">{changeWords(each, plan.names)}</span>
            </li>
          ))}
        </ul>
      </Part>
      <Part title="What stays without a board" status={uncoveredWords(found)}>
        <ul className="border-t border-rule">
          {found.uncovered.map((each, index) => (
            <li key={index} className="border-b border-rule py-2">
              <span className="font-mono">{each.board}</span>, {each.machines} in {plan.names[each.van]}:{" "}
              {each.failures.toFixed(3)} failures expected
              <span className="block text-sm text-faint">
                {!each.known
                  ? "The board is not in the catalogue."
                  : each.served_by === 0
                    ? "Nothing known serves it well enough."
                    : `${each.served_by} pieces would serve it; others bring more for what they cost.`}
              </span>
            </li>
          ))}
        </ul>
      </Part>
      <Part title="One board more" status="what it would bring">
        <ul className="border-t border-rule">
          {found.next.map((each, index) => (
            <li key={index} className="flex flex-wrap gap-x-3 border-b border-rule py-2">
              <span className="font-mono">{each.piece}</span>
              <span className="grow">in {plan.names[each.van]}</span>
              <span>
                +{each.served.toFixed(3)} failures put right for {moneyWords(each.cost)}
              </span>
            </li>
          ))}
        </ul>
      </Part>
      {found.curve.length > 1 && (
        <Part title="Money against first visits" status="the best plan for each sum" open>
          <Curve points={found.curve} failures={found.failures} cost={found.cost} served={found.served} />
        </Part>
      )}
    </>
  );
}

function uncoveredWords({ uncovered }: PlanFound) {
  if (uncovered.length === 0) return "every machine has one";
  const machines = uncovered.reduce((sum, each) => sum + each.machines, 0);
  return `${machines} ${machines === 1 ? "machine" : "machines"}`;
}
