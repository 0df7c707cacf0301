import { CellTable } from "@/ui/CellTable";
import { Button } from "@/ui/Button";
import { lacking } from "@/ui/lacking";
import { Choice, TextField } from "@/ui/fields";
import { isTypedAt, useTypedForm } from "@/ui/typed";
import { useState } from "react";
import { saidAt, type Changing, type Draft } from "../api";
import { idFrom } from "../words";
import { Borrow } from "./Borrow";
import { Source } from "./Source";
import type { PartProps } from "./types";

/** What the pins of every plug are: typed, pasted as columns, or as on another board. */
export function PlugsPart({ draft, changing, onMark }: PartProps) {
  const titles = Object.fromEntries(draft.signals.map((each) => [each.id, each.title]));
  const named = draft.signals.map((each) => each.title);
  return (
    <section aria-label="Plugs" className="flex flex-col gap-4">
      <p className="text-faint">
        Which signal each pin carries. Signals may be written by name; they belong to the kind of machine.
      </p>
      {draft.plugs.length > 0 && <Source draft={draft} changing={changing} part="connectors" />}
      {draft.plugs.length === 0 && <p>This board has no plug yet.</p>}
      {draft.plugs.map((plug, index) => (
        <section
          key={plug.id}
          aria-label={`Plug ${plug.id}`}
          className="flex flex-col gap-2"
          onFocus={() => onMark(plug.id)}
        >
          <h3>
            <span className="font-mono">{plug.id}</span>{" "}
            <span className="font-normal text-faint">
              {plug.pins.length} pins{plug.keyed === true ? ", keyed" : plug.keyed === false ? ", not keyed" : ""}
            </span>
          </h3>
          <CellTable
            label={`Pins of ${plug.id}`}
            headings={["Pin", "Printed", "Signal"]}
            rows={plug.pins.map((each) => [each.pin, each.mark, titles[each.signal] ?? each.signal])}
            grows
            cellLabel={(row, column) =>
              `${plug.id}, pin ${plug.pins[row]?.pin ?? "new"}: ${["number", "printed", "signal"][column] ?? ""}`
            }
            wrong={(row, column) => (column === 2 ? saidAt(draft, `connectors[${index}].pins[${row}].signal`) : "")}
            options={(column) => (column === 2 ? named : [])}
            version={draft.version}
            onChange={(rows, seen) => changing.change({ what: "pins", body: { index, rows } }, seen)}
          />
        </section>
      ))}
      <div className="flex flex-wrap gap-3">
        <AddSignal draft={draft} changing={changing} />
        <Borrow draft={draft} changing={changing} part="connectors" words="The same plugs as on another board" />
      </div>
    </section>
  );
}

const KINDS = ["output", "input", "supply", "earth", "bus", "other"];
const VOLTS = ["mains", "24ac", "24dc", "12dc", "5dc", "dry", "bus", "sensor", "spark", "earth"];

/** A signal that this kind of machine has and nobody named yet. */
function AddSignal({ draft, changing }: { draft: Draft; changing: Changing }) {
  const [open, setOpen] = useState(() => isTypedAt("another signal"));
  const { fields, set, done } = useTypedForm("another signal", { title: "", kind: "output", volts: "mains" });
  if (!open) return <Button onClick={() => setOpen(true)}>Another signal</Button>;
  const leave = () => {
    done();
    setOpen(false);
  };
  const keep = () => {
    const id = idFrom(
      fields.title,
      draft.signals.map((each) => each.id),
    );
    const after = { id, title: fields.title.trim(), kind: fields.kind, volts_class: fields.volts, optional: true };
    changing.change(
      { what: "place", body: { path: ["family", "signals", draft.signals.length], after } },
      draft.version,
      leave,
    );
  };
  return (
    <form
      aria-label="Another signal"
      className="flex w-full flex-wrap items-end gap-3 border-l-4 border-edge pl-3"
      onSubmit={(event) => {
        event.preventDefault();
        keep();
      }}
    >
      <div className="w-52">
        <TextField
          label="What it is called"
          autoFocus
          maxLength={120}
          value={fields.title}
          onChange={(event) => set({ title: event.target.value })}
        />
      </div>
      <Choice label="It is" value={fields.kind} onChange={(event) => set({ kind: event.target.value })}>
        {KINDS.map((each) => (
          <option key={each}>{each}</option>
        ))}
      </Choice>
      <Choice label="Voltage" value={fields.volts} onChange={(event) => set({ volts: event.target.value })}>
        {VOLTS.map((each) => (
          <option key={each}>{each}</option>
        ))}
      </Choice>
      <Button kind="main" type="submit" needs={lacking({ "what it carries": !fields.title.trim() })}>
        Add it
      </Button>
      <Button kind="quiet" onClick={leave}>
        Leave it
      </Button>
    </form>
  );
}
