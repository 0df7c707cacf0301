import { Button } from "@/ui/Button";
import { readingFrom, readingText, type Reading } from "@/ui/numbers";
import { DraftField } from "./DraftField";

type Props = {
  label: string;
  hint?: string;
  value: { value?: number | null; beyond?: string | null } | undefined;
  disabled?: boolean;
  className?: string;
  onSave: (value: Reading | null) => void;
};

/** A reading that is kept when it is left: a number, or that the meter shows more than it can read. */
export function ReadingField({ value, onSave, ...field }: Props) {
  const shown = readingText(value);
  return (
    <div>
      <DraftField
        {...field}
        inputMode="decimal"
        maxLength={40}
        value={shown}
        refuse={(text) =>
          text === "" || readingFrom(text) ? null : "give a number, such as 231.5, or OL, > 2000, < 1."
        }
        onSave={(text) => {
          const read = readingFrom(text);
          if (readingText(read ?? undefined) !== shown) onSave(read);
        }}
      />
      {!field.disabled && (
        <Button kind="quiet" onClick={() => onSave({ beyond: "above" })}>
          The meter shows OL
        </Button>
      )}
    </div>
  );
}
