import type { Schemas } from "@/api/client";
import { TextField } from "@/ui/fields";

type Props = {
  point: Schemas["HoldShown"];
  readings: Record<string, string>;
  disabled?: boolean;
  onChange: (readings: Record<string, string>) => void;
};

/** A reading between every two terminals of every supply that enters the cabinet. */
export function Pairs({ point, readings, disabled, onChange }: Props) {
  return (
    <fieldset className="flex flex-col gap-2">
      <legend className="pb-1">
        Measured in {point.unit}, each below {point.limit} {point.unit}
      </legend>
      <div className="grid grid-cols-2 items-end gap-3 sm:grid-cols-3">
        {point.pairs.map((pair) => (
          <TextField
            key={pair.id}
            label={pair.title}
            aria-label={`${point.title}: ${pair.title} in ${point.unit}`}
            inputMode="decimal"
            maxLength={20}
            disabled={disabled}
            value={readings[pair.id] ?? ""}
            onChange={(event) => onChange({ ...readings, [pair.id]: event.target.value })}
          />
        ))}
      </div>
    </fieldset>
  );
}
