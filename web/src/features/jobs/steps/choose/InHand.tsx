import { Button } from "@/ui/Button";
import { ReadMarking } from "@/pictures/ReadMarking";
import { TextField } from "@/ui/fields";
import { ProblemNotice } from "@/ui/notices";
import { useState } from "react";
import { useHave } from "../../api";
import type { StepProps } from "../../stepProps";
import { CandidateSheet } from "./CandidateSheet";

/** “I have this one”: any number judged alone, yes, no or why. */
export function InHand({ job, put }: StepProps) {
  const [text, setText] = useState("");
  const [asked, setAsked] = useState("");
  const have = useHave(job, asked);
  if (job.closed || !job.original) return null;
  const data = have.data;
  const candidate = data?.candidate;
  return (
    <details className="border-y border-rule">
      <summary className="min-h-12 py-3 font-semibold">I have one here: will it do?</summary>
      <div className="flex flex-col gap-3 pb-4">
        <form
          className="flex flex-wrap items-end gap-3"
          onSubmit={(event) => {
            event.preventDefault();
            setAsked(text.trim());
          }}
        >
          <div className="w-64">
            <TextField
              label="Its number"
              hint="a number as it stands on a board, box or list"
              className="font-mono"
              spellCheck={false}
              maxLength={200}
              value={text}
              onChange={(event) => setText(event.target.value)}
            />
          </div>
          <Button type="submit" disabled={!text.trim() || have.isFetching}>
            Will it do?
          </Button>
        </form>
        <ReadMarking
          words="Read it from a picture"
          onUse={(read) => {
            setText(read);
            setAsked(read);
          }}
        />
        <ProblemNotice problem={have.error} />
        {data && (
          <p role="status" className="text-lg font-semibold">
            {data.words}
          </p>
        )}
        {data && !candidate && data.read.length > 0 && (
          <ul className="flex flex-wrap gap-2" aria-label="It may be">
            {data.read.map((each) => (
              <li key={each.part_number}>
                <Button
                  onClick={() => {
                    setText(each.part_number);
                    setAsked(each.part_number);
                  }}
                >
                  <span className="font-mono">{each.part_number}</span> {each.readings[0]?.words}
                </Button>
              </li>
            ))}
          </ul>
        )}
        {candidate && (
          <CandidateSheet
            key={candidate.part_number}
            job={job}
            put={put}
            candidate={candidate}
            others={[]}
            best={candidate.part_number}
            onClose={() => setAsked("")}
          />
        )}
      </div>
    </details>
  );
}
