import { Player, type FamilyDocument } from "@/comparison/Player";
import { ProofWords } from "@/comparison/ProofPanel";
import { VerdictMark } from "@/ui/inks";
import { Loading, ProblemNotice } from "@/ui/notices";
import { planKey, playJob, useComparison, useFamily } from "../../api";
import { useProving } from "../../endApi";
import type { StepProps } from "../../stepProps";
import { isCleared } from "../../cleared";
import { isSameNumber } from "../../sameNumber";
import { goTo, Next } from "../Next";
import { NoteAndConfirm } from "../NoteAndConfirm";
import { nextOf, Parts, placeOf, type PartOfStep } from "../Parts";
import { Doubts } from "./Doubts";
import { LookedAtAtOnce } from "./LookedAtAtOnce";
import { Measured } from "./Measured";
import { checksPart, Guards, leftToLookAt, overridesPart, readingsPart } from "./proveParts";
import { ProveRepair } from "./ProveRepair";
import { RunsPart } from "./RunsPart";

/** Prove: what the twin check says, run on the machine and timed; readings; what stays unproved; overrides off. */
export function ProveStep({ job, put }: StepProps) {
  return isCleared(job) ? <ProveRepair job={job} put={put} /> : <ProveTwin job={job} put={put} />;
}

function ProveTwin({ job, put }: StepProps) {
  const comparison = useComparison(job);
  const family = useFamily(job.family);
  const proving = useProving(job);
  const problem = comparison.error ?? family.error ?? proving.error;
  if (problem) return <ProblemNotice problem={problem} />;
  if (!comparison.data?.proof || !family.data || !proving.data)
    return <Loading what="Checking the twins against each other" />;
  const { proof } = comparison.data;
  const plan = proving.data;
  const document = family.data.document as FamilyDocument;
  const alike = proof.verdict === "identical" || proof.verdict === "within tolerance";
  const doubts = [...(alike ? [] : [`the twin check says: ${proof.verdict}`]), ...plan.doubts];
  const makeable = plan.runs.filter((run) => run.cannot.length === 0);
  const made = makeable.filter((run) => run.made > 0).length;
  const calculated = proof.verdict !== "not proved" && proof.verdict !== "open";
  const parts: PartOfStep[] = [
    // where nothing can be calculated, it is what there is to begin with
    checksPart({ job, put }, plan, !calculated),
    {
      id: "runs",
      title: "On the machine",
      status: `${made} of ${makeable.length} runs made${plan.unproved.length ? `, ${plan.unproved.length} parts stay unproved` : ""}`,
      done: made === makeable.length,
      body: <RunsPart job={job} put={put} plan={plan} family={document} />,
    },
    ...(job.run_count > 0
      ? [
          {
            id: "measured",
            title: "Measured",
            status: `${job.run_count} ${job.run_count === 1 ? "run" : "runs"} kept`,
            done: false,
            asks: false,
            open: true,
            body: <Measured job={job} family={document} />,
          },
        ]
      : []),
    ...readingsPart({ job, put }, plan),
    overridesPart({ job, put }, plan),
  ];
  const next = job.closed ? undefined : nextOf(parts);
  // the same number again and nothing timed yet: the check list is what it is looked at for
  const plainly = isSameNumber(job) && alike && job.step === "prove" && job.run_count === 0;
  const short = plainly && leftToLookAt(plan).length > 0;
  return (
    <div className="flex flex-col gap-2 desk:gap-4">
      {!short && (
        <Next
          job={job}
          step="prove"
          words={next ? `${next.title.toLowerCase()}: ${next.status}.` : "say how it was proved."}
          button="Show me"
          onGo={() => goTo(next ? placeOf(next.id) : "proved")}
        />
      )}
      <p className="desk:text-xl">
        <VerdictMark verdict={proof.verdict} />
      </p>
      {short && <Guards />}
      {short && <LookedAtAtOnce job={job} put={put} plan={plan} />}
      <div className="grid gap-x-10 gap-y-1 desk:gap-y-3 desk:grid-cols-[minmax(0,3fr)_minmax(0,2fr)]">
        {(calculated || proof.endless.length > 0) && (
          <section aria-label="By calculation" className="min-w-0">
            <Player
              family={document}
              counterCase={proof.counter_case}
              endless={proof.endless}
              pairKey={planKey(job)}
              play={(scenario) => playJob(job.id, scenario)}
            />
          </section>
        )}
        <ProofWords proof={proof} brief />
      </div>
      {!short && <Guards />}
      <Parts parts={parts} keep still={job.closed || short} />
      <Doubts job={job} doubts={doubts} />
      <div id="proved" tabIndex={-1} className="flex scroll-mt-24 flex-col gap-3">
        <NoteAndConfirm
          job={job}
          put={put}
          step="prove"
          label={
            !alike
              ? "Why go on though the two are not shown to be in register?"
              : doubts.length
                ? "Why go on all the same?"
                : "What was run on the machine"
          }
          confirm={doubts.length ? "Go on with this reason" : "Seen on the machine"}
          needed={doubts.length > 0}
        />
      </div>
    </div>
  );
}
