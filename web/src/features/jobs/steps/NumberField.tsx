import { numberFrom } from "@/ui/numbers";
import { DraftField } from "./DraftField";

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
  const isOne = (number: number) => Number.isFinite(number) && number >= least;
  const needed = `give a number${Number.isFinite(least) ? ` of ${least} or more` : ""}, such as 231.5.`;
  return (
    <div>
      <DraftField
        {...field}
        inputMode="decimal"
        maxLength={40}
        value={value === undefined ? "" : String(value)}
        refuse={(text) => (text === "" || isOne(numberFrom(text)) ? null : needed)}
        onSave={(text) => {
          const number = text === "" ? null : numberFrom(text);
          if (number !== (value ?? null)) onSave(number);
        }}
      />
    </div>
  );
}
