import { Suspicion } from "@/drawing/Suspicion";
import { isWide } from "@/ui/isWide";
import { useState } from "react";
import type { RuleOut } from "./types";

const FIRST = 4;

/** Who is suspected, and what the last answer moved. */
export function Suspects({ data }: { data: RuleOut }) {
  const moved = useMoved(data);
  const last = data.chain.at(-1);
  const few = data.suspects.length > FIRST + 1;
  const [all, setAll] = useState(false);
  return (
    <section aria-labelledby="suspects" className="flex flex-col gap-2">
      <h3 id="suspects">Who is suspected</h3>
      <Suspicion suspects={few && !all ? data.suspects.slice(0, FIRST) : data.suspects} own="board" moved={moved} />
      {few && (
        <button
          type="button"
          aria-expanded={all}
          onClick={() => setAll(!all)}
          className="min-h-11 self-start underline"
        >
          {all ? "Only the first" : `All ${data.suspects.length}`}
        </button>
      )}
      {last && !isWide() && (
        <p>
          <strong>{last.title}</strong>: {last.result}.{" "}
          <span className="text-faint">
            {last.words}. Then leading: {last.leading}.
          </span>
        </p>
      )}
      <p className="text-sm text-faint">
        The bar is what weighs against each now, the thin mark where it began. By the depot’s policy: {data.school}.
      </p>
    </section>
  );
}

/** How much each suspect’s weight was before the last thing that was said or tested; nothing before the first. */
function useMoved(data: RuleOut): Record<string, number> {
  const weights = () => Object.fromEntries(data.suspects.map((each) => [each.id, each.weight]));
  const mark = JSON.stringify(weights());
  const [seen, setSeen] = useState({ mark, weights: weights(), before: {} as Record<string, number> });
  if (seen.mark !== mark) setSeen({ mark, weights: weights(), before: seen.weights });
  return seen.before;
}
