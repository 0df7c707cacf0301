import { numberFrom } from "@/ui/numbers";
import { Button } from "@/ui/Button";
import { Choice, TextField } from "@/ui/fields";
import { useState } from "react";
import { changeTold, type Input } from "./inputs";
import type { useScenario } from "./useScenario";

type Props = { inputs: Input[]; scenario: ReturnType<typeof useScenario> };

/** The input changes of a scenario as a list to key in. */
export function StepList({ inputs, scenario }: Props) {
  const [at, setAt] = useState("0");
  const [input, setInput] = useState(inputs[1]?.id ?? inputs[0]?.id ?? "");
  const [value, setValue] = useState("begins");
  const [goal, setGoal] = useState("");
  const chosen = inputs.find((each) => each.id === input);
  const reached = numberFrom(goal);
  const within = !chosen?.level || (goal.trim() !== "" && reached >= chosen.level.from && reached <= chosen.level.to);
  const seconds = numberFrom(at);
  const usable = at.trim() !== "" && Number.isFinite(seconds) && seconds >= 0 && seconds <= 10_000_000;
  return (
    <details className="border-b border-rule pb-3">
      <summary className="min-h-11 py-2 font-semibold">Change the scenario</summary>
      <ul className="mb-3 flex flex-col gap-1">
        {scenario.current.steps.map((step, index) => (
          <li key={index} className="flex flex-wrap items-center gap-2">
            <TimeInput label={`Time of change ${index + 1}`} at={step.at} onPut={(next) => scenario.put(index, next)} />
            <span className="grow">
              {Object.entries(step.set)
                .map(([name, to]) => changeTold(inputs, name, to))
                .join(", ")}
            </span>
            <Button aria-label={`Take out change ${index + 1}`} onClick={() => scenario.remove(index)}>
              Take out
            </Button>
          </li>
        ))}
      </ul>
      <div className="flex flex-wrap items-end gap-2">
        <div className="w-28">
          <TextField
            label="At, in s"
            inputMode="decimal"
            value={at}
            aria-invalid={!usable}
            onChange={(event) => setAt(event.target.value)}
          />
        </div>
        <Choice label="Input" value={input} onChange={(event) => setInput(event.target.value)}>
          {inputs.map((each) => (
            <option key={each.id} value={each.id}>
              {each.title}
            </option>
          ))}
        </Choice>
        {chosen?.level ? (
          <div className="w-44">
            <TextField
              label={`Goes to, in ${chosen.level.unit || "its unit"}`}
              hint={`${chosen.level.from} to ${chosen.level.to}`}
              inputMode="decimal"
              value={goal}
              onChange={(event) => setGoal(event.target.value)}
            />
          </div>
        ) : (
          <Choice label="Change" value={value} onChange={(event) => setValue(event.target.value)}>
            <option>begins</option>
            <option>ends</option>
          </Choice>
        )}
        <Button
          disabled={!usable || !within}
          onClick={() => scenario.add(seconds, input, chosen?.level ? reached : value === "begins")}
        >
          Add
        </Button>
        <div className="flex items-end gap-1">
          <span className="pb-2">until</span>
          <TimeInput label="End of the scenario" at={scenario.current.until} onPut={scenario.setUntil} />
        </div>
      </div>
      {!usable && (
        <p role="alert" className="mt-2 font-semibold">
          Give the time in seconds, 0 or more.
        </p>
      )}
    </details>
  );
}

function TimeInput({ label, at, onPut }: { label: string; at: number; onPut: (at: number) => void }) {
  const [draft, setDraft] = useState<string | null>(null);
  const done = () => {
    const next = numberFrom(draft ?? "");
    if (draft !== null && draft.trim() !== "" && Number.isFinite(next) && next >= 0 && next <= 10_000_000) onPut(next);
    setDraft(null);
  };
  return (
    <span className="inline-flex items-center gap-1">
      <input
        aria-label={label}
        inputMode="decimal"
        className="min-h-11 w-24 border border-edge bg-raised px-2 font-mono"
        value={draft ?? String(at)}
        onChange={(event) => setDraft(event.target.value)}
        onBlur={done}
        onKeyDown={(event) => event.key === "Enter" && done()}
      />
      s
    </span>
  );
}
