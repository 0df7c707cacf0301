import { TextField } from "@/ui/fields";
import { useState, type ReactNode } from "react";

type Props = {
  label: string;
  hint?: string;
  /** What is kept now, as text. */
  shown: string;
  disabled?: boolean;
  className?: string;
  /** Keeps what was typed; false where it cannot be kept. */
  keep: (text: string) => boolean;
  /** What is needed instead of what cannot be kept. */
  needed: ReactNode;
};

/** A field that is kept when it is left; what cannot be kept stays in it and is said to be none. */
export function KeptField({ label, hint, shown, disabled, className, keep, needed }: Props) {
  const [draft, setDraft] = useState<string | null>(null);
  const [wrong, setWrong] = useState(false);
  const leave = () => {
    if (draft === null) return;
    if (keep(draft.trim())) setDraft(null);
    else setWrong(true);
  };
  return (
    <>
      <TextField
        label={label}
        hint={hint}
        inputMode="decimal"
        className={className}
        autoComplete="off"
        maxLength={40}
        disabled={disabled}
        aria-invalid={wrong}
        value={draft ?? shown}
        onChange={(event) => (setDraft(event.target.value), setWrong(false))}
        onBlur={leave}
        onKeyDown={(event) => event.key === "Enter" && leave()}
      />
      {wrong && (
        <p role="alert" className="font-semibold">
          Not kept: {needed}
        </p>
      )}
    </>
  );
}
