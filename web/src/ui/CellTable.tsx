import { useEffect, useId, useRef, useState, type ClipboardEvent, type KeyboardEvent } from "react";
import { laidOver, pastedCells } from "./cells";

type Props = {
  label: string;
  headings: string[];
  rows: string[][];
  /** What each cell is called, for whoever does not see the headings. */
  cellLabel: (row: number, column: number) => string;
  /** What is wrong with a cell, or looks so; empty where nothing is. */
  wrong?: (row: number, column: number) => string;
  /** What is wrong with a whole row. */
  wrongRow?: (row: number) => string;
  /** What a column may say, to choose from while typing. */
  options?: (column: number) => string[];
  /** So many first columns only say which row it is. */
  fixed?: number;
  /** Whether rows can be added: an empty one stands at the end. */
  grows?: boolean;
  /** Which state of the whole the rows are of. */
  version: number;
  /** After a pause in typing; `seen` is the version that stood there when it began. */
  onChange: (rows: string[][], seen: number) => void;
};

/** What was typed and when it began; `sent` are the rows that were sent last, upon which version. */
type Held = { rows: string[][]; seen: number; sent: string[][] | undefined; sentUpon: number };

const PAUSE_MS = 600;

/** A table whose cells are typed or pasted into; what is wrong stands under the row, and marks its cell. */
export function CellTable({
  label,
  headings,
  rows,
  cellLabel,
  wrong,
  wrongRow,
  options,
  fixed = 0,
  grows,
  version,
  onChange,
}: Props) {
  const [held, setHeld] = useState<Held | null>(null);
  const [at, setAt] = useState<[row: number, column: number] | null>(null);
  const timer = useRef<ReturnType<typeof setTimeout>>(undefined);
  const frame = useRef<HTMLDivElement>(null);
  const id = useId();
  const width = headings.length;
  // what was typed stands until somebody has left the table and the answer is there
  const mine = held && (at || held.sentUpon === version) ? held.rows : null;
  const shown = [...(mine ?? rows), ...(grows ? [Array<string>(width).fill("")] : [])];

  const send = (next: Held) => {
    clearTimeout(timer.current);
    if (next.sent === next.rows) return;
    setHeld({ ...next, sent: next.rows, sentUpon: version });
    onChange(next.rows, next.seen);
  };
  const lay = (cells: string[][], row: number, column: number) => ({
    rows: laidOver(mine ?? rows, cells, row, column, width, grows ?? false),
    seen: mine && held ? held.seen : version,
    sent: held?.sent,
    sentUpon: version,
  });
  const type = (row: number, column: number, text: string) => {
    const next = lay([[text]], row, column);
    setHeld(next);
    clearTimeout(timer.current);
    timer.current = setTimeout(() => send(next), PAUSE_MS);
  };
  const leave = () => {
    setAt(null);
    if (mine && held) send(held);
  };
  const paste = (event: ClipboardEvent, row: number, column: number) => {
    const cells = pastedCells(event.clipboardData.getData("text/plain"));
    if (cells.length === 1 && cells[0]?.length === 1) return;
    event.preventDefault();
    send(lay(cells, row, column));
  };
  // a page that is left in the middle of a word leaves nothing unsent
  const leaving = useRef(() => {});
  useEffect(() => {
    leaving.current = () => held && send(held);
  });
  useEffect(() => {
    const go = () => leaving.current();
    window.addEventListener("pagehide", go);
    return () => {
      window.removeEventListener("pagehide", go);
      go();
    };
  }, []);
  const goTo = (row: number, column: number) =>
    frame.current?.querySelector<HTMLInputElement>(`[data-cell="${row} ${column}"]`)?.focus();
  const onKey = (event: KeyboardEvent, row: number, column: number) => {
    const down = { Enter: 1, ArrowDown: 1, ArrowUp: -1 }[event.key];
    if (down === undefined || (event.key !== "Enter" && options?.(column).length)) return;
    event.preventDefault();
    goTo(row + down, column);
  };

  return (
    <div ref={frame} className="overflow-x-auto" tabIndex={0} role="region" aria-label={label}>
      <table className="w-full border-t border-rule text-left">
        <thead>
          <tr className="text-sm text-faint">
            {headings.map((heading, column) => (
              <th key={column} scope="col" className="px-1 py-1.5 font-normal">
                {heading}
              </th>
            ))}
          </tr>
        </thead>
        <tbody onBlur={(event) => !event.currentTarget.contains(event.relatedTarget) && leave()}>
          {shown.map((row, down) => {
            const faults = [
              ...headings.map((_, column) => (down < rows.length && wrong ? wrong(down, column) : "")),
              (down < rows.length && wrongRow?.(down)) || "",
            ].filter((each, index, all) => each && all.indexOf(each) === index);
            return (
              <FragmentRow
                key={down}
                cells={headings.map((_, column) =>
                  column < fixed ? (
                    <th key={column} scope="row" className="px-1 py-0.5 font-mono font-normal">
                      {row[column]}
                    </th>
                  ) : (
                    <td key={column} className="p-0.5">
                      <input
                        data-cell={`${down} ${column}`}
                        aria-label={cellLabel(down, column)}
                        aria-invalid={(down < rows.length && !!wrong?.(down, column)) || undefined}
                        aria-describedby={faults.length ? `${id}-${down}` : undefined}
                        list={options && options(column).length ? `${id}-options-${column}` : undefined}
                        spellCheck={false}
                        autoComplete="off"
                        maxLength={2000}
                        value={row[column] ?? ""}
                        onFocus={(event) => {
                          setAt([down, column]);
                          event.currentTarget.select();
                        }}
                        onChange={(event) => type(down, column, event.target.value)}
                        onPaste={(event) => paste(event, down, column)}
                        onKeyDown={(event) => onKey(event, down, column)}
                        className="min-h-11 w-full min-w-16 field-sizing-content rounded-sm border border-edge bg-raised px-2 font-mono aria-invalid:border-2 aria-invalid:border-text"
                      />
                    </td>
                  ),
                )}
                fault={
                  faults.length > 0 && (
                    <td colSpan={width} id={`${id}-${down}`} className="px-1 pb-2 text-sm font-semibold">
                      <span aria-hidden="true">▲ </span>
                      {faults.join("; ")}
                    </td>
                  )
                }
              />
            );
          })}
        </tbody>
      </table>
      {options &&
        headings.map((_, column) => (
          <datalist key={column} id={`${id}-options-${column}`}>
            {options(column).map((each) => (
              <option key={each} value={each} />
            ))}
          </datalist>
        ))}
    </div>
  );
}

function FragmentRow({ cells, fault }: { cells: React.ReactNode[]; fault: React.ReactNode }) {
  return (
    <>
      <tr>{cells}</tr>
      {fault && <tr>{fault}</tr>}
    </>
  );
}
