import type { Schemas } from "@/api/client";
import { VerdictMark } from "@/ui/inks";
import { isWide } from "@/ui/isWide";

/** The twin verdict with what it rests on, and the counter-case told in words. */
export function ProofPanel({ proof }: { proof: Schemas["ProofShown"] }) {
  return (
    <div className="flex flex-col gap-2">
      <p className="text-xl">
        <VerdictMark verdict={proof.verdict} />
      </p>
      <ProofWords proof={proof} />
    </div>
  );
}

/** What a twin verdict rests on, without the verdict itself; `brief` where a counter-case is gone through beside it: a phone needs no more, but for one that may not be the shortest. */
export function ProofWords({ proof, brief = false }: { proof: Schemas["ProofShown"]; brief?: boolean }) {
  const beside = brief && !isWide() && proof.counter_case?.fewest === true;
  return (
    <div className="flex flex-col gap-2">
      {!beside && <p>{proof.words}</p>}
      {proof.offsets.length > 0 && (
        <ul>
          {proof.offsets.map((offset) => (
            <li key={offset.title}>
              {offset.title}: <span className="text-original">{offset.original}</span> on the original,{" "}
              <span className="text-replacement">{offset.replacement}</span> on the replacement
            </li>
          ))}
        </ul>
      )}
      {proof.why.length > 0 && (
        <details open={isWide() && !!proof.counter_case}>
          <summary className="min-h-11 py-2 font-semibold">
            {proof.counter_case ? "Why they part" : "What this rests on"}
          </summary>
          <ul className="flex list-disc flex-col gap-1 pl-5 leading-snug">
            {proof.why.map((line) => (
              <li key={line}>{line}</li>
            ))}
          </ul>
        </details>
      )}
      {proof.told.length > 0 && !beside && (
        <details open>
          <summary className="min-h-11 py-2 font-semibold">Step by step</summary>
          <ol className="list-decimal pl-6 leading-snug">
            {proof.told.map((line) => (
              <li key={line}>{line}</li>
            ))}
          </ol>
        </details>
      )}
      {proof.endless.map((each) => (
        <details key={each.board}>
          <summary className="min-h-11 content-center">{each.board} never comes to rest for certain inputs</summary>
          <ol className="list-decimal pl-6">
            {each.told.map((line) => (
              <li key={line}>{line}</li>
            ))}
          </ol>
        </details>
      ))}
    </div>
  );
}
