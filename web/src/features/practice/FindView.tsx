import { EndTask } from "./EndTask";
import { lacking } from "@/ui/lacking";
import { Button } from "@/ui/Button";
import { Choice } from "@/ui/fields";
import type { Action, Finding } from "./task";

type Props = { shown: Finding; onAct: (action: Action) => void; busy: boolean };

/** What the machine shows, and the tests that can be made on it. */
export function FindView({ shown, onAct, busy }: Props) {
  return (
    <>
      <ul className="border-y-2 border-text py-2" aria-label="What it shows">
        {shown.symptoms.map((each) => (
          <li key={each}>
            <strong>{each}</strong>
          </li>
        ))}
      </ul>
      <p aria-live="polite">Tests so far: {shown.minutes} minutes on a real machine.</p>
      <ul className="border-t border-rule" aria-label="Tests">
        {shown.tests.map((each) => (
          <li key={each.id} className="flex flex-wrap items-center gap-3 border-b border-rule py-2.5">
            <div className="min-w-0 grow basis-60">
              {each.title}
              <span className="block text-sm text-faint">
                {each.minutes} min{each.risk === "live" && ", under power"}
                {each.expected && `; ${each.expected}`}
              </span>
            </div>
            {each.result ? (
              <strong>{each.result}</strong>
            ) : (
              <Button
                aria-label={`Do it: ${each.title}`}
                disabled={busy}
                onClick={() => onAct({ do: "test", test: each.id })}
              >
                Do it
              </Button>
            )}
          </li>
        ))}
      </ul>
      <Choice
        label="What is it?"
        value={shown.named}
        onChange={(event) => event.target.value && onAct({ do: "name", suspect: event.target.value })}
      >
        <option value="">not known yet</option>
        {shown.suspects.map((each) => (
          <option key={each.id} value={each.id}>
            {each.title}
          </option>
        ))}
      </Choice>
      <EndTask onAct={onAct} busy={busy} needs={lacking({ "say what it is": !shown.named })}>
        That is what it is
      </EndTask>
    </>
  );
}
