import { useState, type ReactNode } from "react";

type Props = {
  title: string;
  status: ReactNode;
  open?: boolean;
  /** Given where the page decides which part is open; else the part remembers it by itself. */
  onFlip?: () => void;
  children: ReactNode;
};

/** A part of a step that folds to one line; its state says whether anything is left to do in it. */
export function Part({ title, status, open: first = false, onFlip, children }: Props) {
  const [own, setOwn] = useState(first);
  const open = onFlip ? first : own;
  return (
    <section className="border-t border-rule">
      <h3 className="text-base">
        <button
          type="button"
          aria-expanded={open}
          onClick={onFlip ?? (() => setOwn(!own))}
          className="flex min-h-12 w-full items-baseline gap-x-3 py-2.5 text-left"
        >
          <span aria-hidden="true" className="w-4 shrink-0 font-mono">
            {open ? "−" : "+"}
          </span>
          <span>
            <span className="mr-3 font-semibold">{title}</span>
            <span className="font-normal text-faint">{status}</span>
          </span>
        </button>
      </h3>
      {open && <div className="flex flex-col gap-4 pb-5">{children}</div>}
    </section>
  );
}
