import type { Schemas } from "@/api/client";
import { BoardDrawing } from "@/drawing/BoardDrawing";
import { ElementEditor } from "@/drawing/ElementEditor";
import { asSeen, inGroups, setOtherwise } from "@/drawing/hanging";
import { HungBank } from "@/drawing/HungBank";
import type { BoardDocument, Element, Position } from "@/drawing/types";
import { addressOf } from "@/pictures/api";
import { Button } from "@/ui/Button";
import { lacking } from "@/ui/lacking";
import { Loading } from "@/ui/notices";
import { Sheet } from "@/ui/Sheet";
import { useState } from "react";
import { useJobBoard } from "../../api";
import type { StepProps } from "../../stepProps";

type Props = StepProps & { fitting: Schemas["FittingShown"]; names: string[]; drawn?: boolean };

/** What is to be set, large and in groups; then read back without the plan in sight, and compared. */
export function ReadBack({ job, put, fitting, names, drawn = false }: Props) {
  const board = useJobBoard(job, "replacement");
  const [blind, setBlind] = useState<Element | null>(null);
  const [value, setValue] = useState<Position | undefined>();
  const [off, setOff] = useState<string[]>([]);
  if (names.length === 0) return <p className="text-faint">Nothing is set here.</p>;
  if (!board.data) return <Loading what="Drawing the new board" />;
  const document = board.data.document as BoardDocument;
  const elements = board.data.elements.filter((each) => names.includes(each.id));
  // whoever reads blind does not see the plan behind the sheet
  const plan = blind ? {} : fitting.planned;
  const keep = () => {
    if (!blind || value === undefined) return;
    void put({ target: `readback.${blind.id}`, after: { value }, read_how: "by eye" });
    const wanted = fitting.planned[blind.id];
    const found = wanted === undefined || fitting.learned.includes(blind.id) ? [] : setOtherwise(blind, value, wanted);
    setOff(found);
    if (found.length === 0) setBlind(null);
  };
  const open = (element: Element) => {
    setValue(undefined);
    setOff([]);
    setBlind(element);
  };
  const change = (now: Position) => {
    setValue(now);
    setOff([]);
  };
  return (
    <div className={drawn && document.layout ? "grid items-start gap-x-10 gap-y-4 desk:grid-cols-2" : ""}>
      {drawn && document.layout && (
        <BoardDrawing
          name={job.replacement ?? ""}
          document={document}
          elements={board.data.elements}
          positions={plan}
          side="replacement"
          under={addressOf(board.data.under)}
        />
      )}
      <ul className="border-t border-rule">
        {elements.map((element) => {
          const read = job.readbacks[element.id];
          const wrong = fitting.differing.includes(element.id);
          return (
            <li key={element.id} className="flex flex-wrap items-center gap-x-5 gap-y-2 border-b border-rule py-3">
              <span className="w-16 font-mono text-xl font-semibold">{element.id}</span>
              <span className="grow">
                {fitting.learned.includes(element.id) ? (
                  <span className="text-faint">what the learning run finds</span>
                ) : element.kind === "dip" && plan[element.id] !== undefined ? (
                  <HungBank element={element} value={plan[element.id]} side="replacement" />
                ) : (
                  <span className="font-mono text-3xl tracking-wider text-replacement">
                    {inGroups(String(plan[element.id] ?? ""))}
                    {element.unit && <span className="text-base"> {element.unit}</span>}
                  </span>
                )}
              </span>
              <span className={wrong ? "font-semibold" : "text-faint"}>
                {read === undefined
                  ? "not read back"
                  : fitting.learned.includes(element.id)
                    ? `the run found ${asSeen(element, read.value as Position)} (${said(read)})`
                    : wrong
                      ? `reads ${asSeen(element, read.value as Position)}: not as planned`
                      : `reads as planned (${said(read)})`}
              </span>
              {!job.closed && (
                <Button aria-label={`Read it back, blind: ${element.id}`} onClick={() => open(element)}>
                  Read it back, blind
                </Button>
              )}
            </li>
          );
        })}
      </ul>
      <Sheet open={blind !== null} onClose={() => setBlind(null)} title={`${blind?.id ?? ""} as it stands now`}>
        {blind && (
          <div className="flex flex-col gap-4">
            <p>Look at the board, not at the plan. Drawn as it is mounted.</p>
            <ElementEditor element={blind} value={value} side="replacement" unreadable={false} onChange={change} />
            <NotAsPlanned names={off} />
            <Button
              kind="main"
              className="self-start"
              needs={lacking({ "how it reads": value === undefined })}
              onClick={keep}
            >
              Compare with the plan
            </Button>
          </div>
        )}
      </Sheet>
    </div>
  );
}

/** Which switches are not as planned: named, so that the hand goes to the right one. */
export function NotAsPlanned({ names }: { names: string[] }) {
  if (names.length === 0) return null;
  return (
    <p role="alert" className="border-l-4 border-text pl-3 font-semibold">
      Not as planned: {names.join(", ")}. Set {names.length > 1 ? "them" : "it"} on the board, then read it back again.
    </p>
  );
}

function said(read: Record<string, unknown>): string {
  return [read.how, read.by].filter((each) => typeof each === "string").join(", ") || "just now";
}
