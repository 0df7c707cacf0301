import type { Schemas } from "@/api/client";
import { Button } from "@/ui/Button";
import { CellTable } from "@/ui/CellTable";
import { findingsUnder, saidAt, type Changing, type Draft } from "../api";

type State = Schemas["DraftState"];
type Props = { draft: Draft; changing: Changing; machine: number; state: State };

const COLUMNS = ["to", "inputs", "after", "settings", "does"] as const;
const HEADINGS = ["To", "When inputs are", "After", "Where functions are", "And then"];
/** What a cell of a column is called in the document: where its findings stand. */
const KEYS = [["to"], ["if"], ["after", "clock"], ["when", "count"], ["reset", "clear", "add"]];

/** A state as a table of sentences: what is on in it, and a row for every arrow out of it. */
export function StateTable({ draft, changing, machine, state }: Props) {
  const put = (change: Partial<Schemas["StateGiven"]>, seen?: number) =>
    changing.change(
      {
        what: "state",
        body: {
          machine,
          was: state.name,
          name: state.name,
          title: state.title,
          on: state.on,
          arrows: state.arrows,
          gone: false,
          ...change,
        },
      },
      seen,
    );
  const at = (row: number) => `${state.place}.go[${row}]`;
  const wrong = (row: number, column: number) =>
    (KEYS[column] ?? [])
      .flatMap((key) => findingsUnder(draft, `${at(row)}.${key}`))
      .map((each) => each.says)
      .join("; ");
  const names = draft.machines[machine]?.states.map((each) => each.name) ?? [];
  const own = saidAt(draft, state.place);
  return (
    <section aria-label={`State ${state.name}`} className="flex flex-col gap-1 border-t-2 border-text pt-2">
      <CellTable
        label={`What state ${state.name} is`}
        headings={["State", "Title", "On while it lasts"]}
        rows={[[state.name, state.title, state.on]]}
        cellLabel={(_, column) => `${["Name", "Title", "On"][column] ?? ""} of state ${state.name}`}
        wrong={(_, column) =>
          column === 2
            ? findingsUnder(draft, `${state.place}.on`)
                .map((each) => each.says)
                .join("; ")
            : ""
        }
        version={draft.version}
        onChange={([row], seen) =>
          put({ name: row?.[0]?.trim() || state.name, title: row?.[1] ?? "", on: row?.[2] ?? "" }, seen)
        }
      />
      {own && <p className="text-sm font-semibold">{own}.</p>}
      <CellTable
        label={`Arrows out of ${state.name}`}
        headings={HEADINGS}
        rows={state.arrows.map((each) => COLUMNS.map((column) => each[column]))}
        grows
        cellLabel={(row, column) => `${HEADINGS[column] ?? ""}, arrow ${row + 1} of ${state.name}`}
        wrong={wrong}
        wrongRow={(row) => saidAt(draft, at(row))}
        options={(column) => (column === 0 ? names : column === 2 ? times(draft) : [])}
        version={draft.version}
        onChange={(rows, seen) =>
          put(
            {
              arrows: rows.map(([to = "", inputs = "", after = "", settings = "", does = ""]) => ({
                to,
                inputs,
                after,
                settings,
                does,
              })),
            },
            seen,
          )
        }
      />
      <StateMarks draft={draft} changing={changing} machine={machine} state={state} />
      <Button kind="quiet" className="self-start text-sm" onClick={() => put({ gone: true })}>
        Take state {state.name} out
      </Button>
    </section>
  );
}

/** Whether the board starts in a state, and whether it is still in it when the supply comes back. */
function StateMarks({ draft, changing, machine, state }: Props) {
  const shown = draft.machines[machine];
  if (!shown) return null;
  const single = !("machines" in ((draft.document.behaviour ?? {}) as object));
  const path = ["board", "behaviour", ...(single ? [] : ["machines", machine])];
  const kept = shown.states.filter((each) => each.survives).map((each) => each.name);
  const flip = () => {
    const after = state.survives ? kept.filter((each) => each !== state.name) : [...kept, state.name];
    changing.change({
      what: "place",
      body: { path: [...path, "survive_power_loss"], after: after.length ? after : null },
    });
  };
  return (
    <p className="flex flex-wrap gap-x-6">
      <label className="flex min-h-11 items-center gap-2">
        <input type="checkbox" className="size-5" checked={state.survives} onChange={flip} />
        kept when the supply is lost
      </label>
      <label className="flex min-h-11 items-center gap-2">
        <input
          type="radio"
          className="size-5"
          name={`start of machine ${machine}`}
          checked={shown.start === state.name}
          onChange={() => changing.change({ what: "place", body: { path: [...path, "start"], after: state.name } })}
        />
        the board starts here
      </label>
    </p>
  );
}

function times(draft: Draft): string[] {
  return draft.functions.filter((each) => each.type === "duration").map((each) => each.id);
}
