import type { Schemas } from "@/api/client";
import type { ReactNode } from "react";

/** What the new board's lamp or display may say, and how each clears. */
export function Codes({ codes }: { codes: Schemas["CodeLine"][] }) {
  return (
    <ul>
      {codes.map((code) => (
        <li key={code.shown} className="border-b border-rule py-1">
          <strong className="font-mono">{code.shown}</strong> {code.meaning}
          {code.look_at && `; look at ${code.look_at}`}
          {code.clears && `; clears ${code.clears}`}
        </li>
      ))}
    </ul>
  );
}

/** Lines under a title; nothing where there are none. */
export function Lines({ title, lines }: { title: string; lines: string[] }): ReactNode {
  if (lines.length === 0) return null;
  return (
    <section aria-label={title}>
      <h4 className="font-semibold">{title}</h4>
      <ul className="list-disc pl-5">
        {lines.map((line, index) => (
          <li key={index}>{line}</li>
        ))}
      </ul>
    </section>
  );
}
