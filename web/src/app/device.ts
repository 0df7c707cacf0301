/** The service worker: the application opens from what this device keeps of it, with a connection or without. */
import { sendWhatWaits, WHAT_WAITS } from "@/features/jobs/entries/background";
import { clientsClaim } from "workbox-core";
import { cleanupOutdatedCaches, createHandlerBoundToURL, precacheAndRoute } from "workbox-precaching";
import { NavigationRoute, registerRoute } from "workbox-routing";
import { CacheFirst } from "workbox-strategies";

declare const self: ServiceWorkerGlobalScope & { __WB_MANIFEST: { url: string; revision: string | null }[] };
declare const CORE: string;

/** The page itself, and what it is made of. */
precacheAndRoute(self.__WB_MANIFEST);
cleanupOutdatedCaches();
registerRoute(
  new NavigationRoute(createHandlerBoundToURL("/static/index.html"), {
    denylist: [/^\/(api|static)\//, /^\/(health|ready|metrics)$/],
  }),
);

/** The core for the browser lies at an address of its version: what is kept of it stays true, and only one is kept. */
const CORES = `core ${CORE}`;
registerRoute(({ url }) => url.pathname.startsWith("/static/core/"), new CacheFirst({ cacheName: CORES }));
self.addEventListener("activate", (event) => {
  event.waitUntil(
    caches
      .keys()
      .then((names) =>
        Promise.all(
          names.filter((each) => each.startsWith("core ") && each !== CORES).map((each) => caches.delete(each)),
        ),
      ),
  );
});

/** A new version takes over when whoever works here says so, and at the next opening anyway: nothing that waits is lost by it. */
self.addEventListener("message", ({ data }) => {
  if (data === "take over") void self.skipWaiting();
});

type SyncEvent = ExtendableEvent & { tag: string };
self.addEventListener("sync" as "activate", (event) => {
  if ((event as SyncEvent).tag === WHAT_WAITS) event.waitUntil(sendWhatWaits());
});
clientsClaim();
