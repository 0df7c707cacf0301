import { lacking } from "@/ui/lacking";
import { Button } from "@/ui/Button";
import { TextField } from "@/ui/fields";
import { useState } from "react";
import type { Changing } from "../api";
import { withMachine, type Behaviour } from "../machines";

const NAME = /^[A-Za-z][\w.-]{0,39}$/;

/** Another machine that runs beside the others on the same board, and the signals that go between them. */
export function Machines({ behaviour, changing }: { behaviour: Behaviour; changing: Changing }) {
  const [name, setName] = useState("");
  const [internal, setInternal] = useState<string | null>(null);
  const taken = behaviour.machines?.some((each) => each.id === name.trim());
  const stand = (behaviour.internal ?? []).join(", ");
  const keep = () => {
    const names = (internal ?? "").split(/[\s,]+/).filter(Boolean);
    changing.change({
      what: "place",
      body: { path: ["board", "behaviour", "internal"], after: names.length ? names : null },
    });
    setInternal(null);
  };
  return (
    <div className="flex flex-col gap-3">
      <form
        aria-label="Another machine"
        className="flex flex-wrap items-end gap-3"
        onSubmit={(event) => {
          event.preventDefault();
          changing.change(
            { what: "place", body: { path: ["board", "behaviour"], after: withMachine(behaviour, name.trim()) } },
            undefined,
            () => setName(""),
          );
        }}
      >
        <div className="w-52 max-w-full">
          <TextField
            label="Another machine beside it"
            hint="such as steam, or fan"
            className="font-mono"
            spellCheck={false}
            maxLength={40}
            value={name}
            onChange={(event) => setName(event.target.value)}
          />
        </div>
        <Button
          type="submit"
          needs={lacking({
            "a name of small letters": !NAME.test(name.trim()),
            "a name that no other has": taken === true,
          })}
        >
          Add the machine
        </Button>
      </form>
      {behaviour.machines && (
        <form
          aria-label="Signals between machines"
          className="flex flex-wrap items-end gap-3"
          onSubmit={(event) => {
            event.preventDefault();
            keep();
          }}
        >
          <div className="w-52 max-w-full">
            <TextField
              label="Signals between them"
              hint="a name each; on in a state of one, looked at by another"
              className="font-mono"
              spellCheck={false}
              maxLength={400}
              value={internal ?? stand}
              onChange={(event) => setInternal(event.target.value)}
            />
          </div>
          <Button type="submit" needs={lacking({ "a change": internal === null })}>
            Keep
          </Button>
        </form>
      )}
    </div>
  );
}
