import type { Schemas } from "@/api/client";
import type { Machine } from "@/drawing/machine";
import { StateDiagram } from "@/drawing/StateDiagram";
import { Button } from "@/ui/Button";
import { Choice, TextField } from "@/ui/fields";
import { ProblemNotice } from "@/ui/notices";
import { useState } from "react";
import { useCheckDraft, useDraft, useLoadDraft, useTakeDraft, type Job } from "../../api";
import { NumberField } from "../NumberField";

type States = Machine["states"];

/** A behaviour drafted from the timed runs: edited beside its diagram, checked against every run, loaded by a parts lead. */
export function DraftEditor({ job, record }: { job: Job; record: Schemas["RecordShown"] }) {
  const draft = useDraft(job);
  const [edited, setEdited] = useState<Machine | null>(null);
  const check = useCheckDraft(job);
  const load = useLoadDraft(job);
  const take = useTakeDraft(job);
  const machine = edited ?? (draft.data?.behaviour as Machine | undefined);
  const made = check.data?.made ?? draft.data?.made ?? {};
  const runs = Object.values(made);
  const titles = Object.fromEntries([...record.inputs, ...record.outputs].map((each) => [each.id, each.title]));
  const edit = (states: States) => {
    if (!machine) return;
    const next = { ...machine, states };
    setEdited(next);
    check.mutate(next);
  };
  return (
    <section aria-label="Draft of a behaviour" className="flex flex-col gap-3">
      <Button
        className="self-start"
        disabled={draft.isPending}
        onClick={() => {
          setEdited(null);
          check.reset();
          load.reset();
          take.reset();
          draft.mutate();
        }}
      >
        Draft a behaviour from these runs
      </Button>
      {draft.error && <ProblemNotice problem={draft.error} />}
      {machine && (
        <>
          <p role="status">
            {runs.filter(Boolean).length} of {runs.length} runs are made by it.
          </p>
          {check.error && <ProblemNotice problem={check.error} />}
          <StateDiagram machine={machine} titles={titles} />
          <ol className="flex flex-col gap-4">
            {Object.entries(machine.states).map(([name, state]) => (
              <li key={name} className="border-t border-rule pt-2">
                <StateFields
                  name={name}
                  state={state}
                  names={Object.keys(machine.states)}
                  titles={titles}
                  onChange={(next) => edit({ ...machine.states, [name]: next })}
                />
              </li>
            ))}
          </ol>
          {record.behaviour_known ? (
            <p>
              How {job.original} behaves is written down already; a draft is only loaded for a board of which it is not.
            </p>
          ) : (
            <Button
              kind="main"
              className="self-start"
              disabled={load.isPending || runs.length === 0 || !runs.every(Boolean)}
              onClick={() => load.mutate(machine)}
            >
              Load it as a new revision of {job.original}
            </Button>
          )}
          <Button
            className="self-start"
            disabled={take.isPending || runs.length === 0}
            onClick={() => take.mutate(machine)}
          >
            Take it into the workshop
          </Button>
          {take.error && <ProblemNotice problem={take.error} />}
          {take.data && (
            <p role="status">
              It is in the draft of {job.original}, as measured in {job.code}.{" "}
              <a href={`/workshop/${take.data.id}?part=behaviour`}>Go on there</a>
            </p>
          )}
          {load.error && <ProblemNotice problem={load.error} />}
          {load.data && (
            <p role="status">
              {load.data.part_number} has revision {load.data.revision} now. This job keeps the one that it used.
            </p>
          )}
        </>
      )}
    </section>
  );
}

type State = States[string];
type FieldsProps = {
  name: string;
  state: State;
  names: string[];
  titles: Record<string, string>;
  onChange: (state: State) => void;
};

function StateFields({ name, state, names, titles, onChange }: FieldsProps) {
  const arrows = state.go ?? [];
  const change = (place: number, more: Partial<(typeof arrows)[number]>) =>
    onChange({ ...state, go: arrows.map((arrow, index) => (index === place ? { ...arrow, ...more } : arrow)) });
  return (
    <div className="flex flex-col gap-2">
      <div className="max-w-sm">
        <TextField
          label={`Name of ${name}`}
          maxLength={200}
          value={state.title ?? ""}
          onChange={(event) => onChange({ ...state, title: event.target.value })}
        />
      </div>
      {arrows.map((arrow, place) => (
        <div key={place} className="flex flex-wrap items-end gap-3">
          {typeof arrow.after === "number" ? (
            <div className="w-36">
              <NumberField
                label="After, in s"
                value={arrow.after}
                least={0}
                onSave={(seconds) => seconds !== null && change(place, { after: seconds })}
              />
            </div>
          ) : (
            <p className="pb-2.5">
              {Object.entries(arrow.if ?? {})
                .map(([input, value]) => `${titles[input] ?? input} ${value ? "begins" : "ends"}`)
                .join(", ")}
            </p>
          )}
          <Choice label="then" value={arrow.to} onChange={(event) => change(place, { to: event.target.value })}>
            {names.map((each) => (
              <option key={each}>{each}</option>
            ))}
          </Choice>
          <Button
            kind="quiet"
            aria-label={`Take out this way of ${name}: ${place + 1}`}
            onClick={() => onChange({ ...state, go: arrows.filter((_, index) => index !== place) })}
          >
            Take out
          </Button>
        </div>
      ))}
    </div>
  );
}
