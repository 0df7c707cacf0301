import { lacking } from "@/ui/lacking";
import { Button } from "@/ui/Button";
import { CellTable } from "@/ui/CellTable";
import { Choice, NumberField } from "@/ui/fields";
import { numberFrom } from "@/ui/numbers";
import { Segments } from "@/ui/Segments";
import { useState } from "react";
import { saidAt, type Changing, type Draft, type DraftFunction } from "../api";

type Props = { draft: Draft; changing: Changing; given: DraftFunction };
type How = "by" | "always" | "reads";

const MOST_ROWS = 256;

/** One function's meaning: always the same, by positions (a cell for each combination), or read as a number. */
export function Grid({ draft, changing, given }: Props) {
  const [how, setHow] = useState<How>(given.reads ? "reads" : given.said && !given.points.length ? "always" : "by");
  const put = (body: object, seen?: number) =>
    changing.change(
      { what: "meaning", body: { function: given.id, points: [], cells: [], reads: "", scale: 1, offset: 0, ...body } },
      seen,
    );
  const numeric = !["choice", "flag"].includes(given.type);
  const notes = [saidAt(draft, `functions.${given.id}`), saidAt(draft, `functions.${given.id}.from`), ...given.notes];
  return (
    <div className="flex flex-col gap-3">
      <Segments
        label={`${given.title} is`}
        choices={[
          ["by", "set by positions"],
          ["always", "always the same"],
          ...(numeric || given.type === "choice" ? [["reads", "read from one"] as const] : []),
        ]}
        value={how}
        onChange={setHow}
      />
      {how === "always" && (
        <CellTable
          label={`${given.title}, always`}
          headings={[given.title + unit(given)]}
          rows={[[given.points.length ? "" : (given.cells[0]?.text ?? "")]]}
          cellLabel={() => `${given.title} is always`}
          wrong={() => given.cells[0]?.wrong ?? ""}
          options={() => optionsOf(given)}
          version={draft.version}
          onChange={(rows, seen) => put({ cells: [rows[0]?.[0] ?? ""] }, seen)}
        />
      )}
      {how === "by" && <ByPositions draft={draft} given={given} put={put} />}
      {how === "reads" && <Reads draft={draft} given={given} put={put} />}
      {notes.filter(Boolean).map((note) => (
        <p key={note} className="text-sm">
          {note}.
        </p>
      ))}
      {given.said && (
        <Button
          kind="quiet"
          className="self-start"
          onClick={() =>
            changing.change({ what: "place", body: { path: ["board", "functions", given.id], after: null } })
          }
        >
          This board does not have it
        </Button>
      )}
    </div>
  );
}

type Inner = { draft: Draft; given: DraftFunction; put: (body: object, seen?: number) => void };

function ByPositions({ draft, given, put }: Inner) {
  const [chosen, setChosen] = useState<string[] | null>(null);
  const points = chosen ?? given.points;
  const said = given.points.join() === points.join();
  const count = points.reduce((product, id) => product * (draft.points.find((p) => p.id === id)?.positions ?? 1), 1);
  const flip = (id: string) =>
    setChosen(
      draft.points.map((p) => p.id).filter((each) => (each === id ? !points.includes(id) : points.includes(each))),
    );
  // a grid that is not there yet has the same rows, made of the positions: it is one table from the first cell on
  const rows = said
    ? given.cells.map((each) => [...each.at, each.text])
    : count <= MOST_ROWS
      ? combinations(points.map((id) => positionsOf(draft, id))).map((row) => [...row, ""])
      : [];
  if (given.too_large) return <p>This meaning hangs on too many positions for a grid. Its file has it.</p>;
  return (
    <>
      <fieldset className="flex flex-wrap gap-1.5">
        <legend className="mb-1 text-sm text-faint">The positions that matter</legend>
        {draft.points
          .filter((each) => each.positions <= 64)
          .map((each) => (
            <button
              key={each.id}
              type="button"
              role="checkbox"
              aria-checked={points.includes(each.id)}
              onClick={() => flip(each.id)}
              className={`min-h-11 min-w-11 border px-2 font-mono ${points.includes(each.id) ? "border-text bg-both font-semibold text-ground" : "border-edge bg-raised"}`}
            >
              {each.id}
            </button>
          ))}
      </fieldset>
      {count > MOST_ROWS ? (
        <p>That makes {count} combinations. Take fewer, or read a number from one.</p>
      ) : (
        points.length > 0 && (
          <>
            <Filled given={given} points={points} put={put} />
            <CellTable
              key={points.join()}
              label={`${given.title} by ${points.join(", ")}`}
              headings={[...points, given.title + unit(given)]}
              fixed={points.length}
              rows={rows}
              cellLabel={(row) =>
                `${given.title} with ${points.map((p, i) => `${p} ${rows[row]?.[i] ?? ""}`).join(", ")}`
              }
              wrong={(row, column) => (said && column === points.length ? (given.cells[row]?.wrong ?? "") : "")}
              options={(column) => (column === points.length ? optionsOf(given) : [])}
              version={draft.version}
              onChange={(typed, seen) => put({ points, cells: typed.map((row) => row[points.length] ?? "") }, seen)}
            />
          </>
        )
      )}
    </>
  );
}

function Filled({ given, points, put }: Pick<Inner, "given" | "put"> & { points: string[] }) {
  const [start, setStart] = useState("");
  const [step, setStep] = useState("");
  const read = [numberFrom(start), numberFrom(step)] as const;
  if (["choice", "flag"].includes(given.type)) return null;
  return (
    <details>
      <summary className="min-h-11 py-2.5 text-sm">Fill by a rule</summary>
      <div className="flex flex-wrap items-end gap-3 pb-2">
        <NumberField label="From" value={start} onType={setStart} />
        <NumberField label="Each step" value={step} onType={setStep} />
        <Button needs={lacking({ "two numbers": read.some(Number.isNaN) })} onClick={() => put({ points, fill: read })}>
          Fill
        </Button>
      </div>
    </details>
  );
}

function Reads({ draft, given, put }: Inner) {
  const [scale, setScale] = useState(String(given.scale));
  const [offset, setOffset] = useState(String(given.offset));
  const [from, setFrom] = useState(given.reads);
  const numbers = { scale: numberFrom(scale), offset: numberFrom(offset) };
  return (
    <div className="flex flex-wrap items-end gap-3">
      <div className="w-44">
        <Choice label="Read from" value={from} onChange={(event) => setFrom(event.target.value)}>
          <option value=""></option>
          {draft.points.map((each) => (
            <option key={each.id} value={each.id}>
              {each.id}
            </option>
          ))}
        </Choice>
      </div>
      {given.type !== "choice" && (
        <>
          <NumberField label="times" value={scale} onType={setScale} />
          <NumberField label="plus" value={offset} onType={setOffset} />
        </>
      )}
      <Button
        kind="main"
        needs={lacking({
          "where it is read from": !from,
          "two numbers": Number.isNaN(numbers.scale + numbers.offset),
        })}
        onClick={() => put({ reads: from, ...numbers })}
      >
        Keep
      </Button>
    </div>
  );
}

const unit = (given: DraftFunction) => (given.unit ? `, ${given.unit}` : given.type === "duration" ? ", s" : "");

function optionsOf(given: DraftFunction): string[] {
  return given.type === "flag" ? ["yes", "no"] : given.choices;
}

function positionsOf(draft: Draft, id: string): string[] {
  const element = draft.elements.find((each) => each.points.includes(id));
  if (!element) return [];
  if (element.range) {
    const { low, high, step } = element.range;
    return Array.from({ length: Math.floor((high - low) / (step || 1)) + 1 }, (_, index) => String(low + step * index));
  }
  return element.values.map(String);
}

function combinations(lists: string[][]): string[][] {
  return lists.reduce<string[][]>((rows, list) => rows.flatMap((row) => list.map((each) => [...row, each])), [[]]);
}
