import { useState, type ReactNode } from "react";

type Props = {
  title: string;
  status: ReactNode;
  open?: boolean;
  /** Whether nothing is left to do in it; not said where nothing is asked. */
  done?: boolean;
  /** Whether it is what comes next. */
  next?: boolean;
  /** Given where the page decides which part is open; else the part remembers it by itself. */
  onFlip?: () => void;
  children: ReactNode;
};

/** A part of a step that folds to one line; its state says whether anything is left to do in it. */
export function Part({ title, status, open: first = false, done, next = false, onFlip, children }: Props) {
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
          <Fold open={open} />
          <span>
            <span className={`mr-3 ${next ? "font-bold" : "font-semibold"}`}>{title}</span>
            <span className="font-normal text-faint">
              {status}
              {done && " ✓"}
            </span>
          </span>
        </button>
      </h3>
      {open && <div className="flex flex-col gap-4 pb-5">{children}</div>}
    </section>
  );
}

/** Whether something is folded or open. */
function Fold({ open }: { open: boolean }) {
  return (
    <svg viewBox="0 0 12 12" aria-hidden="true" className="size-3 shrink-0 self-center">
      <path d={open ? "M1 3.5 6 9 11 3.5" : "M3.5 1 9 6 3.5 11"} fill="none" stroke="currentColor" strokeWidth={2} />
    </svg>
  );
}
