type Props = {
  label: string;
  choices: [value: string, words: string][];
  value: string;
  disabled?: boolean;
  onChange: (value: string) => void;
};

/** A few answers side by side, one of them taken. */
export function Segments({ label, choices, value, disabled, onChange }: Props) {
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
