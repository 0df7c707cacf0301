import { numberFrom } from "@/ui/numbers";
import { useState } from "react";
import { Button } from "@/ui/Button";
import { TextField } from "@/ui/fields";
import { BankEditor } from "./BankEditor";
import { UNREADABLE, type EditorProps } from "./types";
import { WheelEditor } from "./WheelEditor";

/** One element large, to be set by touch, by keys or by typing. */
export function ElementEditor(props: EditorProps) {
  if (props.element.kind === "dip" || props.element.kind === "code") return <BankEditor {...props} />;
  if (props.element.kind === "thumbwheel") return <WheelEditor {...props} />;
  if (props.element.kind === "parameter") return <NumberEditor {...props} />;
  return <ValueEditor {...props} />;
}

function ValueEditor({ element, value, side, unreadable = true, disabled, onChange }: EditorProps) {
  const options = unreadable ? [...element.values, UNREADABLE] : element.values;
  return (
    <div role="radiogroup" aria-label={`${element.id} ${element.title}`} className="flex flex-wrap gap-2">
      {options.map((option) => {
        const chosen = value === option;
        return (
          <button
            key={String(option)}
            type="button"
            role="radio"
            aria-checked={chosen}
            disabled={disabled || (element.locked.length > 0 && !unreadable)}
            onClick={() => onChange(option)}
            className={`min-h-12 min-w-14 border-2 px-4 font-mono text-xl disabled:opacity-55 ${side === "original" ? "rounded-none" : "rounded-xl"} ${
              chosen
                ? side === "original"
                  ? "border-original bg-original text-ground"
                  : "border-replacement bg-replacement text-ground"
                : "border-edge bg-raised"
            }`}
          >
            {option === UNREADABLE ? "? unreadable" : option}
          </button>
        );
      })}
    </div>
  );
}

function NumberEditor({ element, value, unreadable = true, disabled, onChange }: EditorProps) {
  const [typed, setTyped] = useState<string | null>(null);
  const [stood, setStood] = useState(value);
  if (stood !== value) {
    // set from elsewhere, such as over the port: what was typed before does not stand any more
    setStood(value);
    setTyped(null);
  }
  const { low, high, step } = element.range ?? { low: 0, high: 0, step: 0 };
  const shown = typed ?? (value === undefined || value === UNREADABLE ? "" : String(value));
  const valid = (text: string) => reached(numberFrom(text), low, high, step);
  // where nothing is set yet, or what stands is no number, the steps begin at the least
  const from = Number.isFinite(numberFrom(shown)) ? numberFrom(shown) : low;
  const wrong = typed !== null && typed.trim() !== "" && !valid(typed);
  const send = (text: string) => {
    setTyped(text);
    if (valid(text)) {
      onChange(numberFrom(text));
      setTyped(null);
    }
  };
  return (
    <div className="flex flex-wrap items-end gap-2">
      <div className="w-44">
        <TextField
          label={`${element.id}${element.unit ? ` in ${element.unit}` : ""}`}
          inputMode="decimal"
          className="font-mono text-2xl"
          value={shown}
          disabled={disabled}
          aria-invalid={wrong}
          onChange={(event) => setTyped(event.target.value)}
          onBlur={(event) => send(event.target.value)}
          onKeyDown={(event) => event.key === "Enter" && send(event.currentTarget.value)}
        />
      </div>
      <Button
        disabled={disabled}
        aria-label={`${element.id} less`}
        onClick={() => send(tidy(Math.max(low, from - step)))}
      >
        −
      </Button>
      <Button
        disabled={disabled}
        aria-label={`${element.id} more`}
        onClick={() => send(tidy(Math.min(high, from + step)))}
      >
        +
      </Button>
      {unreadable && (
        <Button
          disabled={disabled}
          aria-pressed={value === UNREADABLE}
          onClick={() => (setTyped(null), onChange(UNREADABLE))}
        >
          ? unreadable
        </Button>
      )}
      <p className={`basis-full text-sm ${wrong ? "font-semibold" : "text-faint"}`} role={wrong ? "alert" : undefined}>
        {wrong ? "Not possible here: " : ""}
        {low} to {high} in steps of {Number(step.toPrecision(9))}
      </p>
    </div>
  );
}

/** Whether a number can be set: within the range, a whole number of steps from its lowest (but for rounding). */
export function reached(number: number, low: number, high: number, step: number): boolean {
  if (!(number >= low && number <= high)) return false;
  const steps = step > 0 ? (number - low) / step : 0;
  return Math.abs(steps - Math.round(steps)) < 1e-6;
}

/** A number as it is typed: steps of a tenth must not become 0.30000000000000004. */
function tidy(number: number): string {
  return String(Number(number.toPrecision(12)));
}
