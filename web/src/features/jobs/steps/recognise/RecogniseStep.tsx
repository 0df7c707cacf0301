import { InkMark } from "@/ui/inks";
import type { StepProps } from "../../stepProps";
import { goTo, Next } from "../Next";
import { FromList } from "./FromList";
import { KeyPanel } from "./KeyPanel";
import { MachineFacts } from "./MachineFacts";
import { MarkingSearch } from "./MarkingSearch";
import { Nameplate } from "./Nameplate";
import { Revisions } from "./Revisions";

/** Which board, which machine? By what is printed, by the plate, or by what can be seen. */
export function RecogniseStep({ job, put }: StepProps) {
  const choose = (partNumber: string, how: string) => void put({ target: "original", after: partNumber, reason: how });
  const props = { job, put };
  return (
    <div className="grid gap-x-12 gap-y-6 desk:grid-cols-2">
      <div className="flex min-w-0 flex-col gap-6">
        <Next
          job={job}
          step="recognise"
          words="find the board by what is printed on it."
          button="To the marking"
          onGo={() => goTo("by-marking")}
        />
        {job.original && (
          <p>
            The original is <InkMark side="original">{job.original}</InkMark>.{" "}
            {!job.closed && "Another choice starts the record anew."}
          </p>
        )}
        {!job.closed && (
          <>
            <div id="by-marking" tabIndex={-1} className="scroll-mt-24">
              <MarkingSearch job={job} onChoose={choose} />
            </div>
            <KeyPanel {...props} onChoose={choose} />
            <FromList chosen={job.original} family={job.family} onChoose={choose} />
          </>
        )}
        {job.original && <Revisions {...props} />}
      </div>
      <div className="flex min-w-0 flex-col gap-6">
        <Nameplate {...props} />
        <MachineFacts {...props} />
      </div>
    </div>
  );
}
