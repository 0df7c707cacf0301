import { Problem } from "@/api/client";
import { isAway, lookAgain, onReach } from "@/api/reach";
import { QueryCache, QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { RouterProvider } from "@tanstack/react-router";
import { router } from "./router";

const queries: QueryClient = new QueryClient({
  queryCache: new QueryCache({
    onError: (error, query) => {
      // a sign-in that has run out shows the sign-in page again; nothing entered is lost, it waits in the browser
      if (error instanceof Problem && error.status === 401 && query.queryKey[0] !== "session")
        void queries.invalidateQueries({ queryKey: ["session"] });
    },
  }),
  defaultOptions: {
    queries: {
      staleTime: 5_000,
      retry: (count, error) => count < 2 && error instanceof Problem && error.offline,
      networkMode: "always",
    },
    mutations: { networkMode: "always" },
  },
});

/** How often it is looked whether the depot's server is there again. */
const LOOKED_FOR_MS = 10_000;

// what was answered on this device meanwhile is asked of the depot again
onReach(() => {
  if (!isAway()) void queries.invalidateQueries();
});

addEventListener("online", () => void lookAgain());
setInterval(() => void lookAgain(), LOOKED_FOR_MS);

export function App() {
  return (
    <QueryClientProvider client={queries}>
      <RouterProvider router={router} />
    </QueryClientProvider>
  );
}
