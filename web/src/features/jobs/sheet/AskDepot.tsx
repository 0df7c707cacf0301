import { Button } from "@/ui/Button";
import { lacking } from "@/ui/lacking";
import { TextArea } from "@/ui/fields";
import type { StepProps } from "../stepProps";
import { clock } from "@/ui/times";
import { useKeptState } from "@/ui/typed";

/** One tidy request to the depot, and what it answered. What is known of the board and its pictures go with it. */
export function AskDepot({ job, put }: StepProps) {
  const [what, setWhat] = useKeptState("ask the depot", "");
  const { asked, answered } = job;
  if (job.closed && !asked) return null;
  return (
    <>
      {asked && (
        <section aria-label="Asked of the depot" className="mb-4 flex flex-col gap-1 border-y border-rule py-3">
          <p>
            <strong>Asked of the depot</strong> by {asked.by}, {clock(asked.at)}: {asked.what}
          </p>
          {answered ? (
            <p>
              <strong>Answered</strong> by {answered.by}, {clock(answered.at)}: {answered.what}
            </p>
          ) : (
            <p className="text-faint">No answer yet. The work goes on with what is known.</p>
          )}
        </section>
      )}
      {!job.closed && (
        <details className="border-t border-rule">
          <summary className="min-h-11 py-2.5 font-semibold">Ask the depot</summary>
          <div className="flex flex-col gap-3 pb-4">
            <p className="text-sm text-faint">
              What is known of the board and the machine, and the pictures, go with it. The parts lead sees it in the
              workshop.
            </p>
            <TextArea
              label="What you need to know"
              hint="such as: which board is this, or: its leaflet entered"
              maxLength={2000}
              value={what}
              onChange={(event) => setWhat(event.target.value)}
            />
            <p className="flex flex-wrap items-center gap-4">
              <Button
                needs={lacking({ "the question": !what.trim() })}
                onClick={() => void put({ target: "asked", after: { what: what.trim() } }).then(() => setWhat(""))}
              >
                Ask
              </Button>
              <a href={`/api/jobs/${job.id}/summary.pdf`} className="min-h-11 py-2.5">
                The same on paper (PDF)
              </a>
            </p>
          </div>
        </details>
      )}
    </>
  );
}
