import { useAway } from "@/with_you/useAway";
import type { ReactNode } from "react";

/** What goes over a board's service port; without a connection, what is done by eye instead: the depot's server reaches ports. */
export function OverPort({ instead, children }: { instead: string; children: ReactNode }) {
  if (!useAway()) return children;
  return (
    <p role="note" className="text-faint">
      The service port is reached from the depot’s server, and there is no connection. {instead}
    </p>
  );
}
