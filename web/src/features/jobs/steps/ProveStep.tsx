import { Player, type FamilyDocument } from "@/comparison/Player";
import { ProofPanel } from "@/comparison/ProofPanel";
import { Caution, Loading, ProblemNotice } from "@/ui/notices";
import { planKey, playJob, useComparison, useFamily } from "../api";
import type { StepProps } from "../JobPage";
import { NoteAndConfirm } from "./NoteAndConfirm";

/** Whether the two boards ever show anything different, and the scenarios to see it. */
export function ProveStep({ job, put }: StepProps) {
  const comparison = useComparison(job);
  const family = useFamily(job.family);
  const problem = comparison.error ?? family.error;
  if (problem) return <ProblemNotice problem={problem} />;
  if (!comparison.data?.proof || !family.data) return <Loading what="Checking the twins against each other" />;
  const { proof } = comparison.data;
  const alike = proof.verdict === "identical" || proof.verdict === "within tolerance";
  return (
    <div className="flex flex-col gap-6">
      <ProofPanel proof={proof} />
      {proof.verdict !== "not proved" && proof.verdict !== "open" && (
        <Player
          family={family.data.document as FamilyDocument}
          counterCase={proof.counter_case}
          pairKey={planKey(job)}
          play={(scenario) => playJob(job.id, scenario)}
        />
      )}
      <Caution title="Running the machine">
        Test runs only with guards on, people clear, and by those who are qualified. Local codes, the maker’s
        instructions and licensed practice come first.
      </Caution>
      <NoteAndConfirm
        job={job}
        put={put}
        step="prove"
        label={alike ? "What was run on the machine" : "Why go on though the two are not shown to be in register?"}
        confirm={alike ? "Seen on the machine" : "Go on with this reason"}
        needed={!alike}
      />
    </div>
  );
}
