import type { Schemas } from "@/api/client";
import { BoardDrawing } from "@/drawing/BoardDrawing";
import { asSeen, positionWords } from "@/drawing/hanging";
import { ElementEditor } from "@/drawing/ElementEditor";
import { UNREADABLE, type BoardDocument, type Element, type Position } from "@/drawing/types";
import { addressOf } from "@/pictures/api";
import { Button } from "@/ui/Button";
import { Choice } from "@/ui/fields";
import { useState } from "react";
import { useComparison, type Job } from "../../api";
import { RefusalAt } from "../../entries/Refusal";
import { isSameNumber } from "../../sameNumber";
import type { StepProps } from "../../stepProps";
import { AngleReading } from "./AngleReading";
import { BlindReading } from "./BlindReading";
import { KeptPictures } from "./KeptPictures";

const READ_HOW = ["by eye", "by eye, twice", "from a picture", "told by somebody"];
type Props = StepProps & { board: Schemas["BoardShown"]; elements: Element[]; record: Schemas["RecordShown"] };

/** How the old board stands, one element at a time, drawn as it hangs in the machine. */
export function ElementsPart({ job, put, board, elements, record }: Props) {
  const [picked, setPicked] = useState<string | null>(null);
  const document = board.document as BoardDocument;
  const unread = elements.filter((each) => job.found[each.id] === undefined);
  const current = elements.find((each) => each.id === picked) ?? unread[0] ?? elements[0];
  const next = unread.find((each) => each.id !== current?.id);
  return (
    <div className="grid gap-x-10 gap-y-4 desk:grid-cols-2">
      <div className="desk:sticky desk:top-24 desk:self-start">
        <BoardDrawing
          name={`Original ${board.part_number}`}
          document={document}
          elements={board.elements}
          positions={job.found}
          side="original"
          selected={current?.id}
          onSelect={setPicked}
          under={addressOf(board.under)}
        />
        <KeptPictures job={job} />
      </div>
      <div className="flex min-w-0 flex-col gap-4">
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
        {(isSameNumber(job) ? elements : current ? [current] : []).map((element) => (
          <OneElement
            key={element.id}
            job={job}
            put={put}
            element={element}
            differs={record.differing.find((each) => each.element === element.id)}
            onTouch={() => setPicked(element.id)}
          />
        ))}
        <Unreadable job={job} />
        {!job.closed && next && (
          <Button className="self-start" onClick={() => setPicked(next.id)}>
            Next: {next.id} {next.title}
          </Button>
        )}
      </div>
    </div>
  );
}

type OneProps = StepProps & {
  element: Element;
  differs: Schemas["RecordShown"]["differing"][number] | undefined;
  onTouch: () => void;
};

/** One element as found: set, how it was read, and read again without looking. */
function OneElement({ job, put, element, differs, onTouch }: OneProps) {
  const [how, setHow] = useState("by eye");
  return (
    <section aria-label={`${element.id} as found`} className="flex flex-col gap-3">
      <h4 className="text-lg font-semibold">
        {element.id} {element.title}
      </h4>
      <ElementEditor
        element={element}
        value={job.found[element.id]}
        side="original"
        disabled={job.closed}
        onChange={(value: Position) => {
          // stay with this element: a first touch must not move on to the next unread one
          onTouch();
          void put({ target: `found.${element.id}`, after: value, read_how: how });
        }}
      />
      <RefusalAt target={`found.${element.id}`} />
      {differs && (
        <p role="alert" className="border-l-4 border-text pl-3">
          <strong>Two readings differ.</strong> First{" "}
          <span className="font-mono">{asSeen(element, differs.first as Position)}</span>, then without looking{" "}
          <span className="font-mono">{asSeen(element, differs.second as Position)}</span> ({differs.by}). Look again
          and set what it is.
        </p>
      )}
      {element.kind === "trimmer" && (
        <AngleReading key={`angle ${element.id}`} job={job} put={put} element={element.id} />
      )}
      <div className="flex flex-wrap items-end gap-4">
        <div className="max-w-56">
          <Choice label="Read how" value={how} disabled={job.closed} onChange={(event) => setHow(event.target.value)}>
            {READ_HOW.map((each) => (
              <option key={each}>{each}</option>
            ))}
          </Choice>
        </div>
        {!job.closed && job.found[element.id] !== undefined && (
          <BlindReading key={`blind ${element.id}`} put={put} element={element} />
        )}
      </div>
    </section>
  );
}

/** Which functions hang on what could not be read, and which reading would help most. */
function Unreadable({ job }: { job: Job }) {
  const comparison = useComparison(job);
  const anyRead = Object.values(job.found).some((value) => String(value).includes(UNREADABLE));
  const points = comparison.data?.unreadable.filter((each) => each.functions.length > 0) ?? [];
  if (!anyRead || !comparison.data) return null;
  if (points.length === 0)
    return comparison.data.read_known ? (
      <p>What cannot be read does not change any function that is written down for this board.</p>
    ) : (
      <p>What cannot be read may matter: what this board’s switches do is not written down yet.</p>
    );
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
