import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { setNonce } from "get-nonce";
import { StrictMode } from "react";
import { createRoot } from "react-dom/client";
import { App } from "./App";
import { ApiError, OfflineError } from "./api/client";
import { currentTheme, showTheme } from "./lib/theme";
import { clearOut, persisterFn } from "./offline/persist";
import { watchForNew } from "./offline/worker";
import "./theme.css";

showTheme(currentTheme());

// The one style element that a library makes carries the page's nonce: no other is let in.
setNonce(document.querySelector<HTMLMetaElement>('meta[name="csp-nonce"]')?.content ?? "");

const client = new QueryClient({
  defaultOptions: {
    queries: {
      retry: (count, error) => !(error instanceof ApiError) && count < 2,
      refetchOnWindowFocus: false,
      networkMode: "always",
      // Two parts of a page that want the same thing ask once; whoever writes asks again by name.
      staleTime: 3_000,
      persister: persisterFn,
    },
    mutations: { networkMode: "always" },
  },
});

// A question asked in passing, of which nobody waits for the answer, has no signal either: that is no fault of the page.
window.addEventListener("unhandledrejection", (event) => {
  if (event.reason instanceof OfflineError) event.preventDefault();
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

setTimeout(clearOut, 10_000);
watchForNew();
