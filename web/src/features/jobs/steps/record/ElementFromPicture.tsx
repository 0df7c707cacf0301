import type { Schemas } from "@/api/client";
import { ElementEditor } from "@/drawing/ElementEditor";
import type { Element, Position } from "@/drawing/types";
import { Button } from "@/ui/Button";
import { Choice } from "@/ui/fields";
import { ProblemNotice } from "@/ui/notices";
import { Sheet } from "@/ui/Sheet";
import { useState } from "react";
import { readBank, type Job } from "../../api";
import { Segments } from "@/ui/Segments";
import { shareAt } from "./MarkedPicture";

/** Clockwise from where the first place is seen: of what runs down, the picture is turned so that it runs from left to right. */
const CORNERS = {
  across: ["upper left", "upper right", "lower right", "lower left"],
  down: ["upper right", "lower right", "lower left", "upper left"],
};
type Props = {
  job: Job;
  picture: string;
  elements: Element[];
  onClose: () => void;
  onTake: (element: string, value: Position) => void;
};

/** What is told of the two kinds of element that a picture shows. */
const WORDS = {
  bank: {
    field: "the field of slots",
    each: "slider",
    light: "Light sliders",
    dark: "Dark sliders",
  },
  wheels: { field: "the row of windows, upright", each: "digit", light: "Light digits", dark: "Dark digits" },
};

/** Four corners, then the sliders or digits as they were seen; a person looks at every one before it is taken. */
export function ElementFromPicture({ job, picture, elements, onClose, onTake }: Props) {
  const [element, setElement] = useState(elements[0]?.id ?? "");
  const [sliders, setSliders] = useState("light");
  const [corners, setCorners] = useState<{ x: number; y: number }[]>([]);
  const [seen, setSeen] = useState<Schemas["BankShown"] | null>(null);
  const [value, setValue] = useState<Position | undefined>();
  const [problem, setProblem] = useState<unknown>(null);
  const shown = elements.find((each) => each.id === element);
  const words = shown?.kind === "thumbwheel" ? WORDS.wheels : WORDS.bank;
  const ask = async (points: { x: number; y: number }[], kind: string) => {
    try {
      setProblem(null);
      const read = await readBank(job.id, picture, { element, corners: points, sliders: kind });
      setSeen(read);
      setValue(read.written);
    } catch (error) {
      setProblem(error);
      setCorners([]);
    }
  };
  const tap = (point: { x: number; y: number }) => {
    if (corners.length === 4) return;
    const now = [...corners, point];
    setCorners(now);
    if (now.length === 4) void ask(now, sliders);
  };
  const again = () => (setCorners([]), setSeen(null), setValue(undefined));
  return (
    <Sheet open onClose={onClose} title="Read it from the picture">
      <div className="flex flex-col gap-3">
        <div className="flex flex-wrap items-end gap-4">
          <Choice label="Element" value={element} onChange={(event) => (setElement(event.target.value), again())}>
            {elements.map((each) => (
              <option key={each.id}>{each.id}</option>
            ))}
          </Choice>
          <Segments
            label="Seen are"
            choices={[
              ["light", words.light],
              ["dark", words.dark],
            ]}
            value={sliders}
            onChange={(kind) => {
              setSliders(kind);
              if (corners.length === 4) void ask(corners, kind);
            }}
          />
        </div>
        <p role="status">
          {corners.length < 4
            ? `Tap the ${CORNERS[shown?.hanging.axis ?? "across"][corners.length]} corner of ${words.field}.`
            : `This is what was seen. Look at every ${words.each} before you take it.`}
        </p>
        <div className="relative self-start" onClick={(event) => tap(shareAt(event))}>
          <img
            src={`/api/jobs/${job.id}/pictures/${picture}`}
            alt="The picture"
            className="block max-h-[45vh] max-w-full"
          />
          {corners.map((corner, index) => (
            <span
              key={index}
              aria-hidden="true"
              className="pointer-events-none absolute size-4 -translate-1/2 rounded-full border-2 border-[#fffdf8] bg-[#1d1b19]"
              style={{ left: `${corner.x * 100}%`, top: `${corner.y * 100}%` }}
            />
          ))}
        </div>
        {problem !== null && <ProblemNotice problem={problem} />}
        {seen && shown && (
          <>
            <img
              src={seen.picture}
              alt={`${element}, straightened`}
              className="max-w-full self-start border border-edge"
            />
            <p>
              {seen.sliders
                .map(
                  (each, index) =>
                    `${index + 1}: ${each.mark === "?" ? "cannot tell" : each.mark} (${Math.round(each.confidence * 100)} %)`,
                )
                .join(", ")}
            </p>
            <ElementEditor element={shown} value={value} side="original" onChange={setValue} />
          </>
        )}
        <div className="flex flex-wrap gap-2">
          {seen && (
            <Button kind="main" onClick={() => value !== undefined && onTake(element, value)}>
              I looked: take it
            </Button>
          )}
          {corners.length > 0 && <Button onClick={again}>Set the corners again</Button>}
        </div>
      </div>
    </Sheet>
  );
}
