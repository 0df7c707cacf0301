import { Button } from "@/ui/Button";
import { TextField } from "@/ui/fields";
import { Segments } from "@/ui/Segments";
import { useState } from "react";
import { endsFor, freshDraft, lineOf, OFFERS, SEEN, type Draft, type Kind } from "./lines";

type Props = { lines: string; onAdd: (line: string) => void };
type Counted = Exclude<Kind, "seen">;
const KINDS = Object.keys(OFFERS) as Counted[];
const UNKNOWN = ["", "do not know"] as const;

/** One thing after another put down by taps: what it is, how many, which way it points. */
export function AddThing({ lines, onAdd }: Props) {
  const [kind, setKind] = useState<Counted | null>(null);
  return (
    <div className="flex flex-col gap-3">
      <div role="group" aria-label="Put down" className="flex flex-wrap gap-2">
        {KINDS.map((each) => (
          <Button
            key={each}
            aria-pressed={each === kind}
            className={each === kind ? "border-2 border-text" : ""}
            onClick={() => setKind(each === kind ? null : each)}
          >
            {OFFERS[each].word}
          </Button>
        ))}
        {SEEN.map((each) => (
          <Button key={each} onClick={() => onAdd(each)}>
            {each.charAt(0).toUpperCase() + each.slice(1)}
          </Button>
        ))}
      </div>
      {kind && (
        <Thing
          key={`${kind} ${lines}`}
          kind={kind}
          lines={lines}
          onAdd={(line) => {
            onAdd(line);
            setKind(null);
          }}
        />
      )}
    </div>
  );
}

function Thing({ kind, lines, onAdd }: Props & { kind: Counted }) {
  const [draft, setDraft] = useState<Draft>(() => freshDraft(kind, lines));
  /** A count that is not among those to be tapped, as it is typed. */
  const [other, setOther] = useState("");
  const set = (change: Partial<Draft>) => setDraft((old) => ({ ...old, ...change }));
  const { word, counts, counted, letter } = OFFERS[kind];
  const line = lineOf(kind, draft);
  return (
    <section aria-label={word} className="flex flex-col gap-3 border-l-4 border-edge pl-3">
      {counts && (
        <div>
          <p className="mb-1 text-sm">How many {counted}</p>
          <Segments
            label={`How many ${counted}`}
            choices={counts.map((count) => [String(count), String(count)] as const)}
            value={other ? "" : String(draft.count)}
            onChange={(count) => {
              setOther("");
              set({ count: Number(count) });
            }}
          />
          <div className="mt-2 w-40">
            <TextField
              label="Another number"
              inputMode="numeric"
              maxLength={3}
              value={other}
              onChange={(event) => {
                const typed = event.target.value.replace(/\D/g, "");
                setOther(typed);
                set({ count: Number(typed) });
              }}
            />
          </div>
        </div>
      )}
      {!counts && (
        <TextField
          label={kind === "number" ? "From, to, steps and unit" : "What it may stand at"}
          hint={kind === "number" ? "such as 0..300 by 5 s" : "such as 0..9, 0..F, 00..15, or A B C"}
          className="font-mono"
          value={draft.values}
          onChange={(event) => set({ values: event.target.value })}
        />
      )}
      {kind === "bank" && (
        <>
          <Question
            label="On is"
            choices={["up", "down", "left", "right"]}
            value={draft.on}
            onChange={(on) => set({ on, from: endsFor(on).includes(draft.from) ? draft.from : "" })}
          />
          <Question
            label="Number 1 is at the"
            choices={endsFor(draft.on)}
            value={draft.from}
            onChange={(from) => set({ from })}
          />
        </>
      )}
      {kind === "plug" && (
        <Question
          label="Keyed, so that it goes in one way"
          choices={["keyed", "not keyed"]}
          value={draft.keyed}
          onChange={(keyed) => set({ keyed })}
        />
      )}
      {kind === "plug" && (
        <TextField
          label="Printed at its pins, from pin 1"
          hint="such as L N PE; left empty where nothing is printed"
          className="font-mono"
          maxLength={400}
          value={draft.marks}
          onChange={(event) => set({ marks: event.target.value })}
        />
      )}
      <div className="flex flex-wrap items-end gap-3">
        {letter && (
          <div className="w-28">
            <TextField
              label="Printed name"
              className="font-mono"
              maxLength={20}
              value={draft.name}
              onChange={(event) => set({ name: event.target.value.trim() })}
            />
          </div>
        )}
        <Button kind="main" disabled={line === null} onClick={() => line && onAdd(line)}>
          Put it down
        </Button>
      </div>
    </section>
  );
}

type QuestionProps = { label: string; choices: string[]; value: string; onChange: (value: string) => void };

/** A question to which not knowing is an answer. */
function Question({ label, choices, value, onChange }: QuestionProps) {
  return (
    <div>
      <p className="mb-1 text-sm">{label}</p>
      <Segments
        label={label}
        choices={[...choices.map((each) => [each, each] as const), UNKNOWN]}
        value={value}
        onChange={onChange}
      />
    </div>
  );
}
