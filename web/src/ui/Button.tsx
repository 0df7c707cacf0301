import { useId, type ButtonHTMLAttributes } from "react";

type Props = ButtonHTMLAttributes<HTMLButtonElement> & {
  kind?: "main" | "plain" | "quiet";
  /** What is missing before it can be pressed; said under it. Nothing where it is empty. */
  needs?: string;
};

const KINDS = {
  main: "bg-both text-ground border-both font-semibold hover:opacity-90",
  plain: "bg-raised border-edge hover:border-text",
  quiet: "border-transparent underline underline-offset-3 hover:bg-raised",
};

/** A button large enough for gloves. A grey one says what is missing. */
export function Button({ kind = "plain", className = "", type = "button", needs, disabled, ...rest }: Props) {
  const hint = useId();
  const button = (
    <button
      type={type}
      className={`min-h-12 min-w-12 rounded-sm border px-4 py-2 text-left disabled:opacity-55 aria-disabled:opacity-55 ${KINDS[kind]} ${className}`}
      disabled={disabled === true || !!needs}
      {...(needs && !disabled ? { "aria-describedby": hint } : {})}
      {...rest}
    />
  );
  if (needs === undefined) return button;
  // the frame stays when nothing is missing any more: the button keeps its place and the focus
  return (
    <span className="flex max-w-full flex-col gap-1">
      {button}
      {needs && !disabled && (
        <span id={hint} className="text-sm text-faint">
          First: {needs}.
        </span>
      )}
    </span>
  );
}
