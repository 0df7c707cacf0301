import { Pager } from "@/ui/Pager";
import { Link } from "@tanstack/react-router";
import { useState } from "react";
import { useCalls } from "../endApi";

/** Whom to ask how the new board does, a month after the job was closed. */
export function Calls() {
  const [page, setPage] = useState(1);
  const calls = useCalls(page);
  if (!calls.data || calls.data.total === 0) return null;
  return (
    <details className="border-y border-rule">
      <summary className="min-h-12 py-3 text-lg font-semibold">
        {calls.data.total} {calls.data.total === 1 ? "call" : "calls"} to make: how does the new board do?
      </summary>
      <ul>
        {calls.data.items.map((call) => (
          <li key={call.id} className="border-t border-rule">
            <Link to="/jobs/$id" params={{ id: call.id }} className="block py-2.5 no-underline hover:bg-raised">
              <strong>{call.machine}</strong>{" "}
              <span className="text-faint">
                {call.replacement} for {call.original}, closed {new Date(call.closed_at).toLocaleDateString()}
                {call.said && `; said at once: ${call.said}`}
              </span>
            </Link>
          </li>
        ))}
      </ul>
      <Pager {...calls.data} onPage={setPage} />
    </details>
  );
}
