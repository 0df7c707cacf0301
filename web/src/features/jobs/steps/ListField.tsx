import { TextArea } from "@/ui/fields";
import { useState } from "react";

type Props = { label: string; hint?: string; value: string; disabled?: boolean; onSave: (text: string) => void };

/** A list, a line an item, that is kept when it is left. */
export function ListField({ value, onSave, ...rest }: Props) {
  const [draft, setDraft] = useState<string | null>(null);
  return (
    <TextArea
      {...rest}
      rows={6}
      className="font-mono"
      maxLength={2000}
      value={draft ?? value}
      onChange={(event) => setDraft(event.target.value)}
      onBlur={() => {
        if (draft !== null && draft.trim() !== value) onSave(draft.trim());
        setDraft(null);
      }}
    />
  );
}
