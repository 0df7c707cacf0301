import type { Schemas } from "@/api/client";
import { Button } from "@/ui/Button";
import { Choice, TextField } from "@/ui/fields";
import { Segments } from "@/ui/Segments";
import type { Side } from "@/ui/inks";
import { useKeptState } from "@/ui/typed";
import { useState } from "react";
import { functionName, MOST_CELLS, MOST_POINTS, waysOf, type Point } from "./saying";

export type Sides = Partial<Record<Side, { partNumber: string; points: Point[] }>>;
export type Named = { id: string; title: string; type: string; unit?: string };
type Said = Omit<Schemas["MeaningSaid"], "values"> & { values: string[] };
type Props = { sides: Sides; functions: Named[]; onSay: (target: string, said: Said) => Promise<unknown> };

const TYPES: [Said["type"], string][] = [
  ["duration", "a time"],
  ["number", "a number"],
  ["flag", "yes or no"],
  ["choice", "one of several"],
];
const WORDS: Record<Side, string> = { original: "Old board", replacement: "New board" };

/** Somebody knows what places of a board decide: which places, what, and the value at each way they may stand. */
export function SayMeaning({ sides, functions, onSay }: Props) {
  const open = (Object.keys(WORDS) as Side[]).filter((each) => sides[each]?.points.length);
  const [side, setSide] = useState<Side>(open[0] ?? "original");
  const [picked, setPicked] = useState<string[]>([]);
  const [chosen, setChosen] = useState("");
  const [title, setTitle] = useKeptState("meaning title", "");
  const [type, setType] = useState<Said["type"]>("duration");
  const [unit, setUnit] = useKeptState("meaning unit", "");
  const [values, setValues] = useState<Record<string, string>>({});
  const board = sides[side];
  if (!board) return null;
  const points = board.points.filter((each) => picked.includes(each.id));
  const ways = points.length ? waysOf(points) : [];
  const known = functions.find((each) => each.id === chosen);
  const named = known?.title ?? title.trim();
  const keyOf = (way: (string | number)[]) => way.join(" ");
  const ready = named && ways.length > 0 && ways.some((way) => values[keyOf(way)]?.trim());
  const say = async () => {
    await onSay(`meaning.${side}/${known?.id ?? functionName(named)}`, {
      of: board.partNumber,
      title: named,
      type: (known?.type as Said["type"] | undefined) ?? type,
      ...((known?.unit ?? unit) ? { unit: known?.unit ?? unit } : {}),
      points: points.map((each) => each.id),
      values: ways.map((way) => values[keyOf(way)]?.trim() ?? ""),
    });
    setPicked([]);
    setValues({});
    setTitle("");
    setUnit("");
  };
  return (
    <form
      aria-label="What positions mean"
      className="flex flex-col gap-3"
      onSubmit={(event) => {
        event.preventDefault();
        if (ready) void say();
      }}
    >
      {open.length > 1 && (
        <Segments
          label="Which board"
          choices={open.map((each) => [each, `${WORDS[each]} ${sides[each]?.partNumber ?? ""}`] as const)}
          value={side}
          onChange={(now) => {
            setSide(now);
            setPicked([]);
          }}
        />
      )}
      <div role="group" aria-label="Places that decide it" className="flex flex-wrap gap-2">
        {board.points.map((each) => {
          const on = picked.includes(each.id);
          const next = on ? picked.filter((id) => id !== each.id) : [...picked, each.id];
          const cells = waysOf(board.points.filter((point) => next.includes(point.id))).length;
          return (
            <Button
              key={each.id}
              aria-pressed={on}
              className={`font-mono ${on ? "border-2 border-text" : ""}`}
              disabled={!on && (picked.length >= MOST_POINTS || cells > MOST_CELLS)}
              onClick={() => setPicked(next)}
            >
              {each.id}
            </Button>
          );
        })}
      </div>
      <div className="grid gap-3 sm:grid-cols-3">
        <Choice label="What they decide" value={chosen} onChange={(event) => setChosen(event.target.value)}>
          <option value="">something named here</option>
          {functions.map((each) => (
            <option key={each.id} value={each.id}>
              {each.title}
            </option>
          ))}
        </Choice>
        {!known && (
          <>
            <TextField
              label="What it is called"
              hint="such as drain time"
              maxLength={80}
              value={title}
              onChange={(event) => setTitle(event.target.value)}
            />
            <Choice label="It is" value={type} onChange={(event) => setType(event.target.value as Said["type"])}>
              {TYPES.map(([value, words]) => (
                <option key={value} value={value}>
                  {words}
                </option>
              ))}
            </Choice>
            {type === "number" && (
              <TextField
                label="Unit"
                maxLength={12}
                value={unit}
                onChange={(event) => setUnit(event.target.value.trim())}
              />
            )}
          </>
        )}
      </div>
      {ways.length > 0 && (
        <div className="grid grid-cols-2 gap-3 sm:grid-cols-4">
          {ways.map((way) => (
            <TextField
              key={keyOf(way)}
              label={way.map((each, at) => `${points[at]?.id ?? ""} ${each}`).join(", ")}
              className="font-mono"
              maxLength={80}
              value={values[keyOf(way)] ?? ""}
              onChange={(event) => setValues({ ...values, [keyOf(way)]: event.target.value })}
            />
          ))}
        </div>
      )}
      <Button kind="main" type="submit" className="self-start" disabled={!ready}>
        That is what it means
      </Button>
    </form>
  );
}
