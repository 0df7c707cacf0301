import { Loading, ProblemNotice } from "@/ui/notices";
import { Link, useParams } from "@tanstack/react-router";
import { useState } from "react";
import { useJob, type Job } from "./api";
import { EarlierBanner } from "./EarlierBanner";
import { History } from "./History";
import { RefusedProvider } from "./entries/Refusal";
import { SaveState } from "./entries/SaveState";
import { useEntries } from "./entries/useEntries";
import { STEP_NAMES } from "./stepNames";
import { SkippedBanner } from "./SkippedBanner";
import { CarryStep } from "./steps/carry_over/CarryStep";
import { ChooseStep } from "./steps/choose/ChooseStep";
import { FitStep } from "./steps/fit/FitStep";
import { HandOverStep } from "./steps/hand_over/HandOverStep";
import { MakeSafeStep } from "./steps/make_safe/MakeSafeStep";
import { ProveStep } from "./steps/prove/ProveStep";
import { RecogniseStep } from "./steps/recognise/RecogniseStep";
import { RecordStep } from "./steps/record/RecordStep";
import { RuleOutStep } from "./steps/rule_out/RuleOutStep";
import type { StepProps } from "./stepProps";

/** One job, one sheet: it fills up from top to bottom as the work goes on. */
export function JobPage() {
  const { id } = useParams({ from: "/jobs/$id" });
  const job = useJob(id);
  if (job.isPending)
    return (
      <Page>
        <Loading what="Reading the job" />
      </Page>
    );
  if (!job.data)
    return (
      <Page>
        <ProblemNotice problem={job.error} />
        <Link to="/jobs" search={{ show: "open", search: "", page: 1 }}>
          Back to the jobs
        </Link>
      </Page>
    );
  return <JobSheet key={id} job={job.data} />;
}

function Page({ children }: { children: React.ReactNode }) {
  return <main className="mx-auto max-w-3xl px-4 py-6">{children}</main>;
}

function JobSheet({ job }: { job: Job }) {
  const entries = useEntries(job);
  const [looked, setLooked] = useState<Record<string, boolean | undefined>>({});
  // the record has parts of which some come before the machine is made safe: it stays open while somebody works in it
  const put: typeof entries.put = (change) => {
    const ends = change.target.startsWith("confirmed.");
    setLooked((old) => ({ ...old, record: ends ? undefined : old.record }));
    return entries.put(change);
  };
  const recording: typeof entries.put = (change) => {
    setLooked((old) => ({ ...old, record: true }));
    return put(change);
  };
  return (
    <Page>
      <header className="mb-5">
        <p className="font-mono text-faint">{job.code}</p>
        <h1>{job.machine}</h1>
        {job.complaint && <p className="mt-1">{job.complaint}</p>}
        {job.closed && (
          <p className="mt-2 border-y border-text py-2 font-semibold">
            Closed {when(job.closed_at)}. Nothing in this job changes any more.
          </p>
        )}
        {job.origin && (
          <p className="mt-2 border-y border-text py-2">
            Brought in from {String(job.origin.depot)}, where it is {String(job.origin.number)}. It is kept as it stood
            there.
          </p>
        )}
      </header>
      <SaveState
        sending={entries.sending}
        onRetry={() => void entries.retry()}
        onWithdraw={(each) => void entries.withdraw(each)}
      />
      <RefusedProvider entries={entries.sending.refused}>
        <SkippedBanner job={job} />
        <EarlierBanner job={job} put={put} />
        <ol className="relative">
          {job.steps.map((step, index) => {
            const inHand = !job.closed && step.id === job.step;
            const open = looked[step.id] ?? inHand;
            const flip = () => setLooked((old) => ({ ...old, [step.id]: !open }));
            return (
              <li key={step.id} className="relative border-t border-rule pl-10 sm:pl-12">
                <Mark number={index + 1} state={step.state} inHand={inHand} last={index === job.steps.length - 1} />
                <h2 className="text-base">
                  {step.state === "waiting" ? (
                    <span className="block min-h-11 py-2.5 font-normal text-faint">
                      {step.name}&ensp;
                      <span className="text-sm">
                        waits for {step.waits_for.map((each) => STEP_NAMES[each] ?? each).join(" and ")}
                      </span>
                    </span>
                  ) : (
                    <button
                      type="button"
                      aria-expanded={open}
                      onClick={flip}
                      className="flex min-h-11 w-full flex-wrap items-baseline gap-x-3 py-2.5 text-left"
                    >
                      <span className={inHand ? "text-xl font-bold" : "font-semibold"}>{step.name}</span>
                      <span className="font-normal">
                        {step.result}
                        {step.at && (
                          <span className="text-faint">
                            {" "}
                            ({step.by}, {clock(step.at)})
                          </span>
                        )}
                      </span>
                    </button>
                  )}
                </h2>
                {open && step.state !== "waiting" && (
                  <div className="pt-1 pb-6">
                    <StepBody
                      job={job.origin ? { ...job, closed: true } : job}
                      id={step.id}
                      put={step.id === "record" ? recording : put}
                    />
                  </div>
                )}
              </li>
            );
          })}
        </ol>
        <History job={job} />
      </RefusedProvider>
    </Page>
  );
}

function StepBody({ id, ...props }: StepProps & { id: string }) {
  switch (id) {
    case "rule_out":
      return <RuleOutStep {...props} />;
    case "recognise":
      return <RecogniseStep {...props} />;
    case "choose":
      return <ChooseStep {...props} />;
    case "make_safe":
      return <MakeSafeStep {...props} />;
    case "record":
      return <RecordStep {...props} />;
    case "carry_over":
      return <CarryStep {...props} />;
    case "fit":
      return <FitStep {...props} />;
    case "prove":
      return <ProveStep {...props} />;
    case "hand_over":
      return <HandOverStep {...props} />;
  }
  return null;
}

function Mark({ number, state, inHand, last }: { number: number; state: string; inHand: boolean; last: boolean }) {
  const done = state === "done";
  return (
    <span aria-hidden="true" className="absolute top-0 left-0 h-full w-8">
      {!last && <span className="absolute top-10 bottom-0 left-[15px] w-0.5 bg-rule" />}
      <span
        className={`absolute top-1.5 grid size-8 place-items-center border-2 font-mono text-sm ${
          done ? "border-both bg-both text-ground" : inHand ? "border-both font-bold" : "border-rule text-faint"
        }`}
      >
        {number}
      </span>
    </span>
  );
}

function clock(at: string) {
  const date = new Date(at);
  const today = date.toDateString() === new Date().toDateString();
  return date.toLocaleString([], today ? { timeStyle: "short" } : { dateStyle: "medium", timeStyle: "short" });
}

function when(at: string | null) {
  return at ? new Date(at).toLocaleString([], { dateStyle: "medium", timeStyle: "short" }) : "";
}
