import { useKeptState } from "@/ui/typed";
import { Button } from "@/ui/Button";
import { lacking } from "@/ui/lacking";
import { TextArea } from "@/ui/fields";
import { InkMark } from "@/ui/inks";
import { useEffect, useRef } from "react";
import type { StepProps } from "../../stepProps";
import { Beside } from "./Beside";
import { Costs } from "./Costs";
import type { Candidate } from "./candidate";
import { Cells } from "./Cells";
import { Questions } from "../Questions";
import { Statements } from "./Statements";
import { Twin } from "./Twin";
import { ageWords, haveWords } from "./words";

type Props = StepProps & { candidate: Candidate; others: Candidate[]; best: string; at?: string; onClose: () => void };

/** One candidate with its reasons, what is to be found out, both boards laid on each other, and the choice. */
export function CandidateSheet({ job, put, candidate, others, best, at, onClose }: Props) {
  const [reason, setReason] = useKeptState(`why ${candidate.part_number}`, "");
  const top = useRef<HTMLElement>(null);
  useEffect(() => {
    const cell = at ? top.current?.querySelector<HTMLElement>(`[data-criterion="${at}"]`) : null;
    void (cell ?? top.current)?.scrollIntoView({ block: cell ? "center" : "start" });
  }, [at]);
  const needed = candidate.verdict === "no";
  const { offer } = candidate;
  return (
    <section
      ref={top}
      aria-label={`${candidate.part_number} in full`}
      className="flex scroll-mt-4 flex-col gap-5 border-l-4 border-replacement pl-4"
    >
      <div className="flex flex-wrap items-start justify-between gap-3">
        <div>
          <p className="text-xl">
            <InkMark side="replacement">{candidate.part_number}</InkMark> <strong>{candidate.verdict}</strong>
          </p>
          <p>
            {candidate.maker}, {candidate.title}. About {Math.round(candidate.minutes)} minutes of work.
          </p>
          <p className="text-faint">{offerWords(offer)}</p>
        </div>
        <Button onClick={onClose}>Close</Button>
      </div>
      {!job.closed && job.replacement !== candidate.part_number && (
        <div className="flex flex-col gap-3">
          <TextArea
            label={
              needed
                ? "It does not fit as it is judged. Why take it all the same?"
                : "Why this one (kept with the choice)"
            }
            value={reason}
            maxLength={2000}
            onChange={(event) => setReason(event.target.value)}
          />
          <Button
            kind="main"
            className="self-start"
            needs={lacking({ "the reason": needed && !reason.trim() })}
            onClick={() => {
              const told = reason.trim() || (candidate.part_number === best ? "the best of the candidates" : "");
              void put({ target: "replacement", after: candidate.part_number, reason: told });
              setReason("");
              onClose();
            }}
          >
            Take {candidate.part_number}
          </Button>
        </div>
      )}
      <Questions job={job} put={put} questions={candidate.questions} />
      <Cells candidate={candidate} others={others} at={at} />
      <Twin job={job} partNumber={candidate.part_number} />
      <Beside job={job} partNumber={candidate.part_number} />
      {candidate.statements.length > 0 && (
        <details>
          <summary className="min-h-11 py-2 font-semibold">The statements behind the listing</summary>
          <Statements statements={candidate.statements} />
        </details>
      )}
      <details>
        <summary className="min-h-11 py-2 font-semibold">What it costs, against calling a service</summary>
        <Costs job={job} put={put} partNumber={candidate.part_number} />
      </details>
    </section>
  );
}

function offerWords(offer: Candidate["offer"]) {
  if (!offer) return "The parts desk is being asked.";
  const age = offer.age_s === null ? "" : ` (${ageWords(offer.age_s)})`;
  if (offer.unknown) return `The parts desk does not know this number${age}.`;
  if (offer.price === null) return `The parts desk did not answer: ${offer.fault}.`;
  return `Parts desk: ${offer.price.toFixed(2)}, ${haveWords(offer)}${age}${offer.fault ? `; it is away now: ${offer.fault}` : ""}.`;
}
