import type { Schemas } from "@/api/client";
import { Button } from "@/ui/Button";
import { inTurn } from "../../entries/inTurn";
import type { StepProps } from "../../stepProps";

/** The check list gone through at the machine and said in one tap, where nothing on it is otherwise. */
export function LookedAtAtOnce({ job, put, plan }: StepProps & { plan: Schemas["ProvingShown"] }) {
  const left = plan.checks.filter((each) => each.ok === null);
  const wrong = plan.checks.some((each) => each.ok === false);
  if (job.closed || wrong || plan.forced.length > 0) return null;
  const all = () =>
    void inTurn(put, [
      ...left.map((each) => ({ target: `check.${each.id}` as const, after: { ok: true } })),
      { target: "confirmed.prove", after: { note: "" } },
    ]);
  return (
    <section aria-label="Looked at" className="flex flex-col gap-3 border-2 border-text p-4">
      <p>The same number again, set as the old one stood. At the machine, look at each of these:</p>
      <ul className="list-disc gap-x-8 pl-5 sm:columns-2">
        {left.map((each) => (
          <li key={each.id}>{each.words}</li>
        ))}
      </ul>
      <p className="text-faint">
        What is not so is said below. That it takes the same times is shown only by timed runs.
      </p>
      <Button kind="main" className="min-h-14 self-start" onClick={all}>
        All of this was seen, and is good
      </Button>
    </section>
  );
}
