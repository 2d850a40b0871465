/** The service worker: keeps the page and all its parts, and opens it without signal. Answers of the API are none of its business. */
/// <reference lib="webworker" />
import { cleanupOutdatedCaches, createHandlerBoundToURL, precacheAndRoute } from "workbox-precaching";
import { NavigationRoute, registerRoute } from "workbox-routing";

declare const self: ServiceWorkerGlobalScope & {
  __WB_MANIFEST: (string | { url: string; revision: string | null })[];
};

precacheAndRoute(self.__WB_MANIFEST);
cleanupOutdatedCaches();
registerRoute(new NavigationRoute(createHandlerBoundToURL("/"), { denylist: [/^\/api\//, /\.\w+$/] }));

self.addEventListener("message", (event) => {
  if (event.data === "take over") void self.skipWaiting();
});
