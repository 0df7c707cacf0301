import { Link } from "@tanstack/react-router";
import { useIsFetching } from "@tanstack/react-query";
import { memo, useCallback, useEffect, useMemo, useState } from "react";
import type { Job } from "../api";
import { RefusedProvider } from "../entries/Refusal";
import { SavedWord, SaveState } from "../entries/SaveState";
import { useEntries, type Put } from "../entries/useEntries";
import { goTo } from "../steps/Next";
import { AddBoard } from "./AddBoard";
import { AlsoOpen } from "./AlsoOpen";
import { AskDepot } from "./AskDepot";
import { BoardsBar } from "./BoardsBar";
import { BorrowedBanner } from "./BorrowedBanner";
import { EarlierBanner } from "./EarlierBanner";
import { History } from "./History";
import { JobHead } from "./JobHead";
import { NewerBanner } from "./NewerBanner";
import { OpenStep } from "./OpenStep";
import { SkippedBanner } from "./SkippedBanner";
import { useEveryStep } from "./StepBody";
import { StepTrack } from "./StepTrack";
import { ToCome } from "./ToCome";
import { useFocusKept } from "./useFocusKept";
import { VoidBanner } from "./VoidBanner";
import { WithYou } from "./WithYou";

type Props = {
  job: Job;
  /** The steps that whoever looks has done before. */
  known: string[];
};

/** One job, one sheet: what is known on top, the step in hand under it, what comes a line each. */
export const JobSheet = memo(function JobSheet({ job, known }: Props) {
  const entries = useEntries(job);
  const [looked, setLooked] = useState<Looked>({});
  // the record has parts of which some come before the machine is made safe: it stays open while somebody works in it
  const enter = entries.put;
  const put = useCallback<Put>(
    (change) => {
      if (change.target.startsWith("confirmed.")) setLooked(keptOpen(undefined));
      return enter(change);
    },
    [enter],
  );
  const recording = useCallback<Put>(
    (change) => {
      setLooked(keptOpen(true));
      return put(change);
    },
    [put],
  );
  const settled = useSettled();
  useEveryStep(settled);
  const sheet = useFocusKept();
  const inHand = job.closed ? null : job.step;
  // of a closed job the papers are what one comes for
  const first = inHand ?? "hand_over";
  // the step in hand is open, whatever was folded before it came to that
  const open = job.steps.filter(
    ({ id, state }) => id === inHand || ((state === "done" || state === "open") && (looked[id] ?? id === first)),
  );
  // the step in hand stays open: a touch brings it into sight
  const flip = (id: string) =>
    id === inHand ? goTo(`step-${id}`) : setLooked((old) => ({ ...old, [id]: !(old[id] ?? id === first) }));
  const shown = useMemo(() => (job.origin ? { ...job, closed: true } : job), [job]);
  return (
    <RefusedProvider entries={entries.sending.refused} onWithdraw={entries.withdraw}>
      <div ref={sheet}>
        <JobHead job={job} saved={<SavedWord sending={entries.sending} />} along={<WithYou job={job} />} />
        <BoardsBar job={job} put={put} />
        <StepTrack steps={job.steps} inHand={inHand} open={open.map((step) => step.id)} onFlip={flip} />
        <SaveState sending={entries.sending} onRetry={() => void entries.retry()}>
          <Link to="/waiting" className="min-h-11 py-2.5">
            What waits
          </Link>
        </SaveState>
        <VoidBanner job={job} put={put} />
        {job.closed && <SkippedBanner job={job} />}
        <AlsoOpen job={job} />
        <BorrowedBanner job={job} put={put} />
        {open.map((step) => (
          <OpenStep
            key={step.id}
            job={shown}
            step={step}
            inHand={step.id === inHand}
            known={known.includes(step.id)}
            put={step.id === "record" ? recording : put}
          />
        ))}
        {/* what stands below comes when the work above has its height: nothing in sight is pushed away */}
        {settled && (
          <>
            <EarlierBanner job={job} put={put} />
            <NewerBanner job={job} put={put} />
            <AskDepot job={job} put={put} />
            <AddBoard job={job} put={put} />
            <ToCome job={job} />
            <History job={job} />
          </>
        )}
      </div>
    </RefusedProvider>
  );
});

type Looked = Record<string, boolean | undefined>;

/** What was looked at, with the record kept open, or as its turn is. */
function keptOpen(open: boolean | undefined) {
  return (old: Looked): Looked => (old.record === open ? old : { ...old, record: open });
}

const QUIET_MS = 300;

/** Whether everything that was first asked for has been answered, and nothing more was asked for; once so, it stays so. */
function useSettled() {
  const asking = useIsFetching();
  const [settled, setSettled] = useState(false);
  useEffect(() => {
    if (asking > 0) return;
    const timer = setTimeout(() => setSettled(true), QUIET_MS);
    return () => clearTimeout(timer);
  }, [asking]);
  return settled;
}
