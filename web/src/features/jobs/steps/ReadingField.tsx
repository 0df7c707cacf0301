import { Button } from "@/ui/Button";
import { TextField } from "@/ui/fields";
import { readingFrom, readingText, type Reading } from "@/ui/numbers";
import { useState } from "react";

type Props = {
  label: string;
  hint?: string;
  value: { value?: number | null; beyond?: string | null } | undefined;
  disabled?: boolean;
  className?: string;
  onSave: (value: Reading | null) => void;
};

/** A reading that is kept when it is left: a number, or that the meter shows more than it can read. */
export function ReadingField({ label, hint, value, disabled, className, onSave }: Props) {
  const [draft, setDraft] = useState<string | null>(null);
  const [wrong, setWrong] = useState(false);
  const leave = () => {
    if (draft === null) return;
    const read = readingFrom(draft);
    if (draft.trim() !== "" && read === null) {
      setWrong(true);
      return;
    }
    if (readingText(read ?? undefined) !== readingText(value)) onSave(read);
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
        value={draft ?? readingText(value)}
        onChange={(event) => (setDraft(event.target.value), setWrong(false))}
        onBlur={leave}
        onKeyDown={(event) => event.key === "Enter" && leave()}
      />
      {!disabled && (
        <Button kind="quiet" onClick={() => onSave({ beyond: "above" })}>
          The meter shows OL
        </Button>
      )}
      {wrong && (
        <p role="alert" className="font-semibold">
          Not kept: give a number, such as 231.5, or OL, &gt; 2000, &lt; 1.
        </p>
      )}
    </div>
  );
}
