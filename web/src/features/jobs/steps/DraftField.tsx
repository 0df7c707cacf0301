import { TextField } from "@/ui/fields";
import { useState } from "react";

type Props = {
  label: string;
  hint?: string;
  value: string;
  disabled?: boolean;
  className?: string;
  inputMode?: "decimal" | "text";
  maxLength?: number;
  /** What is needed instead of a text that cannot be kept; null where it can. */
  refuse?: (text: string) => string | null;
  onSave: (text: string) => void;
};

/** A line of text that is kept when it is left; what cannot be kept stays in it, with what is needed instead. */
export function DraftField({ value, onSave, refuse, maxLength = 2000, ...rest }: Props) {
  const [draft, setDraft] = useState<string | null>(null);
  const [needed, setNeeded] = useState<string | null>(null);
  const leave = () => {
    const text = draft?.trim() ?? value;
    const refused = text === value ? null : (refuse?.(text) ?? null);
    setNeeded(refused);
    if (refused) return;
    if (text !== value) onSave(text);
    setDraft(null);
  };
  return (
    <>
      <TextField
        {...rest}
        value={draft ?? value}
        maxLength={maxLength}
        autoComplete="off"
        aria-invalid={needed !== null}
        onChange={(event) => (setDraft(event.target.value), setNeeded(null))}
        onBlur={leave}
        onKeyDown={(event) => event.key === "Enter" && leave()}
      />
      {needed && (
        <p role="alert" className="font-semibold">
          Not kept: {needed}
        </p>
      )}
    </>
  );
}
