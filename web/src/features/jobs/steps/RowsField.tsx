import { Button } from "@/ui/Button";
import { TextField } from "@/ui/fields";
import { useTypedAs } from "@/ui/typed";

type Props = {
  label: string;
  hint?: string;
  /** The items that the board has a value for, such as its buttons; others are rows of one's own. */
  items: string[];
  /** As it is kept: a line a row, an item and its value with ": " between them. */
  value: string;
  /** As the server has it, where that is known: what is said there is saved. */
  saved?: string;
  disabled?: boolean;
  onSave: (text: string) => void;
};
type Row = { item: string; value: string };

/** A list, an item and its value a row: those the board has stand there, own rows are added; each is kept when it is left. */
export function RowsField({ label, hint, items, value, saved = value, disabled = false, onSave }: Props) {
  const typed = useTypedAs<Row[]>(value, label, {
    read: (text) => rowsOf(text, items),
    write: (rows) => textOf(rows, items),
  });
  const rows = typed.shown;
  const atServer = textOf(rowsOf(saved, items), items).split("\n");
  const change = (at: number, more: Partial<Row>) =>
    typed.type(rows.map((row, each) => (each === at ? { ...row, ...more } : row)));
  const keep = (now: Row[]) => {
    const text = textOf(now, items);
    // a row that is just begun says nothing yet
    if (text === value && !typed.dirty) return typed.type(now);
    typed.saved(now);
    if (text !== value) onSave(text);
  };
  return (
    <fieldset className="flex flex-col gap-2" disabled={disabled}>
      <legend className="font-semibold">{label}</legend>
      {hint && <p className="text-sm text-faint">{hint}</p>}
      {rows.map((row, at) => (
        <div
          key={at}
          className="grid grid-cols-[minmax(0,1fr)_minmax(0,1fr)_auto] items-end gap-2"
          onBlur={(event) => typed.dirty && !event.currentTarget.contains(event.relatedTarget) && keep(rows)}
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
          {lineOf(row, items) !== "" && (
            <span className="col-span-2 text-sm text-faint">
              {atServer.includes(lineOf(row, items)) ? "✓ saved" : "not saved yet"}
            </span>
          )}
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
      <Button className="self-start" onClick={() => typed.type([...rows, { item: "", value: "" }])}>
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
    .map((row) => lineOf(row, items))
    .filter(Boolean)
    .join("\n");
}

/** A row as it is kept; empty where it says nothing. */
function lineOf(row: Row, items: string[]): string {
  const [item, value] = [row.item.trim(), row.value.trim()];
  if (value === "" && (item === "" || items.includes(item))) return "";
  return item && value ? `${item}: ${value}` : item || value;
}
