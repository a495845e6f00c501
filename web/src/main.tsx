import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { StrictMode } from "react";
import { createRoot } from "react-dom/client";
import { opening } from "./api/queries";
import { App } from "./app";

// Without a signal the service worker answers with what was seen last, so asking is never put off.
const queries = new QueryClient({
  defaultOptions: {
    queries: { staleTime: 5_000, retry: 1, refetchOnWindowFocus: true, networkMode: "always" },
    mutations: { networkMode: "always" },
  },
});
void opening(queries).finally(() => {
  const root = document.getElementById("root");
  if (root)
    createRoot(root).render(
      <StrictMode>
        <QueryClientProvider client={queries}>
          <App />
        </QueryClientProvider>
      </StrictMode>,
    );
});
