import type { Schemas } from "@/api/client";
import { Button } from "@/ui/Button";
import { InkMark, VerdictMark } from "@/ui/inks";
import { Empty, Loading, ProblemNotice } from "@/ui/notices";
import { useCandidates } from "../api";
import type { StepProps } from "../JobPage";

/** Every board of the family that is still made, best twin first, with what speaks against it. */
export function ChooseStep({ job, put }: StepProps) {
  const candidates = useCandidates(job);
  if (candidates.isPending) return <Loading what="Checking every board of the family against the original" />;
  return (
    <div className="flex flex-col gap-3">
      <ProblemNotice problem={candidates.error} />
      <p className="text-faint">
        Judged on {candidates.data?.judged_on}
        {candidates.data?.judged_on === "factory settings" &&
          ", for the old board’s positions are not recorded yet; the choice is judged again afterwards"}
        .
      </p>
      {candidates.data?.candidates.length === 0 && <Empty>No board of this family is still made.</Empty>}
      <ul className="border-t border-rule">
        {candidates.data?.candidates.map((candidate) => (
          <Candidate
            key={candidate.part_number}
            candidate={candidate}
            chosen={job.replacement === candidate.part_number}
            closed={job.closed}
            onChoose={() => void put({ target: "replacement", after: candidate.part_number })}
          />
        ))}
      </ul>
    </div>
  );
}

type Props = { candidate: Schemas["CandidateShown"]; chosen: boolean; closed: boolean; onChoose: () => void };

function Candidate({ candidate, chosen, closed, onChoose }: Props) {
  const { misses, pins, proof, moved } = candidate;
  return (
    <li className={`border-b border-rule py-3 ${chosen ? "border-l-4 border-l-replacement pl-3" : ""}`}>
      <div className="flex flex-wrap items-center justify-between gap-3">
        <span>
          <InkMark side="replacement">{candidate.part_number}</InkMark> {candidate.maker}, {candidate.title}
          <span className="mt-1 block">
            <VerdictMark verdict={candidate.verdict} />
          </span>
        </span>
        {chosen ? <strong>chosen</strong> : !closed && <Button onClick={onChoose}>Take {candidate.part_number}</Button>}
      </div>
      <ul className="mt-1 list-disc pl-5 text-[0.95rem]">
        {misses.length > 0 && <li>Cannot be met: {misses.join(", ")}</li>}
        {misses.length === 0 && moved !== null && (
          <li>
            Every function can be set, {moved} position{moved === 1 ? "" : "s"} moved from factory
          </li>
        )}
        {pins.length > 0 && (
          <li>
            <strong>Not exchangeable: the same plug {pins[0]?.connector} has other pinning.</strong>{" "}
            {pins.map((pin) => `Pin ${pin.pin}: ${pin.original} there, ${pin.replacement} here`).join("; ")}
          </li>
        )}
      </ul>
      {proof && (
        <details>
          <summary className="min-h-11 py-2 text-[0.95rem] font-semibold">Why</summary>
          <p>{proof.words}</p>
          <ol className="list-decimal pl-6">
            {proof.told.map((line) => (
              <li key={line}>{line}</li>
            ))}
          </ol>
          {proof.offsets.map((offset) => (
            <p key={offset.title}>
              {offset.title}: {offset.original} on the original, {offset.replacement} on this one
            </p>
          ))}
        </details>
      )}
    </li>
  );
}
