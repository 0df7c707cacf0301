import type { Schemas } from "@/api/client";
import { Choice } from "@/ui/fields";
import { ProblemNotice } from "@/ui/notices";
import { useMachine } from "../api";
import type { StepProps } from "../stepProps";
import { DraftField } from "./DraftField";
import { NumberField } from "./NumberField";

type Fact = Schemas["FactWanted"];

/** What is known of the machine, with its source; what is missing can be entered. */
export function MachineFacts({ job, put }: StepProps) {
  const machine = useMachine(job);
  const save = (fact: Fact, value: string | number | boolean | null) =>
    void put({ target: `fact.${fact.id}`, after: value === null ? null : { value, source: "seen" } });
  if (!machine.data?.facts.length) return <ProblemNotice problem={machine.error} />;
  return (
    <section aria-labelledby="facts" className="flex flex-col gap-3">
      <h3 id="facts">What is known of the machine</h3>
      {machine.data.findings.map((finding) => (
        <p key={finding} className="border-l-4 border-text pl-3 font-semibold">
          {finding} The plate is believed; find out why they differ.
        </p>
      ))}
      <div className="grid gap-4 sm:grid-cols-2">
        {machine.data.facts.map((fact) => (
          <FactField key={fact.id} fact={fact} disabled={job.closed} onSave={(value) => save(fact, value)} />
        ))}
      </div>
    </section>
  );
}

const SOURCES: Record<string, string> = {
  plate: "from the plate",
  display: "from the display",
  seen: "entered here",
  measured: "measured",
  told: "told by somebody",
};

type FieldProps = { fact: Fact; disabled: boolean; onSave: (value: string | number | boolean | null) => void };

function FactField({ fact, disabled, onSave }: FieldProps) {
  const label = fact.unit ? `${fact.title}, in ${fact.unit}` : fact.title;
  const hint = fact.value === null ? "not known" : (SOURCES[fact.source] ?? fact.source);
  const choices: (string | number | boolean)[] = fact.kind === "flag" ? [true, false] : fact.choices;
  if (choices.length > 0)
    return (
      <Choice
        label={label}
        hint={hint}
        disabled={disabled}
        value={fact.value === null ? "" : String(fact.value)}
        onChange={(event) => onSave(choices.find((each) => String(each) === event.target.value) ?? null)}
      >
        <option value="">not known</option>
        {choices.map((each) => (
          <option key={String(each)} value={String(each)}>
            {typeof each === "boolean" ? (each ? "yes" : "no") : each}
          </option>
        ))}
      </Choice>
    );
  if (fact.kind === "number")
    return (
      <NumberField
        label={label}
        hint={hint}
        disabled={disabled}
        value={typeof fact.value === "number" ? fact.value : undefined}
        onSave={onSave}
      />
    );
  return (
    <DraftField
      label={label}
      hint={hint}
      disabled={disabled}
      value={fact.value === null ? "" : String(fact.value)}
      onSave={(text) => onSave(text || null)}
    />
  );
}
