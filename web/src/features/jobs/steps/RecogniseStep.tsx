import { Button } from "@/ui/Button";
import { TextField } from "@/ui/fields";
import { InkMark } from "@/ui/inks";
import { Pager } from "@/ui/Pager";
import { ProblemNotice } from "@/ui/notices";
import { useDeferredValue, useState } from "react";
import { useBoardChoices, useMarked } from "../api";
import type { StepProps } from "../JobPage";

/** Which board is it? A marking as it is printed, or the list. */
export function RecogniseStep({ job, put }: StepProps) {
  const [text, setText] = useState("");
  const deferred = useDeferredValue(text);
  const hits = useMarked(deferred);
  const choose = (partNumber: string) =>
    void put({
      target: "original",
      after: partNumber,
      reason: text ? `marking read: ${text}` : "chosen from the list",
    });
  if (job.closed) return <p>The original is {job.original}.</p>;
  return (
    <div className="flex flex-col gap-4">
      {job.original && (
        <p>
          The original is <InkMark side="original">{job.original}</InkMark>. Another choice starts the record anew.
        </p>
      )}
      <TextField
        label="Marking on the board"
        hint="Type or paste what is printed on it, with or without dashes. 0 and O, 1 and I, 5 and S, 8 and B may be mixed up."
        className="font-mono text-xl"
        value={text}
        maxLength={80}
        autoComplete="off"
        spellCheck={false}
        onChange={(event) => setText(event.target.value)}
      />
      <ProblemNotice problem={hits.error} />
      {text.trim().length > 1 && hits.data?.length === 0 && (
        <p role="status">No board carries a marking like this. Look at it once more, or choose from the list.</p>
      )}
      {text.trim().length > 1 && (
        <ul className="border-t border-rule">
          {hits.data?.map((hit) => (
            <BoardChoice
              key={hit.part_number}
              board={hit}
              how={`${hit.marking}: ${hit.how}`}
              chosen={job.original === hit.part_number}
              onChoose={choose}
            />
          ))}
        </ul>
      )}
      <FromList chosen={job.original} onChoose={choose} />
    </div>
  );
}

function FromList({ chosen, onChoose }: { chosen: string | null; onChoose: (partNumber: string) => void }) {
  const [open, setOpen] = useState(false);
  const [page, setPage] = useState(1);
  const boards = useBoardChoices("", page);
  return (
    <details onToggle={(event) => setOpen(event.currentTarget.open)}>
      <summary className="min-h-11 py-2 font-semibold">Choose from the list</summary>
      {open && (
        <>
          <ul className="border-t border-rule">
            {boards.data?.items.map((board) => (
              <BoardChoice
                key={board.part_number}
                board={board}
                how={board.status}
                chosen={chosen === board.part_number}
                onChoose={onChoose}
              />
            ))}
          </ul>
          {boards.data && <Pager {...boards.data} onPage={setPage} />}
        </>
      )}
    </details>
  );
}

type ChoiceProps = {
  board: { part_number: string; maker: string; title: string };
  how: string;
  chosen: boolean;
  onChoose: (partNumber: string) => void;
};

function BoardChoice({ board, how, chosen, onChoose }: ChoiceProps) {
  return (
    <li className="flex flex-wrap items-center justify-between gap-3 border-b border-rule py-2">
      <span>
        <InkMark side="original">{board.part_number}</InkMark> {board.maker}, {board.title}
        <span className="block text-sm text-faint">{how}</span>
      </span>
      {chosen ? (
        <span className="font-semibold">chosen</span>
      ) : (
        <Button aria-label={`This is it: ${board.part_number}`} onClick={() => onChoose(board.part_number)}>
          This is it
        </Button>
      )}
    </li>
  );
}
