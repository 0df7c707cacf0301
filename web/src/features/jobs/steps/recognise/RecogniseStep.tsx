import { Button } from "@/ui/Button";
import { InkMark } from "@/ui/inks";
import { Sheet } from "@/ui/Sheet";
import { useState } from "react";
import type { StepProps } from "../../stepProps";
import { goTo, Next } from "../Next";
import { FromList } from "./FromList";
import { KeyPanel } from "./KeyPanel";
import { MachineFacts } from "../MachineFacts";
import { MarkingSearch } from "../MarkingSearch";
import { Nameplate } from "../Nameplate";
import { Revisions } from "./Revisions";

/** Which board, which machine? By what is printed, by the plate, or by what can be seen. */
export function RecogniseStep({ job, put }: StepProps) {
  const [asked, setAsked] = useState<{ partNumber: string; how: string } | null>(null);
  const take = (partNumber: string, how: string) => void put({ target: "original", after: partNumber, reason: how });
  const lost = goneWithOriginal(job);
  const choose = (partNumber: string, how: string) =>
    job.original && job.original !== partNumber && lost ? setAsked({ partNumber, how }) : take(partNumber, how);
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
        {asked && (
          <Sheet open onClose={() => setAsked(null)} title={`Is it ${asked.partNumber} after all?`}>
            <p className="mb-4">
              What was said of <InkMark side="original">{job.original}</InkMark> goes: {lost}. The history keeps it.
            </p>
            <p className="flex flex-wrap gap-3">
              <Button
                kind="main"
                onClick={() => {
                  setAsked(null);
                  take(asked.partNumber, asked.how);
                }}
              >
                It is {asked.partNumber}
              </Button>
              <Button onClick={() => setAsked(null)}>It stays {job.original}</Button>
            </p>
          </Sheet>
        )}
      </div>
      <div className="flex min-w-0 flex-col gap-6">
        <Nameplate {...props} />
        <MachineFacts {...props} />
      </div>
    </div>
  );
}

/** What another original would take along, in words; empty where nothing was recorded yet. */
function goneWithOriginal(job: StepProps["job"]): string {
  const counted = (kept: object, one: string, many: string) => {
    const count = Object.keys(kept).length;
    return count === 0 ? "" : count === 1 ? `1 ${one}` : `${count} ${many}`;
  };
  return [
    job.replacement && `the choice of ${job.replacement}`,
    counted(job.found, "position", "positions"),
    counted(job.wires, "wire", "wires"),
    counted(job.pictures, "picture’s words", "pictures’ words"),
    counted(job.meanings, "meaning", "meanings"),
  ]
    .filter(Boolean)
    .join(", ");
}
