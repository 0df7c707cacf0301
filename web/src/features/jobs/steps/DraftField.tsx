import { TextField } from "@/ui/fields";
import { useState } from "react";

type Props = {
  label: string;
  hint?: string;
  value: string;
  disabled?: boolean;
  className?: string;
  inputMode?: "decimal" | "text";
  onSave: (text: string) => void;
};

/** A line of text that is kept when it is left. */
export function DraftField({ value, onSave, ...rest }: Props) {
  const [draft, setDraft] = useState<string | null>(null);
  const leave = () => {
    if (draft !== null && draft.trim() !== value) onSave(draft.trim());
    setDraft(null);
  };
  return (
    <TextField
      {...rest}
      value={draft ?? value}
      maxLength={2000}
      autoComplete="off"
      onChange={(event) => setDraft(event.target.value)}
      onBlur={leave}
      onKeyDown={(event) => event.key === "Enter" && leave()}
    />
  );
}
