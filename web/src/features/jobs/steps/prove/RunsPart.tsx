import { timeWords } from "@/ui/numbers";
import type { Schemas } from "@/api/client";
import type { FamilyDocument } from "@/comparison/Player";
import { Button } from "@/ui/Button";
import { isWide } from "@/ui/isWide";
import { useState } from "react";
import type { StepProps } from "../../stepProps";
import { Recorder } from "./Recorder";
import { LAST_WORDS, RISK_WORDS, span } from "./words";

type Plan = Schemas["ProvingShown"];
type Run = Schemas["PlannedShown"];
type Props = StepProps & { plan: Plan; family: FamilyDocument };

/** The runs to make, the counter-case first; one opens with what to do and what must be seen. */
export function RunsPart({ job, put, plan, family }: Props) {
  const next = plan.runs.find((run) => run.made === 0 && run.cannot.length === 0);
  const [shown, setShown] = useState<string | null>(next?.id ?? null);
  // where there is little room, the runs that are not in hand wait behind one line
  const [every, setEvery] = useState(isWide() || next === undefined);
  const runs = every ? plan.runs : plan.runs.filter((run) => run.id === shown || run.id === next?.id);
  return (
    <>
      <ol className="border-t border-rule">
        {runs.map((run) => {
          const open = shown === run.id;
          return (
            <li key={run.id} className="border-b border-rule">
              <button
                type="button"
                aria-expanded={open}
                onClick={() => setShown(open ? null : run.id)}
                className="flex min-h-11 w-full flex-wrap items-center gap-x-3 py-1 text-left desk:py-2"
              >
                <strong>{run.title}</strong>
                <span className={open ? "text-faint" : "hidden text-faint sm:inline"}>
                  {run.why !== run.title && `${run.why.toLowerCase()}${run.kind ? `, ${run.kind}` : ""}`}
                </span>
                <span className={run.last === "off" ? "font-semibold" : "text-faint"}>
                  {run.cannot.length > 0
                    ? "cannot be made here"
                    : run.last
                      ? (LAST_WORDS[run.last] ?? run.last)
                      : "not run"}
                </span>
              </button>
              {open && <RunSheet job={job} put={put} run={run} plan={plan} family={family} />}
            </li>
          );
        })}
      </ol>
      <div className="flex flex-col">
        {!every && (
          <Button kind="quiet" className="self-start" onClick={() => setEvery(true)}>
            {plan.runs.length - runs.length} more runs
          </Button>
        )}
        {!job.closed && (
          <details open={isWide()}>
            <summary className="min-h-11 py-2 font-semibold">Another run</summary>
            <Recorder job={job} put={put} run={null} plan={plan} family={family} />
          </details>
        )}
        {plan.unproved.length > 0 && (
          <details open={isWide()}>
            <summary className="min-h-11 py-2 font-semibold">
              Stays unproved on the machine: {plan.unproved.length}
            </summary>
            <ul className="list-disc pl-5">
              {plan.unproved.map((each) => (
                <li key={each.what}>
                  {each.what}: <span className="text-faint">{each.why}</span>
                </li>
              ))}
            </ul>
          </details>
        )}
      </div>
    </>
  );
}

function RunSheet({ job, put, run, plan, family }: Props & { run: Run }) {
  const [all, setAll] = useState(false);
  const due = all ? run.due : run.due.slice(0, 8);
  return (
    <div className="flex flex-col gap-2 pb-1 desk:gap-3 desk:pb-4">
      {run.hands_off.map((each) => (
        <p key={each} className="hatched px-3 py-2 font-semibold">
          {each}
        </p>
      ))}
      <ol className="list-decimal pl-6">
        {run.kept.map((each) => (
          <li key={each.title} className="py-0.5">
            <span className="font-mono">Before</span> <strong>{each.how}</strong>
            <span className="text-faint">, so that “{each.title.toLowerCase()}” stays away</span>
            {each.undo && <span className="text-sm text-faint"> Afterwards: {each.undo}</span>}
          </li>
        ))}
        {run.steps.map((step, index) => (
          <li key={index} className="py-0.5">
            <span className="font-mono">{timeWords(step.at)}</span>{" "}
            <strong>
              {step.title} {step.change}
            </strong>
            {step.way === "follows" ? " (by itself)" : step.way === "cannot" ? " (cannot be made)" : ""}
            {step.how && `: ${step.how}`}
            {step.risk !== "none" && (
              <em className="font-semibold not-italic"> {RISK_WORDS[step.risk] ?? step.risk}</em>
            )}
            {step.undo && <span className="text-sm text-faint"> Afterwards: {step.undo}</span>}
          </li>
        ))}
      </ol>
      {run.watch.length > 0 && <p>Watch: {run.watch.join("; ")}.</p>}
      {run.cannot.length > 0 ? (
        <p>
          {run.cannot.join(", ")} cannot be made to happen here. What this run would show stays unproved on the machine.
        </p>
      ) : (
        <>
          {run.basis === "nothing" && (
            <p>Nobody has written down how either board behaves: the run is kept, and held against nothing.</p>
          )}
          {run.basis === "replacement" && (
            <p>How the original behaves is not known. What is due is what the new board’s own profile says.</p>
          )}
          {due.length > 0 && (
            <table className="w-full max-w-xl text-left">
              <thead>
                <tr className="border-b border-text">
                  <th scope="col">Must be seen</th>
                  <th scope="col">Due</th>
                  <th scope="col">Allowed</th>
                </tr>
              </thead>
              <tbody>
                {due.map((each, index) => (
                  <tr key={index} className="border-b border-rule">
                    <td className="desk:py-1">
                      {each.title} {each.on ? "on" : "off"}
                    </td>
                    <td className="font-mono">{timeWords(round(each.at))}</td>
                    <td className="font-mono">{span(each.low, each.high)}</td>
                  </tr>
                ))}
              </tbody>
            </table>
          )}
          {run.due.length > 8 && !all && (
            <Button kind="quiet" className="self-start" onClick={() => setAll(true)}>
              {run.due.length - 8} more
            </Button>
          )}
          {!job.closed && <Recorder job={job} put={put} run={run} plan={plan} family={family} />}
        </>
      )}
    </div>
  );
}

function round(value: number) {
  return Math.round(value * 10) / 10;
}
