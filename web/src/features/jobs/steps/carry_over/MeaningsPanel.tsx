import type { Schemas } from "@/api/client";
import { useFamily } from "@/api/families";
import { Button } from "@/ui/Button";
import { InkMark, type Side } from "@/ui/inks";
import { Part } from "@/ui/Part";
import type { StepProps } from "../../stepProps";
import { saidWords, unsaidPoints } from "./saying";
import { SayMeaning, type Named, type Sides } from "./SayMeaning";

type Boards = Record<Side, Schemas["BoardShown"]>;

/** What positions mean by somebody’s word, where no profile says it: it counts in this job, and is shown at the board. */
export function MeaningsPanel({ job, put, boards }: StepProps & { boards: Boards }) {
  const family = useFamily(job.original_board ? boards.original.family : undefined);
  const said = Object.entries(job.meanings);
  const sides: Sides = {};
  for (const side of ["original", "replacement"] as const) {
    const board = boards[side];
    const mine = said.filter(([name]) => name.startsWith(side)).map(([, each]) => each);
    const points = unsaidPoints(board.elements, board.document.functions as object, mine);
    if (points.length) sides[side] = { partNumber: board.part_number, points };
  }
  const written = (family.data?.document.functions ?? []) as Named[];
  const own = said.map(([name, each]) => ({ ...each, id: name.slice(name.indexOf("/") + 1) }));
  const functions = [...written, ...own].filter(
    (each, at, all) => all.findIndex((other) => other.id === each.id) === at,
  ) as Named[];
  const open = Object.keys(sides).length > 0 && !job.closed;
  if (!open && said.length === 0) return null;
  const bare = (side: Side) => Object.keys(boards[side].document.functions as object).length === 0;
  return (
    <Part
      title="What positions mean, by your word"
      status={said.length ? `${said.length} said` : "nothing said"}
      open={said.length > 0 || bare("original") || bare("replacement")}
    >
      {said.length > 0 && (
        <ul className="mb-4 border-t border-rule" aria-label="What was said">
          {said.map(([name, each]) => {
            const side = name.startsWith("original") ? "original" : "replacement";
            return (
              <li key={name} className="flex flex-wrap items-center gap-x-4 border-b border-rule py-2">
                <InkMark side={side}>{each.of}</InkMark>
                <span className="grow">
                  <strong>{each.title}</strong> {saidWords(each, boards[side].elements)}
                  <span className="block text-sm text-faint">{each.by}</span>
                </span>
                {!job.closed && (
                  <Button kind="quiet" onClick={() => void put({ target: `meaning.${name}`, after: null })}>
                    Take it back
                  </Button>
                )}
              </li>
            );
          })}
        </ul>
      )}
      {open && (
        <SayMeaning sides={sides} functions={functions} onSay={(target, after) => put({ target, after } as never)} />
      )}
    </Part>
  );
}
