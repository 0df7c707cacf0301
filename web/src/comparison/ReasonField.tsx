import { useState } from "react";
import { Button } from "@/ui/Button";
import { TextArea } from "@/ui/fields";

type Props = { label: string; value: string; disabled?: boolean; onSave: (text: string) => void };

/** A decision and its reason, in a person's own words. */
export function ReasonField({ label, value, disabled, onSave }: Props) {
  const [draft, setDraft] = useState<string | null>(null);
  const text = draft ?? value;
  const changed = text.trim() !== value.trim();
  return (
    <div className="mt-2 flex flex-col gap-2 border-l-4 border-text pl-3">
      <TextArea
        label={label}
        value={text}
        maxLength={2000}
        disabled={disabled}
        onChange={(event) => setDraft(event.target.value)}
        onBlur={() => {
          if (changed) onSave(text.trim());
          setDraft(null);
        }}
      />
      {!disabled && changed && (
        <Button
          className="self-start"
          onMouseDown={(event) => event.preventDefault()}
          onClick={() => (onSave(text.trim()), setDraft(null))}
        >
          Keep this reason
        </Button>
      )}
    </div>
  );
}
