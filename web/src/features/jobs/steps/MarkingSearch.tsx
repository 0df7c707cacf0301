import { SketchSheet } from "@/sketching/SketchSheet";
import { ReadMarking } from "@/pictures/ReadMarking";
import { TextField } from "@/ui/fields";
import { ProblemNotice } from "@/ui/notices";
import { useDeferredValue, useState } from "react";
import { useMarked, type Job } from "../api";
import { BoardChoice } from "./BoardChoice";

/** Anything printed on the board, misread however; every hit says why it is one. */
export function MarkingSearch({ job, onChoose }: { job: Job; onChoose: (partNumber: string, how: string) => void }) {
  const [text, setText] = useState("");
  const deferred = useDeferredValue(text);
  const hits = useMarked(deferred);
  const typed = text.trim().length > 1;
  return (
    <section aria-labelledby="marking" className="flex flex-col gap-3">
      <h3 id="marking">By what is printed on it</h3>
      <TextField
        label="Marking on the board"
        hint="With or without dashes; several with a comma between them. 0 and O, 1 and I, 5 and S, 8 and B may be mixed up."
        className="font-mono text-xl"
        value={text}
        maxLength={200}
        autoComplete="off"
        spellCheck={false}
        onChange={(event) => setText(event.target.value)}
      />
      <ReadMarking words="Read it from a picture" onUse={setText} />
      <ProblemNotice problem={hits.error} />
      {typed && hits.data?.length === 0 && (
        <p role="status">No board carries a marking like this. Look at it once more, or go by what can be seen.</p>
      )}
      <SketchSheet
        key={text.trim()}
        start={{ marking: text.trim().slice(0, 80), family: job.family }}
        words={typed && hits.data?.length === 0 ? "Sketch it" : "It is in no catalogue: sketch it"}
        onKept={(board) => onChoose(board.part_number, "sketched at the machine")}
      />
      {typed && (
        <ul className="border-t border-rule">
          {hits.data?.map((hit) => (
            <BoardChoice
              key={hit.part_number}
              board={hit}
              chosen={job.original === hit.part_number}
              onChoose={() => onChoose(hit.part_number, `marking read: ${text.trim()}`)}
            >
              {hit.readings.map((reading) => (
                <span key={reading.read} className="block">
                  {hit.readings.length > 1 && <span className="font-mono">{reading.read}: </span>}
                  {reading.words}
                </span>
              ))}
            </BoardChoice>
          ))}
        </ul>
      )}
    </section>
  );
}
