import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { render } from "@testing-library/react";
import type { ReactElement, ReactNode } from "react";

/** Answers kept for one test; nothing is asked twice. */
export function standInQueries() {
  const queries = new QueryClient({ defaultOptions: { queries: { retry: false } } });
  const wrapper = ({ children }: { children: ReactNode }) => (
    <QueryClientProvider client={queries}>{children}</QueryClientProvider>
  );
  return { queries, wrapper };
}

export function renderAsking(element: ReactElement) {
  return render(element, { wrapper: standInQueries().wrapper });
}
