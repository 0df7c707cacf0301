import { Button } from "@/ui/Button";
import { lacking } from "@/ui/lacking";
import { TextArea } from "@/ui/fields";
import { isTypedAt, useKeptState } from "@/ui/typed";
import type { StepProps } from "../../stepProps";

const SAYS: Record<string, string> = {
  condemned: "The tests condemn the board.",
  cleared: "The tests clear the board: look for the cause among the other suspects.",
  open: "The tests do not decide yet.",
};

const NOTE = "note of rule_out";

/** Whether a note waits on this device. */
export const hasDraft = () => isTypedAt(NOTE);

type Props = StepProps & {
  conclusion: string;
  /** What may have killed the board, by the family’s data. */
  causes?: { id: string; title: string }[];
  leading?: string;
};

/** The three ends: condemned with evidence, cleared, or going on undecided with a reason. */
export function EndPanel({ job, put, conclusion, causes = [], leading }: Props) {
  const step = job.steps.find((each) => each.id === "rule_out");
  const done = step?.state === "done";
  const [draft, type] = useKeptState(NOTE, "");
  const note = done ? (step.note ?? "") : draft;
  const end = (how: string) => {
    void put({ target: "confirmed.rule_out", after: { note: note.trim(), end: how } });
    type("");
  };
  const takeBack = () => {
    type(note);
    void put({ target: "confirmed.rule_out", after: null });
  };
  const empty = !note.trim();
  // a cause that was seen speaks for itself; only that nobody knows it does not
  const seen = Object.keys(job.causes).some((each) => each !== "unknown");
  // where nobody knows the kind of machine, nothing is weighed that could speak against it
  const weighed = job.family !== null && causes.length > 0;
  const whyMissing = causes.length > 0 && Object.keys(job.causes).length === 0;
  return (
    <section aria-labelledby="end" className="flex flex-col gap-3">
      <h3 id="end">The end of it</h3>
      <p className={conclusion === "open" ? "" : "font-semibold"}>
        {SAYS[conclusion]}
        {leading && ` Leading: ${leading}.`}
      </p>
      <TextArea
        label="What was measured, what speaks against the board?"
        value={note}
        maxLength={2000}
        disabled={job.closed || done}
        onChange={(event) => type(event.target.value)}
      />
      {!job.closed && !done && whyMissing && (
        <div role="group" aria-label="Why it died" className="flex flex-wrap items-center gap-2">
          <span className="w-full">Why did it die, as far as is known?</span>
          {causes.map((cause) => (
            <Button
              key={cause.id}
              onClick={() => void put({ target: `cause.${cause.id}`, after: { note: "", cleared: false } })}
            >
              {cause.title}
            </Button>
          ))}
        </div>
      )}
      {!job.closed && !done && (
        <div className="flex flex-wrap gap-2">
          <Button
            kind={conclusion === "cleared" ? "plain" : "main"}
            needs={lacking({ "why the board died": whyMissing })}
            disabled={weighed && empty && !seen && conclusion !== "condemned"}
            onClick={() => end("condemned")}
          >
            The board is the cause
          </Button>
          <Button kind={conclusion === "cleared" ? "main" : "plain"} disabled={empty} onClick={() => end("cleared")}>
            It was not the board
          </Button>
          <Button disabled={empty} onClick={() => end("undecided")}>
            Undecided, go on
          </Button>
        </div>
      )}
      {!job.closed && !done && empty && (
        <p className="text-sm text-faint">
          {conclusion === "condemned"
            ? "Where it was not the board, or nobody can say, write what was found."
            : "Write what was found: it stands for the test that would decide."}
        </p>
      )}
      {!job.closed && done && (
        <Button className="self-start" onClick={takeBack}>
          Take this confirmation back
        </Button>
      )}
    </section>
  );
}
