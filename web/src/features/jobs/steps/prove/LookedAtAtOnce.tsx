import type { Schemas } from "@/api/client";
import { Button } from "@/ui/Button";
import { ABSENT } from "./CheckList";
import { leftToLookAt } from "./proveParts";
import { inTurn } from "../../entries/inTurn";
import type { StepProps } from "../../stepProps";

/** The check list gone through at the machine and said in one tap, where nothing on it is otherwise. */
export function LookedAtAtOnce({ job, put, plan }: StepProps & { plan: Schemas["ProvingShown"] }) {
  const left = leftToLookAt(plan);
  if (job.closed || left.length === 0) return null;
  const all = () =>
    void inTurn(put, [
      ...left.map((each) => ({ target: `check.${each.id}` as const, after: { ok: true } })),
      { target: "confirmed.prove", after: { note: "" } },
    ]);
  return (
    <section aria-label="Looked at" className="flex flex-col gap-3 border-2 border-text p-4">
      <p>The same number again, set as the old one stood. At the machine, look at each of these:</p>
      <ul className="border-t border-rule" aria-label="To look at">
        {left.map((each) => (
          <li key={each.id} className="flex items-center justify-between gap-x-4 border-b border-rule py-1">
            {each.words}
            <Button
              kind="quiet"
              className="shrink-0"
              aria-label={`Not here: ${each.words}`}
              onClick={() => void put({ target: `check.${each.id}`, after: ABSENT })}
            >
              Not here
            </Button>
          </li>
        ))}
      </ul>
      <p className="text-faint">
        What this machine does not have is said “not here”; what is not as it should be is said below. That it takes the
        same times is shown only by timed runs.
      </p>
      <Button kind="main" className="min-h-14 self-start" onClick={all}>
        I saw each of these {left.length}, and all are OK
      </Button>
    </section>
  );
}
