import type { Schemas } from "@/api/client";
import { isWide } from "@/ui/isWide";
import { Statements } from "./Statements";

/** Repair, exchange, a good board out of another machine; and what is listed but cannot be judged. */
export function OtherWays({ data }: { data: Schemas["CandidatesShown"] }) {
  return (
    <>
      {data.other_ways.length > 0 && (
        <details open={isWide()}>
          <summary className="min-h-11 py-2 font-semibold">Other ways out: {data.other_ways.length}</summary>
          <Statements statements={data.other_ways} />
        </details>
      )}
      {data.unprofiled.length > 0 && (
        <details>
          <summary className="min-h-11 py-2">
            Listed without a profile: {data.unprofiled.length} number{data.unprofiled.length === 1 ? "" : "s"}
          </summary>
          <p className="font-mono">{data.unprofiled.join(", ")}</p>
          <p className="text-sm text-faint">Statements lead to them, but what they are nobody has written down.</p>
        </details>
      )}
      {data.elsewhere.length > 0 && (
        <details>
          <summary className="min-h-11 py-2">
            Statements that do not apply to this machine: {data.elsewhere.length}
          </summary>
          <Statements statements={data.elsewhere} />
        </details>
      )}
    </>
  );
}
