import type { Schemas } from "@/api/client";
import { VerdictMark } from "@/ui/inks";

/** The twin verdict with what it rests on, and the counter-case told in words. */
export function ProofPanel({ proof }: { proof: Schemas["ProofShown"] }) {
  return (
    <div className="flex flex-col gap-2">
      <p className="text-xl">
        <VerdictMark verdict={proof.verdict} />
      </p>
      <p>{proof.words}</p>
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
      {proof.told.length > 0 && (
        <ol className="list-decimal pl-6">
          {proof.told.map((line) => (
            <li key={line}>{line}</li>
          ))}
        </ol>
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
