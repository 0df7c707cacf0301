import { EndTask } from "./EndTask";
import { lacking } from "@/ui/lacking";
import { Button } from "@/ui/Button";
import { Choice } from "@/ui/fields";
import { timeWords } from "@/ui/numbers";
import { Caution } from "@/ui/notices";
import type { Action, Metering } from "./task";

type Props = { shown: Metering; onAct: (action: Action) => void; busy: boolean };

const FAULTS = [
  ["supply", "the supply"],
  ["input", "an input that is missing"],
  ["board", "the board"],
  ["load", "what hangs on it"],
] as const;

/** The powered board's pins, each measured against its return. */
export function MeterView({ shown, onAct, busy }: Props) {
  return (
    <>
      <Caution title="Under power">
        On a real machine this is work on live parts: only with what local codes and your licence ask for.
      </Caution>
      <p>
        {shown.doing}, {timeWords(shown.at)} after it began: <strong>{shown.missing}</strong> should be on and is not.
      </p>
      <ul className="border-t border-rule" aria-label="Pins">
        {shown.pins.map((each) => (
          <li key={each.place} className="flex items-center gap-3 border-b border-rule py-1.5">
            <span className="w-16 shrink-0 font-mono font-semibold">{each.place}</span>
            <span className="min-w-0 grow">
              {each.mark && <span className="font-mono">{each.mark}</span>} {each.title}
            </span>
            {each.volts === null ? (
              <Button
                aria-label={`Measure at ${each.place}`}
                disabled={busy}
                onClick={() => onAct({ do: "measure", place: each.place })}
              >
                Measure
              </Button>
            ) : (
              <strong className="py-3 font-mono text-xl">{each.volts} V</strong>
            )}
          </li>
        ))}
      </ul>
      <Choice
        label="Whose fault is it?"
        value={shown.named}
        onChange={(event) => event.target.value && onAct({ do: "blame", what: event.target.value })}
      >
        <option value="">not known yet</option>
        {FAULTS.map(([id, words]) => (
          <option key={id} value={id}>
            {words}
          </option>
        ))}
      </Choice>
      <EndTask onAct={onAct} busy={busy} needs={lacking({ "say what it is": !shown.named })}>
        That is it
      </EndTask>
    </>
  );
}
