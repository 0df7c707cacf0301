import type { ButtonHTMLAttributes } from "react";

type Props = ButtonHTMLAttributes<HTMLButtonElement> & { kind?: "main" | "plain" | "quiet" };

const KINDS = {
  main: "bg-both text-ground border-both font-semibold hover:opacity-90",
  plain: "bg-raised border-edge hover:border-text",
  quiet: "border-transparent underline underline-offset-3 hover:bg-raised",
};

/** A button large enough for gloves. */
export function Button({ kind = "plain", className = "", type = "button", ...rest }: Props) {
  return (
    <button
      type={type}
      className={`min-h-12 min-w-12 rounded-sm border px-4 py-2 text-left disabled:opacity-55 aria-disabled:opacity-55 ${KINDS[kind]} ${className}`}
      {...rest}
    />
  );
}
