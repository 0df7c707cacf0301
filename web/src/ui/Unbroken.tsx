import { api } from "@/api/client";
import { ErrorBoundary, type FallbackProps } from "react-error-boundary";
import type { ErrorInfo, ReactNode } from "react";
import { Button } from "./Button";

declare const VERSION: string;

type Props = {
  /** What part of the page it is, in the words of the page. */
  place: string;
  /** When any of these changes, the part is tried again. */
  on?: unknown[];
  children: ReactNode;
};

/** A part of a page: where it breaks, the rest stays as it is, and the depot's log is told. */
export function Unbroken({ place, on = [], children }: Props) {
  return (
    <ErrorBoundary
      resetKeys={on}
      onError={(error, info) => void tell(place, error, info)}
      fallbackRender={(props) => <Broken place={place} {...props} />}
    >
      {children}
    </ErrorBoundary>
  );
}

function Broken({ place, resetErrorBoundary }: FallbackProps & { place: string }) {
  return (
    <div role="alert" className="flex flex-col items-start gap-2 border-l-4 border-text py-2 pl-3">
      <p>
        <strong>{place} cannot be shown.</strong> The fault is in the application, and the depot’s log was told. What
        you entered is kept; the other parts of the page work.
      </p>
      <Button onClick={resetErrorBoundary}>Try again</Button>
    </div>
  );
}

/** Nothing is said where the fault cannot be told: whoever stands there cannot do anything about it. */
async function tell(place: string, error: unknown, info: ErrorInfo) {
  const body = {
    place,
    message: String(error).slice(0, 500),
    trace: (info.componentStack ?? "").slice(0, 4000),
    version: VERSION,
  };
  await api.POST("/api/faults", { body }).catch(() => undefined);
}
