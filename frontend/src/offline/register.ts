/** Registers the service worker and looks for a newer one; fetched once the page stands. */
const HOUR_MS = 3_600_000;

/** `tell` is called with a newer worker that stands ready. */
export async function register(tell: (worker: ServiceWorker) => void) {
  const found = await navigator.serviceWorker.register("/sw.js").catch(() => null);
  if (!found) return;
  const look = (worker: ServiceWorker | null) => {
    if (worker?.state === "installed" && navigator.serviceWorker.controller) tell(worker);
  };
  look(found.waiting);
  found.addEventListener("updatefound", () => {
    const coming = found.installing;
    coming?.addEventListener("statechange", () => look(coming));
  });
  setInterval(() => void found.update().catch(() => undefined), HOUR_MS);
}
