import { Player, type FamilyDocument } from "@/comparison/Player";
import { ProofPanel } from "@/comparison/ProofPanel";
import { Caution, Loading, ProblemNotice } from "@/ui/notices";
import { Part } from "@/ui/Part";
import { planKey, playJob, useComparison, useFamily } from "../../api";
import { useProving } from "../../endApi";
import type { StepProps } from "../../stepProps";
import { NoteAndConfirm } from "../NoteAndConfirm";
import { Measured } from "./Measured";
import { Overrides } from "./Overrides";
import { Readings } from "./Readings";
import { RunsPart } from "./RunsPart";

/** Prove: what the twin check says, run on the machine and timed; readings; what stays unproved; overrides off. */
export function ProveStep({ job, put }: StepProps) {
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
  const read = plan.readings.filter((each) => each.value !== null).length;
  return (
    <div className="flex flex-col gap-4">
      <ProofPanel proof={proof} />
      <Caution title="Running the machine">
        Test runs only with guards on, people clear, and by those who are qualified. Local codes, the maker’s
        instructions and licensed practice come first.
      </Caution>
      <div>
        {proof.verdict !== "not proved" && proof.verdict !== "open" && (
          <Part title="By calculation" status="scenarios on both boards" open={!alike && job.run_count === 0}>
            <Player
              family={document}
              counterCase={proof.counter_case}
              pairKey={planKey(job)}
              play={(scenario) => playJob(job.id, scenario)}
            />
          </Part>
        )}
        <Part
          title="On the machine"
          status={`${made} of ${makeable.length} runs made${plan.unproved.length ? `, ${plan.unproved.length} parts stay unproved` : ""}`}
          open={!job.closed && made < makeable.length}
        >
          <RunsPart job={job} put={put} plan={plan} family={document} />
        </Part>
        {job.run_count > 0 && (
          <Part title="Measured" status={`${job.run_count} ${job.run_count === 1 ? "run" : "runs"} kept`} open>
            <Measured job={job} family={document} />
          </Part>
        )}
        {plan.readings.length > 0 && (
          <Part title="Readings" status={`${read} of ${plan.readings.length} taken`}>
            <Readings job={job} put={put} readings={plan.readings} />
          </Part>
        )}
        <Part
          title="Overrides"
          status={plan.forced.length ? `${plan.forced.length} still on` : "none on"}
          open={plan.forced.length > 0}
        >
          <Overrides job={job} put={put} plan={plan} />
        </Part>
      </div>
      {doubts.length > 0 && !job.closed && (
        <section aria-label="What speaks against it">
          <p className="font-semibold">This speaks against it, or is missing:</p>
          <ul className="list-disc pl-5">
            {doubts.map((each) => (
              <li key={each}>{each}</li>
            ))}
          </ul>
          <p>Run it again, choose another replacement above, or say why you go on.</p>
        </section>
      )}
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
  );
}
