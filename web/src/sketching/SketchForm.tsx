import type { Schemas } from "@/api/client";
import { BoardDrawing } from "@/drawing/BoardDrawing";
import { factorySettings, type BoardDocument } from "@/drawing/types";
import { Button } from "@/ui/Button";
import { lacking } from "@/ui/lacking";
import { Choice, TextArea, TextField } from "@/ui/fields";
import { ProblemNotice } from "@/ui/notices";
import { useState } from "react";
import { AddThing } from "./AddThing";
import { SketchPicture } from "./SketchPicture";
import { atPlace, withLine, withoutLast, withShape, type Place } from "./lines";
import { useSketch, type SketchStart } from "./useSketch";

type Props = {
  start: SketchStart;
  families: { id: string; title: string }[];
  onKept: (board: Schemas["BoardCard"]) => void;
};

/** A board that nobody entered, put down as it is seen: tapped or typed, drawn as it grows, and read back in words. */
export function SketchForm({ start, families, onKept }: Props) {
  const { fields, set, read, readBack, keep, picture, setPicture } = useSketch(start);
  const [at, setAt] = useState<Place | null>(null);
  const drawn = read.data;
  const misread = drawn?.misread ?? [];
  const begun = fields.lines.trim() !== "";
  return (
    <div className="flex flex-col gap-5">
      <div className="grid gap-3 sm:grid-cols-2">
        <TextField
          label="Marking on the board"
          hint="left empty where it bears none"
          className="font-mono"
          maxLength={80}
          value={fields.part_number}
          onChange={(event) => set({ part_number: event.target.value })}
        />
        <TextField
          label="Maker, where it is known"
          maxLength={80}
          value={fields.maker}
          onChange={(event) => set({ maker: event.target.value })}
        />
        <Choice
          label="Kind of machine"
          value={fields.family ?? ""}
          onChange={(event) => set({ family: event.target.value || null })}
        >
          <option value="">another kind, named here</option>
          {families.map((family) => (
            <option key={family.id} value={family.id}>
              {family.title}
            </option>
          ))}
        </Choice>
        {!fields.family && (
          <TextField
            label="What kind it is"
            hint="such as tray washer"
            maxLength={200}
            value={fields.kind}
            onChange={(event) => set({ kind: event.target.value })}
          />
        )}
      </div>
      <SketchPicture
        picture={picture}
        places={drawn?.places ?? []}
        at={at}
        onPicture={(taken, shape) => {
          if (picture) URL.revokeObjectURL(picture.url);
          setPicture(taken);
          setAt(null);
          set({ lines: withShape(fields.lines, shape) });
        }}
        onTap={setAt}
      />
      <AddThing
        lines={fields.lines}
        onAdd={(line) => {
          set({ lines: withLine(fields.lines, atPlace(line, at)) });
          setAt(null);
        }}
      />
      <div className="grid gap-4 sm:grid-cols-2">
        <div className="flex flex-col gap-2">
          <TextArea
            label="The sketch in lines"
            hint="one thing a line; it may be typed as well"
            className="font-mono"
            rows={6}
            spellCheck={false}
            maxLength={20000}
            value={fields.lines}
            onChange={(event) => set({ lines: event.target.value })}
          />
          {misread.map((each) => (
            <p key={each.line} role="alert" className="font-semibold">
              Line {each.line}: expected {each.expected}.
            </p>
          ))}
          {begun && (
            <Button kind="quiet" className="self-start" onClick={() => set({ lines: withoutLast(fields.lines) })}>
              Take the last one back
            </Button>
          )}
        </div>
        {drawn && (
          <BoardDrawing
            name="The sketch"
            document={drawn.document as BoardDocument}
            elements={drawn.elements}
            positions={factorySettings(drawn.elements)}
            side="original"
            under={picture?.url}
          />
        )}
      </div>
      {begun && drawn && drawn.words.length > 0 && (
        <ul aria-label="Read back" className="list-disc pl-5">
          {drawn.words.map((words) => (
            <li key={words}>{words}</li>
          ))}
        </ul>
      )}
      <p className="text-sm text-faint">
        A sketch says what can be set and plugged, not what it means. It belongs to this depot; the parts lead completes
        it.
      </p>
      <ProblemNotice problem={keep.error} />
      <Button
        kind="main"
        className="self-start"
        // what is kept was read back first, and the drawing that comes does not push the button from under the hand
        needs={lacking({
          "what can be set or plugged": !begun,
          "mend the lines that could not be read": misread.length > 0,
        })}
        disabled={(begun && misread.length === 0 && !readBack) || keep.isPending}
        onClick={() => keep.mutate(undefined, { onSuccess: onKept })}
      >
        Keep the sketch
      </Button>
    </div>
  );
}
