import { InkMark } from "@/ui/inks";
import type { StepProps } from "../../stepProps";
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
    <div className="flex flex-col gap-6">
      {job.original && (
        <p>
          The original is <InkMark side="original">{job.original}</InkMark>.{" "}
          {!job.closed && "Another choice starts the record anew."}
        </p>
      )}
      {!job.closed && (
        <>
          <MarkingSearch job={job} onChoose={choose} />
          <KeyPanel {...props} onChoose={choose} />
          <FromList chosen={job.original} family={job.family} onChoose={choose} />
        </>
      )}
      {job.original && <Revisions {...props} />}
      <Nameplate {...props} />
      <MachineFacts {...props} />
    </div>
  );
}
