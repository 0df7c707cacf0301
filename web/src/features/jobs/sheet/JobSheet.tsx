import { useState } from "react";
import type { Job } from "../api";
import { RefusedProvider } from "../entries/Refusal";
import { SavedWord, SaveState } from "../entries/SaveState";
import { useEntries } from "../entries/useEntries";
import { goTo } from "../steps/Next";
import { EarlierBanner } from "./EarlierBanner";
import { History } from "./History";
import { JobHead } from "./JobHead";
import { OpenStep } from "./OpenStep";
import { SkippedBanner } from "./SkippedBanner";
import { StepTrack } from "./StepTrack";
import { ToCome } from "./ToCome";

/** One job, one sheet: what is known on top, the step in hand under it, what comes a line each. */
export function JobSheet({ job }: { job: Job }) {
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
  const inHand = job.closed ? null : job.step;
  const open = job.steps.filter((step) => step.state !== "waiting" && (looked[step.id] ?? step.id === inHand));
  // the step in hand stays open: a touch brings it into sight
  const flip = (id: string) => (id === inHand ? goTo(`step-${id}`) : setLooked((old) => ({ ...old, [id]: !old[id] })));
  const shown = job.origin ? { ...job, closed: true } : job;
  return (
    <RefusedProvider entries={entries.sending.refused}>
      <JobHead job={job} saved={<SavedWord sending={entries.sending} />} />
      <StepTrack steps={job.steps} inHand={inHand} open={open.map((step) => step.id)} onFlip={flip} />
      <SaveState
        sending={entries.sending}
        onRetry={() => void entries.retry()}
        onWithdraw={(each) => void entries.withdraw(each)}
      />
      <SkippedBanner job={job} />
      {open.map((step) => (
        <OpenStep
          key={step.id}
          job={shown}
          step={step}
          inHand={step.id === inHand}
          put={step.id === "record" ? recording : put}
        />
      ))}
      <EarlierBanner job={job} put={put} />
      <ToCome job={job} />
      <History job={job} />
    </RefusedProvider>
  );
}
