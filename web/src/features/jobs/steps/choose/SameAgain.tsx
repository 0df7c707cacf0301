import { Button } from "@/ui/Button";
import { inTurn } from "../../entries/inTurn";
import type { StepProps } from "../../stepProps";
import type { Candidate } from "./candidate";

const WHICH = [
  ["new", "A new one"],
  ["exchange", "An exchange unit"],
] as const;

/** The very same number again, taken in one tap where nothing speaks against it. */
export function SameAgain({ job, put, again }: StepProps & { again: Candidate | undefined }) {
  if (job.closed || job.replacement || !again || again.verdict === "no") return null;
  const take = (which: "new" | "exchange") =>
    void inTurn(put, [
      { target: "replacement", after: again.part_number, reason: "the same number again" },
      { target: "same_board", after: { which } },
    ]);
  return (
    <section aria-label="The same number again" className="flex flex-wrap items-center gap-3">
      <p className="grow">
        The same number again, <span className="font-mono">{again.part_number}</span>: {again.verdict}. It is set as the
        old one stood, and its plugs go over.
      </p>
      {WHICH.map(([which, words]) => (
        <Button key={which} onClick={() => take(which)}>
          {words}
        </Button>
      ))}
    </section>
  );
}
