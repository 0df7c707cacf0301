import { lacking } from "@/ui/lacking";
import { Button } from "@/ui/Button";
import { Choice, TextField } from "@/ui/fields";
import { numberFrom } from "@/ui/numbers";
import { useTypedForm } from "@/ui/typed";
import type { Changing, Draft } from "../api";
import { idFrom, TYPE_WORDS } from "../words";

type Props = { draft: Draft; changing: Changing; onDone: (id: string | null) => void };

const IMPORTANCE = [
  ["behaviour", "what the machine does"],
  ["safety", "safety"],
  ["comfort", "comfort"],
] as const;

/** A function that this kind of machine has and nobody named yet; it belongs to the kind, so that boards can be compared. */
export function AddFunction({ draft, changing, onDone }: Props) {
  const { fields, set, done } = useTypedForm("another function", {
    title: "",
    type: "duration",
    unit: "",
    choices: "",
    importance: "behaviour",
    absent: "",
  });
  const choices = fields.choices
    .split(",")
    .map((each) => each.trim())
    .filter(Boolean);
  const ready = fields.title.trim() && (fields.type !== "choice" || choices.length > 1);
  const keep = () => {
    const id = idFrom(
      fields.title,
      draft.functions.map((each) => each.id),
    );
    const absent = absentOf(fields.type, fields.absent, choices);
    const after = {
      id,
      title: fields.title.trim(),
      type: fields.type,
      importance: fields.importance,
      ...(fields.type === "duration" ? { unit: "s" } : fields.unit.trim() ? { unit: fields.unit.trim() } : {}),
      ...(fields.type === "choice" ? { choices } : {}),
      ...(absent === null ? {} : { if_absent: absent }),
    };
    changing.change(
      { what: "place", body: { path: ["family", "functions", draft.functions.length], after } },
      draft.version,
      () => {
        done();
        onDone(id);
      },
    );
  };
  return (
    <form
      aria-label="Another function"
      className="grid gap-3 border-l-4 border-edge pl-3 sm:grid-cols-2"
      onSubmit={(event) => {
        event.preventDefault();
        if (ready) keep();
      }}
    >
      <TextField
        label="What it is called"
        hint="such as Post-purge, Rinse time, Restart"
        autoFocus
        maxLength={120}
        value={fields.title}
        onChange={(event) => set({ title: event.target.value })}
      />
      <Choice label="It is" value={fields.type} onChange={(event) => set({ type: event.target.value, absent: "" })}>
        {Object.entries(TYPE_WORDS).map(([type, words]) => (
          <option key={type} value={type}>
            {words}
          </option>
        ))}
      </Choice>
      {fields.type === "number" && (
        <TextField
          label="Unit"
          maxLength={12}
          value={fields.unit}
          onChange={(event) => set({ unit: event.target.value })}
        />
      )}
      {fields.type === "choice" && (
        <TextField
          label="What it can be"
          hint="with commas between, the safest first"
          value={fields.choices}
          onChange={(event) => set({ choices: event.target.value })}
        />
      )}
      <Choice
        label="It matters for"
        value={fields.importance}
        onChange={(event) => set({ importance: event.target.value })}
      >
        {IMPORTANCE.map(([value, words]) => (
          <option key={value} value={value}>
            {words}
          </option>
        ))}
      </Choice>
      <TextField
        label="A board without it acts as if it were"
        hint="left empty where such a board cannot be compared"
        value={fields.absent}
        onChange={(event) => set({ absent: event.target.value })}
      />
      <p className="flex gap-3 sm:col-span-2">
        <Button
          kind="main"
          type="submit"
          needs={lacking({
            "what it is called": !fields.title.trim(),
            "two choices": fields.type === "choice" && choices.length < 2,
          })}
        >
          Add it
        </Button>
        <Button kind="quiet" onClick={() => (done(), onDone(null))}>
          Leave it
        </Button>
      </p>
    </form>
  );
}

function absentOf(type: string, text: string, choices: string[]): string | number | boolean | null {
  if (!text.trim()) return null;
  if (type === "flag") return text.trim().toLowerCase() === "yes";
  if (type === "choice") return choices.includes(text.trim()) ? text.trim() : null;
  const number = numberFrom(text);
  return Number.isNaN(number) ? null : number;
}
