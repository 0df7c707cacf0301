import type { Input } from "@/comparison/inputs";
import { Button } from "@/ui/Button";
import { TextField } from "@/ui/fields";
import { numberFrom } from "@/ui/numbers";
import { useState } from "react";

/** A level in a run that is timed by hand: read off, and told at the moment at which it is there. */
export function LevelTap({ input, onThere }: { input: Input; onThere: (value: number) => void }) {
  const [text, setText] = useState("");
  const value = numberFrom(text);
  const { unit = "", from = 0, to = 0 } = input.level ?? {};
  const there = text.trim() !== "" && value >= from && value <= to;
  return (
    <div className="flex flex-wrap items-end gap-2">
      <div className="w-44">
        <TextField
          label={`${input.title}${unit && `, in ${unit}`}`}
          inputMode="decimal"
          value={text}
          onChange={(event) => setText(event.target.value)}
        />
      </div>
      <Button disabled={!there} onClick={() => onThere(value)}>
        It is there now
      </Button>
    </div>
  );
}
