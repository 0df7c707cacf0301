import { Button } from "@/ui/Button";
import { lacking } from "@/ui/lacking";
import { TextArea, TextField } from "@/ui/fields";
import { Loading, ProblemNotice } from "@/ui/notices";
import { Sheet } from "@/ui/Sheet";
import { useState } from "react";
import { useAgainst, useJoin, useSiblings } from "./api";

/** A sketch that turns out to be a board that was there: which one, what speaks against it, and how that is known. */
export function JoinSheet({ sketch, onClose }: { sketch: string; onClose: () => void }) {
  const [search, setSearch] = useState("");
  const [board, setBoard] = useState<string | null>(null);
  const [why, setWhy] = useState("");
  const found = useSiblings(search.trim(), "", search.trim() !== "");
  const against = useAgainst(sketch, board);
  const join = useJoin();
  const others = found.data?.items.filter((each) => each.part_number !== sketch && !each.withdrawn) ?? [];
  return (
    <Sheet open onClose={onClose} title={`${sketch} is a board that is there`}>
      <div className="flex flex-col gap-4">
        <TextField
          label="Which one: number, title or maker"
          type="search"
          className="font-mono"
          spellCheck={false}
          maxLength={80}
          value={search}
          onChange={(event) => {
            setSearch(event.target.value);
            setBoard(null);
          }}
        />
        <ProblemNotice problem={found.error ?? against.error ?? join.error} />
        {search.trim() && found.data && others.length === 0 && (
          <p>No other board of this number is in the catalogue.</p>
        )}
        <ul className="flex flex-wrap gap-2" aria-label="Boards found">
          {others.map((each) => (
            <li key={each.part_number}>
              <Button
                aria-pressed={each.part_number === board}
                className={each.part_number === board ? "border-2 border-text" : ""}
                onClick={() => setBoard(each.part_number)}
              >
                <span className="font-mono font-semibold">{each.part_number}</span> {each.maker}, {each.family_title}
              </Button>
            </li>
          ))}
        </ul>
        {board && against.isPending && <Loading what="Holding the two against each other" />}
        {board && against.data && (
          <section aria-label="What speaks against it" className="border-l-4 border-edge pl-3">
            {against.data.apart.length > 0 ? (
              <>
                <p className="font-semibold">What speaks against it</p>
                <ul className="list-disc pl-5">
                  {against.data.apart.map((each) => (
                    <li key={each}>{each}</li>
                  ))}
                </ul>
              </>
            ) : (
              <p>Nothing on the sketch speaks against it.</p>
            )}
            <p>{movingWords(against.data.jobs)}</p>
          </section>
        )}
        {board && (
          <>
            <TextArea
              label="How it is known that they are one board"
              hint="such as: the label was under the cover"
              maxLength={2000}
              value={why}
              onChange={(event) => setWhy(event.target.value)}
            />
            <Button
              kind="main"
              className="self-start"
              needs={lacking({ "the reason": !why.trim() })}
              disabled={join.isPending}
              onClick={() => join.mutate({ sketch, board, why }, { onSuccess: onClose })}
            >
              They are one board
            </Button>
          </>
        )}
      </div>
    </Sheet>
  );
}

function movingWords(jobs: number): string {
  if (jobs === 0) return "No open job has the sketch.";
  const have = jobs === 1 ? "One open job has the sketch" : `${String(jobs)} open jobs have the sketch`;
  return `${have}; each goes on with this board once somebody there agrees. What was recorded stays.`;
}
