import { Player, type FamilyDocument } from "@/comparison/Player";
import { ProofPanel } from "@/comparison/ProofPanel";
import { Button } from "@/ui/Button";
import { TextArea } from "@/ui/fields";
import { Caution, Loading, ProblemNotice } from "@/ui/notices";
import { useState } from "react";
import { planKey, playJob, useComparison, useFamily } from "../api";
import type { StepProps } from "../JobPage";

/** Whether the two boards ever show anything different, and the scenarios to see it. */
export function ProveStep({ job, put }: StepProps) {
  const comparison = useComparison(job);
  const family = useFamily(job.family);
  const state = job.steps.find((each) => each.id === "prove");
  const [note, setNote] = useState(state?.note ?? "");
  const problem = comparison.error ?? family.error;
  if (problem) return <ProblemNotice problem={problem} />;
  if (!comparison.data?.proof || !family.data) return <Loading what="Checking the twins against each other" />;
  const { proof } = comparison.data;
  const alike = proof.verdict === "identical" || proof.verdict === "within tolerance";
  const done = state?.state === "done";
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
      <TextArea
        label={alike ? "What was run on the machine" : "Why go on though the two are not shown to be in register?"}
        value={note}
        maxLength={2000}
        disabled={job.closed || done}
        onChange={(event) => setNote(event.target.value)}
      />
      {!job.closed && !done && (
        <Button
          kind="main"
          className="self-start"
          disabled={!alike && !note.trim()}
          onClick={() => void put({ target: "confirmed.prove", after: { note } })}
        >
          {alike ? "Seen on the machine" : "Go on with this reason"}
        </Button>
      )}
      {!job.closed && done && (
        <Button className="self-start" onClick={() => void put({ target: "confirmed.prove", after: null })}>
          Take this back
        </Button>
      )}
    </div>
  );
}
