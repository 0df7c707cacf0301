import { Button } from "@/ui/Button";
import { readingFrom, readingText, type Reading } from "@/ui/numbers";
import { KeptField } from "./KeptField";

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
  const keep = (text: string) => {
    const read = readingFrom(text);
    if (text !== "" && read === null) return false;
    if (readingText(read ?? undefined) !== readingText(value)) onSave(read);
    return true;
  };
  return (
    <div>
      <KeptField
        {...field}
        shown={readingText(value)}
        keep={keep}
        needed="give a number, such as 231.5, or OL, > 2000, < 1."
      />
      {!field.disabled && (
        <Button kind="quiet" onClick={() => onSave({ beyond: "above" })}>
          The meter shows OL
        </Button>
      )}
    </div>
  );
}
