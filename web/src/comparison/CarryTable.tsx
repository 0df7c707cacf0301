import type { Schemas } from "@/api/client";
import { InkMark } from "@/ui/inks";
import { isWide } from "@/ui/isWide";
import { ReasonField } from "./ReasonField";

type Row = Schemas["RowShown"];
type Props = {
  rows: Row[];
  /** What each function would be if somebody copied position for position. */
  copied: Record<string, Schemas["SchoolRow"]>;
  reasons?: Record<string, string>;
  onReason?: (id: string, reason: string) => void;
  readOnly?: boolean;
};

/** Each function a row, read from left to right: how the original stands, what it means, what the replacement must be. */
export function CarryTable({ rows, copied, reasons = {}, onReason, readOnly }: Props) {
  const onNeither = rows.filter((row) => !row.on_original && !row.on_replacement);
  const both = rows.filter((row) => !onNeither.includes(row));
  // what is to be looked at stands first; what is alike any way one sets it may be folded where there is little room
  const alike = both.filter(
    (row) => row.verdict === "same" && !row.wanted_by && !row.assumed && !differs(copied[row.id]) && !reasons[row.id],
  );
  const told = both.filter((row) => !alike.includes(row));
  const rowsOf = (list: Row[]) =>
    list.map((row) => (
      <FunctionRow
        key={row.id}
        row={row}
        copied={copied[row.id]}
        reason={reasons[row.id]}
        onReason={onReason}
        readOnly={readOnly}
      />
    ));
  return (
    <div className="border-t border-rule">
      <ul>{rowsOf(told)}</ul>
      {alike.length > 0 && (
        <details open={isWide()}>
          <summary className="min-h-11 py-2 font-semibold">
            {alike.length} {alike.length === 1 ? "function" : "functions"} alike, set either way
          </summary>
          <ul>{rowsOf(alike)}</ul>
        </details>
      )}
      {onNeither.length > 0 && (
        <p className="py-3 text-faint">Neither board has: {onNeither.map((row) => row.title).join(", ")}</p>
      )}
    </div>
  );
}

type RowProps = {
  row: Row;
  copied: Schemas["SchoolRow"] | undefined;
  reason: string | undefined;
  onReason?: (id: string, reason: string) => void;
  readOnly?: boolean;
};

function FunctionRow({ row, copied, reason, onReason, readOnly }: RowProps) {
  return (
    <li id={`row-${row.id}`} tabIndex={-1} className="scroll-mt-24 border-b border-rule py-3">
      <div className="grid grid-cols-[minmax(0,1fr)_minmax(0,1fr)] gap-x-4 gap-y-1 md:grid-cols-[minmax(0,1.1fr)_minmax(0,1.5fr)_minmax(0,1.1fr)_minmax(0,1fr)] md:items-start">
        <Points side="original" points={row.original_points} missing={row.on_original ? "fixed" : "does not have it"} />
        <p className="order-first col-span-2 md:order-none md:col-span-1">
          <strong>{row.title}</strong>
          {row.importance === "safety" && <span className="text-faint"> (safety)</span>}
          <br />
          <Compared row={row} />
        </p>
        <Points
          side="replacement"
          points={row.replacement_points}
          missing={row.on_replacement ? "fixed" : row.verdict === "not known" ? "not known" : "does not have it"}
        />
        <p className="col-span-2 text-[0.92rem] text-faint md:col-span-1">
          {copied && (
            <>
              If copied: {copied?.value}
              {differs(copied) && <strong className="block text-text">{copied?.difference}</strong>}
            </>
          )}
        </p>
      </div>
      {onReason && !row.met && (
        <ReasonField
          label={
            row.verdict === "open"
              ? `Why go on with ${row.title} open?`
              : `Why go on with ${row.title} ${row.difference}?`
          }
          value={reason ?? ""}
          disabled={readOnly}
          onSave={(text) => onReason(row.id, text)}
        />
      )}
      {!onReason && reason && <p className="mt-1">Reason: {reason}</p>}
    </li>
  );
}

/** Whether copying would make a function something else than what is wanted. */
export function differs(row: Schemas["SchoolRow"] | undefined): boolean {
  return row !== undefined && row.difference !== "" && row.value !== "open";
}

function Points({
  side,
  points,
  missing,
}: {
  side: "original" | "replacement";
  points: Schemas["PointShown"][];
  missing: string;
}) {
  if (points.length === 0) return <p className="text-faint">{missing}</p>;
  return (
    <p className="flex flex-wrap content-start items-start gap-1">
      {points.map((point) => (
        <InkMark key={point.point} side={side}>
          {point.point} {point.value}
        </InkMark>
      ))}
    </p>
  );
}

function Compared({ row }: { row: Row }) {
  if (row.verdict === "same" && !row.wanted_by)
    return (
      <span>
        {row.found} on both, in register{row.assumed && ", if the old board was set as assumed"}
      </span>
    );
  const word = {
    same: "in register",
    "within tolerance": "within tolerance",
    off: "off register",
    "as wanted": "as wanted",
    open: "open",
    "not on this board": "not on this board",
    "not known": "not known on the new board",
    "does not matter": "does not matter as the old board is set",
    "only on the new board": "only on the new board",
  }[row.verdict];
  return (
    <span>
      <span className="text-original">
        {row.found}
        {row.assumed && " (assumed)"}
      </span>
      {row.verdict !== "open" && row.verdict !== "not known" && (
        <>
          {" → "}
          <span className="text-replacement">{row.got}</span>
        </>
      )}
      <strong className="block">
        {word}
        {row.difference && row.difference !== row.verdict && `: ${row.difference}`}
      </strong>
      {row.wanted_by && (
        <span className="block">
          Wanted: {row.wanted} ({row.wanted_by}){row.met ? ", met" : ", not met"}
        </span>
      )}
      {row.tolerance && row.verdict !== "open" && row.verdict !== "not known" && (
        <span className="block text-sm text-faint">{row.tolerance}</span>
      )}
    </span>
  );
}
