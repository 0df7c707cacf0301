import { Button } from "@/ui/Button";
import { TextField } from "@/ui/fields";
import { useState } from "react";

type Props = {
  label: string;
  hint?: string;
  /** The items that the board has a value for, such as its buttons; others are rows of one's own. */
  items: string[];
  /** As it is kept: a line a row, an item and its value with ": " between them. */
  value: string;
  disabled?: boolean;
  onSave: (text: string) => void;
};
type Row = { item: string; value: string };

/** A list, an item and its value a row: those the board has stand there, own rows are added; each is kept when it is left. */
export function RowsField({ label, hint, items, value, disabled = false, onSave }: Props) {
  const [draft, setDraft] = useState<Row[] | null>(null);
  const rows = draft ?? rowsOf(value, items);
  const change = (at: number, more: Partial<Row>) =>
    setDraft(rows.map((row, each) => (each === at ? { ...row, ...more } : row)));
  const keep = (now: Row[]) => {
    const text = textOf(now, items);
    if (text !== value) onSave(text);
    // a row that is just begun stays; all else is as it is kept
    setDraft(now.some(({ item, value: said }) => item.trim() === "" && said.trim() === "") ? now : null);
  };
  return (
    <fieldset className="flex flex-col gap-2" disabled={disabled}>
      <legend className="font-semibold">{label}</legend>
      {hint && <p className="text-sm text-faint">{hint}</p>}
      {rows.map((row, at) => (
        <div
          key={at}
          className="grid grid-cols-[minmax(0,1fr)_minmax(0,1fr)_auto] items-end gap-2"
          onBlur={(event) => !event.currentTarget.contains(event.relatedTarget) && keep(rows)}
        >
          {items.includes(row.item) && at < items.length ? (
            <span className="self-center font-mono">{row.item}</span>
          ) : (
            <TextField
              label={`Item ${at + 1}`}
              maxLength={120}
              value={row.item}
              onChange={(event) => change(at, { item: event.target.value })}
            />
          )}
          <TextField
            label={at < items.length ? `Value of ${row.item}` : `Value ${at + 1}`}
            className="font-mono"
            maxLength={120}
            value={row.value}
            onChange={(event) => change(at, { value: event.target.value })}
          />
          {at >= items.length && (
            <Button
              kind="quiet"
              aria-label={`Take out ${row.item || `row ${at + 1}`}`}
              onClick={() => keep(rows.filter((_, each) => each !== at))}
            >
              Out
            </Button>
          )}
        </div>
      ))}
      <Button className="self-start" onClick={() => setDraft([...rows, { item: "", value: "" }])}>
        One more row
      </Button>
    </fieldset>
  );
}

/** The rows of a list as it is kept: first those that the board has, then others, as they were written. */
export function rowsOf(text: string, items: string[]): Row[] {
  const lines = text
    .split("\n")
    .map((each) => each.trim())
    .filter(Boolean)
    .map((each) => {
      const at = each.indexOf(": ");
      return at < 0 ? { item: each, value: "" } : { item: each.slice(0, at), value: each.slice(at + 2) };
    });
  const own = lines.filter((row) => !items.includes(row.item));
  return [...items.map((item) => lines.find((row) => row.item === item) ?? { item, value: "" }), ...own];
}

/** A list as it is kept; rows without a value of the board's own items are left out. */
export function textOf(rows: Row[], items: string[]): string {
  return rows
    .map(({ item, value }) => ({ item: item.trim(), value: value.trim() }))
    .filter(({ item, value }) => value !== "" || (item !== "" && !items.includes(item)))
    .map(({ item, value }) => (item && value ? `${item}: ${value}` : item || value))
    .join("\n");
}
