import { BoardDrawing } from "@/drawing/BoardDrawing";
import { ElementEditor } from "@/drawing/ElementEditor";
import { UNREADABLE, positionWords, type BoardDocument, type Position } from "@/drawing/types";
import { Button } from "@/ui/Button";
import { Choice } from "@/ui/fields";
import { Loading, ProblemNotice } from "@/ui/notices";
import { useState } from "react";
import { useComparison, useJobBoard, type Job } from "../api";
import type { StepProps } from "../JobPage";

const READ_HOW = ["by eye", "by eye, twice", "from a picture", "told by somebody"];

/** How the old board stands, element by element, before anything moves. */
export function RecordStep({ job, put }: StepProps) {
  const board = useJobBoard(job, "original");
  const [picked, setPicked] = useState<string | null>(null);
  const [how, setHow] = useState("by eye");
  if (board.isPending) return <Loading what="Drawing the board" />;
  if (!board.data) return <ProblemNotice problem={board.error} />;
  const { elements } = board.data;
  const document = board.data.document as BoardDocument;
  const unread = elements.filter((each) => job.found[each.id] === undefined);
  const current = elements.find((each) => each.id === picked) ?? unread[0] ?? elements[0];
  const next = unread.find((each) => each.id !== current?.id);
  return (
    <div className="flex flex-col gap-5">
      <BoardDrawing
        name={`Original ${board.data.part_number}`}
        document={document}
        elements={elements}
        positions={job.found}
        side="original"
        selected={current?.id}
        onSelect={setPicked}
      />
      <div className="flex flex-wrap gap-2" role="group" aria-label="Elements of the board">
        {elements.map((element) => (
          <Button
            key={element.id}
            aria-pressed={element.id === current?.id}
            className={element.id === current?.id ? "border-2 border-text" : ""}
            onClick={() => setPicked(element.id)}
          >
            <span className="font-mono font-semibold">{element.id}</span> {element.title}
            <span className="block font-mono text-sm">{positionWords(element, job.found[element.id])}</span>
          </Button>
        ))}
      </div>
      {current && (
        <section aria-label={`${current.id} as found`} className="flex flex-col gap-3">
          <h3>
            {current.id} {current.title}
          </h3>
          <ElementEditor
            key={current.id}
            element={current}
            placed={document.layout?.find((each) => each.ref === current.id)}
            value={job.found[current.id]}
            side="original"
            disabled={job.closed}
            onChange={(value: Position) => {
              // stay with this element: a first touch must not move on to the next unread one
              setPicked(current.id);
              void put({ target: `found.${current.id}`, after: value, read_how: how });
            }}
          />
          <div className="max-w-56">
            <Choice label="Read how" value={how} disabled={job.closed} onChange={(event) => setHow(event.target.value)}>
              {READ_HOW.map((each) => (
                <option key={each}>{each}</option>
              ))}
            </Choice>
          </div>
        </section>
      )}
      <Unreadable job={job} />
      {!job.closed && next && (
        <Button className="self-start" onClick={() => setPicked(next.id)}>
          Next: {next.id} {next.title}
        </Button>
      )}
      {!job.closed && elements.length > 0 && unread.length === 0 && <RecordDone job={job} put={put} />}
      {unread.length > 0 && (
        <p className="text-faint">
          Not read yet: {unread.map((each) => each.id).join(", ")}. What cannot be read is entered as ?.
        </p>
      )}
    </div>
  );
}

function RecordDone({ job, put }: StepProps) {
  const done = job.steps.find((each) => each.id === "record")?.state === "done";
  if (done) return <p className="text-faint">The record is complete. A change opens it again.</p>;
  return (
    <Button
      kind="main"
      className="self-start"
      onClick={() => void put({ target: "confirmed.record", after: { note: "" } })}
    >
      The record is complete
    </Button>
  );
}

/** Which functions hang on what could not be read, and which reading would help most. */
function Unreadable({ job }: { job: Job }) {
  const comparison = useComparison(job);
  const anyRead = Object.values(job.found).some((value) => String(value).includes(UNREADABLE));
  const points = comparison.data?.unreadable.filter((each) => each.functions.length > 0) ?? [];
  if (!anyRead || !comparison.data) return null;
  if (points.length === 0) return <p>What cannot be read does not matter: no function hangs on it.</p>;
  return (
    <div className="border-l-4 border-text pl-3">
      <ul>
        {points.map((point) => (
          <li key={point.point}>
            <span className="font-mono">{point.point}</span> unreadable leaves open: {point.functions.join(", ")}
          </li>
        ))}
      </ul>
      {points[0] && points[0].decides > 0 && points.length > 1 && (
        <p>
          Reading <span className="font-mono">{points[0].point}</span> would decide most.
        </p>
      )}
    </div>
  );
}
