import { TextField } from "@/ui/fields";
import { useTyped } from "@/ui/typed";
import { useState } from "react";

type Props = {
  label: string;
  hint?: string;
  value: string;
  disabled?: boolean;
  className?: string;
  inputMode?: "decimal" | "text";
  maxLength?: number;
  /** What tells this field from others of its label on the page. */
  place?: string;
  /** What is needed instead of a text that cannot be kept; null where it can. */
  refuse?: (text: string) => string | null;
  onSave: (text: string) => void;
};

/** A line of text that is kept when it is left; what cannot be kept stays in it, with what is needed instead. */
export function DraftField({ value, onSave, refuse, maxLength = 2000, place, ...rest }: Props) {
  const typed = useTyped(value, place ?? rest.label);
  const [needed, setNeeded] = useState<string | null>(null);
  const leave = () => {
    if (!typed.dirty) return;
    const text = typed.shown.trim();
    const refused = text === value ? null : (refuse?.(text) ?? null);
    setNeeded(refused);
    if (refused) return;
    if (text === value) return typed.drop();
    typed.saved(text);
    onSave(text);
  };
  return (
    <>
      <TextField
        {...rest}
        value={typed.shown}
        maxLength={maxLength}
        autoComplete="off"
        aria-invalid={needed !== null}
        onChange={(event) => (typed.type(event.target.value), setNeeded(null))}
        onBlur={leave}
        onKeyDown={(event) => event.key === "Enter" && leave()}
      />
      {typed.restored && !rest.disabled && (
        <p role="status" className="text-sm font-semibold">
          Typed before the page was loaded again, and not saved yet. Look at it, then press Enter in the field.
        </p>
      )}
      {needed && (
        <p role="alert" className="font-semibold">
          Not kept: {needed}
        </p>
      )}
    </>
  );
}
