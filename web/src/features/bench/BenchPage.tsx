import { CarryView } from "@/comparison/CarryView";
import { Player, type FamilyDocument } from "@/comparison/Player";
import { ProofPanel } from "@/comparison/ProofPanel";
import { ElementEditor } from "@/drawing/ElementEditor";
import type { Position, Positions } from "@/drawing/types";
import { Empty, Loading, ProblemNotice } from "@/ui/notices";
import { bringToBench, playPair } from "@/with_you/bench";
import { useNavigate, useSearch } from "@tanstack/react-router";
import { useEffect } from "react";
import { BoardPicker } from "./BoardPicker";
import { useFamily } from "@/api/families";
import { useBenchBoard, useBenchComparison } from "./api";

/** What stands on the bench, as its address says it: whoever gets the address sees the same. */
export type Pair = { original?: string; replacement?: string; found?: Positions; plan?: Positions };

/** Any two boards side by side, no job needed. */
export function BenchPage() {
  const { original = "", replacement = "", ...standing } = useSearch({ from: "/bench" });
  const navigate = useNavigate({ from: "/bench" });
  const one = useBenchBoard(original);
  const pick = (change: Pair) => void navigate({ search: { original, replacement, ...change } });
  const set = (change: Pair) =>
    void navigate({ search: { original, replacement, ...standing, ...change }, replace: true, resetScroll: false });
  return (
    <main className="mx-auto flex max-w-6xl flex-col gap-6 px-4 py-6">
      <h1>Bench</h1>
      <div className="grid gap-x-10 gap-y-4 sm:grid-cols-2">
        <BoardPicker
          side="original"
          value={original}
          onPick={(partNumber) => pick({ original: partNumber, replacement: "" })}
        />
        <BoardPicker
          side="replacement"
          value={replacement}
          family={one.data?.family}
          disabled={!one.data}
          onPick={(partNumber) => pick({ replacement: partNumber })}
        />
      </div>
      {original && replacement ? (
        <SideBySide original={original} replacement={replacement} {...standing} onSet={set} />
      ) : (
        <Empty>
          Choose two boards of one family to see what their positions mean, and whether they ever show anything
          different.
        </Empty>
      )}
    </main>
  );
}

type SideBySideProps = Required<Pick<Pair, "original" | "replacement">> & Pair & { onSet: (change: Pair) => void };

function SideBySide({ original, replacement, found, plan, onSet }: SideBySideProps) {
  const one = useBenchBoard(original);
  const other = useBenchBoard(replacement);
  const family = useFamily(one.data?.family);
  const pair = { original, replacement, found: found ?? null, plan: plan ?? null };
  const comparison = useBenchComparison(pair);
  const kind = one.data?.family;
  const known = one.data?.behaviour_known && other.data?.behaviour_known;
  useEffect(() => {
    if (kind && known) void bringToBench({ original, replacement }, kind);
  }, [original, replacement, kind, known]);
  const problem = comparison.error ?? one.error ?? other.error ?? family.error;
  if (problem) return <ProblemNotice problem={problem} />;
  if (!comparison.data || !one.data || !other.data || !family.data) return <Loading what="Comparing" />;
  const standing = found ?? (comparison.data.found as Positions);
  const override = (changes: Record<string, Position | null>) => {
    const set = Object.entries({ ...plan, ...changes });
    onSet({ plan: Object.fromEntries(set.filter((each): each is [string, Position] => each[1] !== null)) });
  };
  return (
    <>
      <details className="border-y border-rule">
        <summary className="min-h-11 py-3 font-semibold">How the original stands</summary>
        <div className="flex flex-col gap-5 pb-4">
          {one.data.elements.map((element) => (
            <section key={element.id} aria-label={`${element.id} of the original`}>
              <h3 className="mb-1">
                {element.id} {element.title}
              </h3>
              <ElementEditor
                element={element}
                value={standing[element.id]}
                side="original"
                onChange={(value) => onSet({ found: { ...standing, [element.id]: value } })}
              />
            </section>
          ))}
        </div>
      </details>
      {comparison.data.proof && <ProofPanel proof={comparison.data.proof} />}
      <CarryView
        comparison={comparison.data}
        original={one.data}
        replacement={other.data}
        overrides={plan ?? {}}
        onOverride={override}
      />
      {comparison.data.plan &&
        one.data.behaviour_known &&
        other.data.behaviour_known &&
        comparison.data.proof?.verdict !== "open" && (
          <section className="flex flex-col gap-3">
            <h2>Scenarios on both boards</h2>
            <Player
              family={family.data.document as FamilyDocument}
              counterCase={comparison.data.proof?.counter_case}
              endless={comparison.data.proof?.endless}
              pairKey={["bench", pair]}
              play={(scenario, { signal }) => playPair({ pair, scenario }, signal)}
            />
          </section>
        )}
    </>
  );
}
