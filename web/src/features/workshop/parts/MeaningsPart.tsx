import { Button } from "@/ui/Button";
import { Part } from "@/ui/Part";
import { isTypedAt } from "@/ui/typed";
import { useState } from "react";
import type { DraftFunction } from "../api";
import { TYPE_WORDS } from "../words";
import { AddFunction } from "./AddFunction";
import { Borrow } from "./Borrow";
import { Grid } from "./Grid";
import { Source } from "./Source";
import type { PartProps } from "./types";

/** What positions mean, function by function: a grid each, and a cell for every combination. */
export function MeaningsPart({ draft, changing }: PartProps) {
  const [open, setOpen] = useState<string | null>(null);
  const [adding, setAdding] = useState(() => isTypedAt("another function"));
  const unsaid = draft.functions.filter((each) => !each.said).length;
  return (
    <section aria-label="Meanings" className="flex flex-col gap-3">
      <p className="text-faint">
        What the machine does by these positions.{" "}
        {draft.functions.length === 0
          ? "Nobody named a function of this kind of machine yet: begin with the first."
          : unsaid > 0 && `${unsaid} of ${draft.functions.length} are not said for this board.`}
      </p>
      <Source draft={draft} changing={changing} part="functions" />
      <div>
        {draft.functions.map((each) => (
          <Part
            key={each.id}
            title={each.title}
            status={statusOf(each)}
            open={open === each.id}
            onFlip={() => setOpen(open === each.id ? null : each.id)}
          >
            <Grid draft={draft} changing={changing} given={each} />
          </Part>
        ))}
      </div>
      {adding ? (
        <AddFunction
          draft={draft}
          changing={changing}
          onDone={(id) => {
            setAdding(false);
            if (id) setOpen(id);
          }}
        />
      ) : (
        <div className="flex flex-wrap gap-3">
          <Button onClick={() => setAdding(true)}>Another function</Button>
          <Borrow draft={draft} changing={changing} part="functions" words="Take meanings over from another board" />
        </div>
      )}
    </section>
  );
}

function statusOf(given: DraftFunction): string {
  if (!given.said) return `${TYPE_WORDS[given.type] ?? given.type}, not said`;
  if (given.reads) return `read from ${given.reads}`;
  const wrong = given.cells.filter((each) => each.wrong).length;
  if (wrong) return `▲ ${wrong} to put right`;
  if (given.points.length === 0 && !given.too_large) return `always ${given.cells[0]?.text ?? ""} ${given.unit}`;
  return `by ${given.points.join(", ")}`;
}
