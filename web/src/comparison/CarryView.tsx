import type { Schemas } from "@/api/client";
import { Link } from "@tanstack/react-router";
import { ElementEditor } from "@/drawing/ElementEditor";
import { asSeen } from "@/drawing/hanging";
import type { Position, Positions } from "@/drawing/types";
import { Button } from "@/ui/Button";
import { InkMark } from "@/ui/inks";
import { Sheet } from "@/ui/Sheet";
import { useState } from "react";
import { CarryTable, differs } from "./CarryTable";
import { SetPositions } from "./SetPositions";
import { Standing, type Board } from "./Standing";
import { ProofPanel } from "./ProofPanel";

type Props = {
  comparison: Schemas["ComparisonShown"];
  original: Board;
  replacement: Board;
  overrides: Positions;
  /** Elements set otherwise by hand; null goes back to the best. */
  onOverride?: (changes: Record<string, Position | null>) => void;
  reasons?: Record<string, string>;
  onReason?: (id: string, reason: string) => void;
  /** Whether to tell what copying would do; a job shows that among the schools. */
  copying?: boolean;
};

/** Both banks drawn large, then every function, then what copying place for place would have done. */
export function CarryView({
  comparison,
  original,
  replacement,
  overrides,
  onOverride,
  reasons,
  onReason,
  copying = true,
}: Props) {
  const [editing, setEditing] = useState<string | null>(null);
  const element = replacement.elements.find((each) => each.id === editing);
  const changed = Object.keys(overrides);
  // a serial or a model has no best: what it must be stands on the plate
  const better = changed.filter((name) => replacement.elements.find((each) => each.id === name)?.kind !== "code");
  const school = comparison.schools.find((each) => each.id === "positions");
  const copied = Object.fromEntries((school?.functions ?? []).map((row) => [row.id, row]));
  return (
    <div className="flex flex-col gap-5">
      <div className="grid gap-5 md:grid-cols-2">
        <Standing side="original" title="Stood on the original" board={original} positions={comparison.found} />
        <Standing
          side="replacement"
          title="Set on the replacement"
          board={replacement}
          positions={comparison.plan ?? overrides}
          overrides={overrides}
          onEdit={onOverride ? setEditing : undefined}
        />
      </div>
      {!comparison.meanings_known && (
        <p role="status" className="border-l-4 border-text pl-3">
          <strong>Nobody wrote down what the positions of {replacement.part_number} mean.</strong>{" "}
          {comparison.plan
            ? comparison.proposed === "table"
              ? "It is set by its leaflet’s row; whether the machine then does the same shows only at the machine."
              : "It is set as the old one stood; whether the machine then does the same shows only at the machine."
            : "Answer below what its leaflet asks, follow one of the schools, or set every position by hand; then somebody answers for it with a reason."}{" "}
          Who knows what some of them mean says it below for this job, or for every job{" "}
          <Link to="/workshop" search={{ take: replacement.part_number }}>
            in the workshop
          </Link>
          .
        </p>
      )}
      {comparison.plan === null && comparison.meanings_known && (
        <p role="alert" className="border-l-4 border-text bg-raised px-4 py-3">
          <strong>Every choice is reserved.</strong> No position of {replacement.part_number} gives these functions a
          meaning: {comparison.why.join(", ")}.
        </p>
      )}
      {changed.length > 0 && (
        <div className="flex flex-wrap items-center gap-3">
          <p>
            Set otherwise by hand: {changed.join(", ")}.{better.length > 0 && " Best would be "}
            {better.map((name) => (
              <InkMark key={name} side="replacement">
                {name} {stands(replacement, name, comparison.best?.[name])}
              </InkMark>
            ))}
          </p>
          {onOverride && (
            <Button onClick={() => onOverride(Object.fromEntries(changed.map((name) => [name, null])))}>
              Back to the best
            </Button>
          )}
        </div>
      )}
      <Summary comparison={comparison} />
      <CarryTable rows={comparison.rows} copied={copied} reasons={reasons} onReason={onReason} />
      {comparison.extras.length > 0 && (
        <p>
          Only on the replacement: {comparison.extras.map((extra) => `${extra.title}, ${extra.value}`).join("; ")}.
          Nobody said what it should be.
        </p>
      )}
      {copying && school && <Copying comparison={comparison} school={school} board={replacement} />}
      {element && onOverride && (
        <Sheet open onClose={() => setEditing(null)} title={`Set ${element.id} on ${replacement.part_number}`}>
          <ElementEditor
            element={element}
            value={comparison.plan?.[element.id]}
            side="replacement"
            unreadable={false}
            onChange={(value) => onOverride({ [element.id]: value === comparison.best?.[element.id] ? null : value })}
          />
          <div className="mt-4">
            <Summary comparison={comparison} />
          </div>
        </Sheet>
      )}
    </div>
  );
}

/** A position of one element as the eye meets it on its board. */
function stands(board: Board, name: string, value: Position | undefined): string {
  const element = board.elements.find((each) => each.id === name);
  if (value === undefined) return "–";
  return element ? asSeen(element, value) : String(value);
}

/** What is to be said where nothing is off: of how many functions that is known. */
function allAlike(rows: Schemas["RowShown"][]): string {
  const told = ["not known", "does not matter"];
  const known = rows.filter((row) => !told.includes(row.verdict) && (row.on_original || row.on_replacement));
  if (known.length === 0) return "What its positions mean is not known";
  return known.length === 1 ? "The one function that is known is alike" : `All ${known.length} functions alike`;
}

function Summary({ comparison }: { comparison: Schemas["ComparisonShown"] }) {
  const { safety_misses: safety, other_misses: other, rows } = comparison;
  const open = rows.filter((row) => row.verdict === "open").length;
  const wished = rows.filter((row) => row.verdict === "as wanted").length;
  const parts = [
    safety ? `${safety} safety function${safety > 1 ? "s" : ""} off register` : "",
    other ? `${other} other function${other > 1 ? "s" : ""} off register` : "",
    open ? `${open} open` : "",
    wished ? `${wished} otherwise, as the owner wants` : "",
  ].filter(Boolean);
  return (
    <p className="text-lg font-semibold" role="status">
      {parts.length ? parts.join(", ") : allAlike(rows)}
      <span className="font-normal text-faint">
        {" "}
        · {comparison.moved} position{comparison.moved === 1 ? "" : "s"} moved from factory
        {!comparison.proved && " · best setting found in time; there may be a better one"}
      </span>
    </p>
  );
}

type CopyingProps = { comparison: Schemas["ComparisonShown"]; school: Schemas["SchoolShown"]; board: Board };

function Copying({ comparison, school, board }: CopyingProps) {
  const wrong = school.functions.filter(differs);
  const rows = Object.fromEntries(comparison.rows.map((row) => [row.id, row]));
  const open = school.proof?.verdict === "open";
  return (
    <section className="border-t border-rule pt-3">
      <h3>If somebody set it place for place as the old one stood</h3>
      <p className="my-2">
        <SetPositions board={board} positions={school.positions ?? {}} />
      </p>
      {comparison.same_layout && <p>Both boards share one settings layout: copying is right here.</p>}
      {open && <p>What it would mean is open, for not every position was read.</p>}
      {wrong.length === 0 && !comparison.same_layout && !open && (
        <p>It would mean the same here, by luck of these positions.</p>
      )}
      {wrong.length > 0 && (
        <ul className="list-disc pl-5">
          {wrong.map((row) => (
            <li key={row.id}>
              {rows[row.id]?.title}: <strong>{row.difference}</strong>
              {!row.difference.includes(row.value) && ` (${row.value} instead of ${rows[row.id]?.found})`}
            </li>
          ))}
        </ul>
      )}
      {school.says.map((line) => (
        <p key={line}>{line}</p>
      ))}
      {school.proof && (
        <details className="mt-2">
          <summary className="min-h-11 py-2 font-semibold">What the machine would then do</summary>
          <ProofPanel proof={school.proof} />
        </details>
      )}
    </section>
  );
}
