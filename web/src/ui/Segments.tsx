type Props<Value extends string> = {
  label: string;
  choices: readonly (readonly [value: Value, words: string])[];
  /** The answer taken; anything that is none of them where none is. */
  value: string;
  disabled?: boolean;
  onChange: (value: Value) => void;
};

/** A few answers side by side, one of them taken. */
export function Segments<Value extends string>({ label, choices, value, disabled, onChange }: Props<Value>) {
  return (
    <div role="radiogroup" aria-label={label} className="flex flex-wrap">
      {choices.map(([each, words]) => (
        <button
          key={each}
          type="button"
          role="radio"
          aria-checked={value === each}
          disabled={disabled}
          onClick={() => onChange(each)}
          className={`-ml-px min-h-11 min-w-11 border border-edge px-3 first:ml-0 ${
            value !== each
              ? "bg-raised text-faint"
              : each === ""
                ? "bg-raised font-semibold"
                : "bg-both font-semibold text-ground"
          } disabled:opacity-70`}
        >
          {words}
        </button>
      ))}
    </div>
  );
}
