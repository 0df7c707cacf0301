import type { ReactNode } from "react";
import { Problem } from "@/api/client";

/** What went wrong, where, and what to do. */
export function ProblemNotice({ problem }: { problem: unknown }) {
  if (!problem) return null;
  const known = problem instanceof Problem ? problem : new Problem(500, "Something went wrong here", String(problem));
  return (
    <div role="alert" className="border-l-4 border-text bg-raised px-4 py-3">
      <p className="font-semibold">{known.title}</p>
      <p>{known.detail}</p>
      {known.faults.length > 0 && (
        <ul className="mt-2 flex flex-col gap-1">
          {known.faults.map((fault, index) => (
            <li key={index}>
              <code className="font-mono text-sm">{fault.place || "the file"}</code>: {fault.expected}
            </li>
          ))}
        </ul>
      )}
    </div>
  );
}

/** The usual caution, before work that can hurt somebody: neither ink, a hatched border, a sign and a word. */
export function Caution({ title, children }: { title: string; children: ReactNode }) {
  return (
    <div className="hatched px-4 py-3" role="note">
      <p className="flex items-center gap-2 font-semibold">
        <svg viewBox="0 0 24 24" className="size-6 shrink-0" aria-hidden="true">
          <path d="M12 3 22 21H2Z" fill="none" stroke="currentColor" strokeWidth="2" strokeLinejoin="round" />
          <path d="M12 10v5m0 2v1.5" stroke="currentColor" strokeWidth="2.2" />
        </svg>
        {title}
      </p>
      <div className="mt-1 text-[0.95rem]">{children}</div>
    </div>
  );
}

export function Loading({ what = "Loading" }: { what?: string }) {
  return (
    <p role="status" className="py-4 text-faint">
      {what} …
    </p>
  );
}

export function Empty({ children }: { children: ReactNode }) {
  return <p className="border-y border-rule py-6 text-faint">{children}</p>;
}
