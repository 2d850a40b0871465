/** The service worker: keeps the page and all its parts, and opens it without signal. Answers of the API are none of its business. */
/// <reference lib="webworker" />
import { cleanupOutdatedCaches, PrecacheController, PrecacheRoute } from "workbox-precaching";
import { NavigationRoute, registerRoute } from "workbox-routing";

declare const self: ServiceWorkerGlobalScope & {
  __WB_MANIFEST: (string | { url: string; revision: string | null })[];
};

const parts = new PrecacheController();
parts.addToCacheList(self.__WB_MANIFEST);

/** Fetches what is missing all at once: the controller takes one part after the other, and each would wait for its way there and back. */
async function fill(): Promise<void> {
  const cache = await caches.open(parts.strategy.cacheName);
  const fetched = [...parts.getURLsToCacheKeys()].map(async ([url, key]) => {
    if (await cache.match(key)) return;
    // A part whose name does not change with it must come from the server, not from what the browser kept.
    const answer = await fetch(url, {
      cache: url === key ? "default" : "reload",
      credentials: "same-origin",
    });
    if (answer.ok && !answer.redirected) await cache.put(key, answer);
  });
  await Promise.allSettled(fetched); // the controller asks again for what did not come, and fails where it must
}

self.addEventListener("install", (event) => event.waitUntil(fill().then(() => parts.install(event))));
self.addEventListener("activate", (event) => event.waitUntil(parts.activate(event)));
registerRoute(new PrecacheRoute(parts));
cleanupOutdatedCaches();
registerRoute(new NavigationRoute(parts.createHandlerBoundToURL("/"), { denylist: [/^\/api\//, /\.\w+$/] }));

self.addEventListener("message", (event) => {
  if (event.data === "take over") void self.skipWaiting();
});
