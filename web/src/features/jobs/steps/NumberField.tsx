import { numberFrom } from "@/ui/numbers";
import { KeptField } from "./KeptField";

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
export function NumberField({ value, least = -Infinity, onSave, ...field }: Props) {
  const keep = (text: string) => {
    const number = text === "" ? null : numberFrom(text);
    if (number !== null && !(Number.isFinite(number) && number >= least)) return false;
    if (number !== (value ?? null)) onSave(number);
    return true;
  };
  return (
    <div>
      <KeptField
        {...field}
        shown={value === undefined ? "" : String(value)}
        keep={keep}
        needed={`give a number${Number.isFinite(least) ? ` of ${least} or more` : ""}, such as 231.5.`}
      />
    </div>
  );
}
