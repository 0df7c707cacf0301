import { numberFrom } from "@/ui/numbers";
import { TextField } from "@/ui/fields";
import { useState } from "react";

type Props = {
  label: string;
  hint?: string;
  value: number | undefined;
  disabled?: boolean;
  /** The least that it may be, where there is one. */
  least?: number;
  className?: string;
  onSave: (value: number | null) => void;
};

/** A number that is kept when it is left; what is none stays in the field and is said to be none. */
export function NumberField({ label, hint, value, disabled, least = -Infinity, className, onSave }: Props) {
  const [draft, setDraft] = useState<string | null>(null);
  const [wrong, setWrong] = useState(false);
  const leave = () => {
    if (draft === null) return;
    const number = draft.trim() === "" ? null : numberFrom(draft);
    if (number !== null && !(Number.isFinite(number) && number >= least)) {
      setWrong(true);
      return;
    }
    if (number !== (value ?? null)) onSave(number);
    setDraft(null);
  };
  return (
    <div>
      <TextField
        label={label}
        hint={hint}
        inputMode="decimal"
        className={className}
        autoComplete="off"
        maxLength={40}
        disabled={disabled}
        aria-invalid={wrong}
        value={draft ?? (value === undefined ? "" : String(value))}
        onChange={(event) => (setDraft(event.target.value), setWrong(false))}
        onBlur={leave}
        onKeyDown={(event) => event.key === "Enter" && leave()}
      />
      {wrong && (
        <p role="alert" className="font-semibold">
          Not kept: give a number{Number.isFinite(least) ? ` of ${least} or more` : ""}, such as 231.5.
        </p>
      )}
    </div>
  );
}
