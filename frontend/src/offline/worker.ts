/** The service worker that opens the pages without signal: registered, watched for a newer one, never forced. */

type Listener = () => void;

let waiting: ServiceWorker | null = null;
const listeners = new Set<Listener>();

function tell(worker: ServiceWorker | null) {
  waiting = worker;
  for (const listener of listeners) listener();
}

export const fresh = {
  subscribe: (listener: Listener) => {
    listeners.add(listener);
    return () => listeners.delete(listener);
  },
  /** Whether a newer version stands ready. */
  ready: () => waiting !== null,
  /** Go over to it: the page loads anew. */
  take: () => {
    navigator.serviceWorker.addEventListener("controllerchange", () => window.location.reload(), {
      once: true,
    });
    waiting?.postMessage("take over");
  },
};

/** Whether this address lets a page be kept for the dark: TLS, or this machine itself. */
export const keepable = window.isSecureContext && "serviceWorker" in navigator;

export function watchForNew() {
  if (!keepable || !import.meta.env.PROD) return;
  // A part of the page that is gone from the server: the page is older than what is kept there.
  window.addEventListener("vite:preloadError", () => {
    if (navigator.onLine && sessionStorage.getItem("healed") === null) {
      sessionStorage.setItem("healed", "1");
      window.location.reload();
    }
  });
  window.addEventListener("load", () => {
    void import("./register").then((found) => found.register(tell)).catch(() => undefined);
  });
}
