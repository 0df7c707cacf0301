import { addressOf } from "@/pictures/api";
import { BoardSketch } from "@/drawing/BoardSketch";
import type { BoardDocument } from "@/drawing/types";
import { Button } from "@/ui/Button";
import { ProblemNotice } from "@/ui/notices";
import { useState } from "react";
import { useKey, type Job } from "../../api";
import type { StepProps } from "../../stepProps";
import { BoardChoice } from "../BoardChoice";

const CANNOT_TELL = "cannot tell";
type Props = StepProps & { onChoose: (partNumber: string, how: string) => void };

/** No number to be read: one question at a time, until few boards are left. */
export function KeyPanel({ job, put, onChoose }: Props) {
  const [open, setOpen] = useState(Object.keys(job.features).length > 0);
  const key = useKey(job, open);
  const data = key.data;
  return (
    <details open={open} onToggle={(event) => setOpen(event.currentTarget.open)}>
      <summary className="min-h-11 py-2 font-semibold">No number to be read: by what can be seen</summary>
      {open && job.family === null && (
        <p className="text-faint">Boards of every kind of machine are possible yet; saying the kind leaves out most.</p>
      )}
      {open && <ProblemNotice problem={key.error} />}
      {open && data && (
        <div className="flex flex-col gap-4 border-l-4 border-text pl-4">
          <Answers job={job} put={put} />
          {data.question ? (
            <div className="flex flex-col gap-2">
              <p className="text-xl font-bold">{data.question.title}</p>
              <ul className="flex flex-col gap-2">
                {data.question.choices.map((choice) => (
                  <li key={choice.value}>
                    <Button
                      className="w-full"
                      onClick={() => void put({ target: `feature.${data.question?.feature}`, after: choice.value })}
                    >
                      {choice.value}{" "}
                      <span className="text-faint">
                        ({choice.boards} board{choice.boards === 1 ? "" : "s"})
                      </span>
                    </Button>
                  </li>
                ))}
                <li>
                  <Button
                    kind="quiet"
                    onClick={() => void put({ target: `feature.${data.question?.feature}`, after: CANNOT_TELL })}
                  >
                    Cannot tell
                  </Button>
                </li>
              </ul>
            </div>
          ) : (
            data.inseparable.length > 0 && (
              <p>
                <strong>Nothing visible tells the boards that are left apart.</strong> The printed number, or the
                revision on the display while the board still answers, would.
              </p>
            )
          )}
          <p role="status" className="font-semibold">
            {data.left_count} of {data.of} boards left
            {data.left_count === 0 && ". One answer cannot be right: take the least certain one back."}
          </p>
          <ul className="border-t border-rule">
            {data.left.map((board) => (
              <BoardChoice
                key={board.part_number}
                board={board}
                chosen={job.original === board.part_number}
                onChoose={() => onChoose(board.part_number, "recognised by what can be seen")}
              >
                <span className="mt-1 flex items-center gap-3">
                  <span className="block w-24 shrink-0">
                    <BoardSketch name={board.part_number} sketch={board.sketch as BoardDocument} />
                  </span>
                  {board.picture && (
                    <img
                      src={addressOf(board.picture)}
                      alt={`Photograph of ${board.part_number}`}
                      loading="lazy"
                      className="block max-h-20 w-28 shrink-0 object-contain"
                    />
                  )}
                  {board.standing || (board.status === "current" ? "still made" : "discontinued")}
                </span>
              </BoardChoice>
            ))}
          </ul>
          {data.look_alikes.length > 0 && (
            <ul className="flex flex-col gap-2">
              {data.look_alikes.map((each) => (
                <li key={`${each.one}-${each.other}-${each.kind}`}>
                  <span className="font-mono">{each.one}</span> and <span className="font-mono">{each.other}</span>:{" "}
                  {each.kind === "not exchangeable" ? <strong>{each.words}</strong> : each.words}
                </li>
              ))}
            </ul>
          )}
          <p>
            <a href={`/api/jobs/${job.id}/summary.pdf`} className="inline-block min-h-11 py-2">
              Stuck? One page for the depot (PDF)
            </a>
          </p>
        </div>
      )}
    </details>
  );
}

/** What was answered; each answer can be taken back. */
function Answers({ job, put }: { job: Job; put: StepProps["put"] }) {
  const answers = Object.entries(job.features);
  if (answers.length === 0) return null;
  return (
    <ul className="flex flex-wrap gap-2" aria-label="Answers so far">
      {answers.map(([name, value]) => (
        <li key={name}>
          <Button
            aria-label={`Take back: ${name}, ${value}`}
            onClick={() => void put({ target: `feature.${name}`, after: null })}
          >
            {name}: {value} <span aria-hidden="true">×</span>
          </Button>
        </li>
      ))}
    </ul>
  );
}
