import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { StrictMode } from "react";
import { createRoot } from "react-dom/client";
import { App } from "./App";
import { ApiError } from "./api/client";
import { currentTheme, showTheme } from "./lib/theme";
import "./theme.css";

showTheme(currentTheme());

const client = new QueryClient({
  defaultOptions: {
    queries: {
      retry: (count, error) => !(error instanceof ApiError) && count < 2,
      refetchOnWindowFocus: false,
      networkMode: "always",
      // Two parts of a page that want the same thing ask once; whoever writes asks again by name.
      staleTime: 3_000,
    },
    mutations: { networkMode: "always" },
  },
});

const root = document.getElementById("root");
if (root) {
  createRoot(root).render(
    <StrictMode>
      <QueryClientProvider client={client}>
        <App />
      </QueryClientProvider>
    </StrictMode>,
  );
}
