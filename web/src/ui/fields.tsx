import {
  useId,
  type InputHTMLAttributes,
  type ReactNode,
  type SelectHTMLAttributes,
  type TextareaHTMLAttributes,
} from "react";

const BOX = "min-h-12 w-full rounded-sm border border-edge bg-raised px-3 py-2 disabled:opacity-60";

type Common = { label: ReactNode; hint?: ReactNode };

function Frame({ id, label, hint, children }: Common & { id: string; children: ReactNode }) {
  return (
    <div className="flex flex-col gap-1">
      <label htmlFor={id} className="font-semibold">
        {label}
      </label>
      {children}
      {hint && <p className="text-sm text-faint">{hint}</p>}
    </div>
  );
}

export function TextField({ label, hint, className = "", ...rest }: Common & InputHTMLAttributes<HTMLInputElement>) {
  const own = useId();
  const id = rest.id ?? own;
  return (
    <Frame id={id} label={label} hint={hint}>
      <input className={`${BOX} ${className}`} {...rest} id={id} />
    </Frame>
  );
}

/** A number, narrow, with the keys for it on a phone; what was typed is read by `numberFrom`. */
export function NumberField({
  label,
  value,
  onType,
}: {
  label: string;
  value: string;
  onType: (text: string) => void;
}) {
  return (
    <div className="w-28">
      <TextField label={label} inputMode="decimal" value={value} onChange={(event) => onType(event.target.value)} />
    </div>
  );
}

export function TextArea({
  label,
  hint,
  className = "",
  ...rest
}: Common & TextareaHTMLAttributes<HTMLTextAreaElement>) {
  const id = useId();
  return (
    <Frame id={id} label={label} hint={hint}>
      <textarea id={id} className={`${BOX} ${className}`} rows={2} {...rest} />
    </Frame>
  );
}

export function Choice({ label, hint, children, ...rest }: Common & SelectHTMLAttributes<HTMLSelectElement>) {
  const id = useId();
  return (
    <Frame id={id} label={label} hint={hint}>
      <select id={id} className={BOX} {...rest}>
        {children}
      </select>
    </Frame>
  );
}
