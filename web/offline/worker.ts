/// <reference lib="webworker" />
import { addPlugins, cleanupOutdatedCaches, type PrecacheEntry, precacheAndRoute } from "workbox-precaching";
import { registerRoute } from "workbox-routing";
import { NetworkFirst } from "workbox-strategies";
import { isKeptPath, isOlderPath, KEPT_PAGES, type Told } from "./pages";

declare const self: ServiceWorkerGlobalScope;
/** The files of this build, written in when it is made. */
declare const BUILD_FILES: PrecacheEntry[];

/** The pages that are worked at with gloves on open without the server, as they were read last. */
const SLOW_AFTER_S = 6;

// A worker reads what to load out of its own address. An answer with an address of its own would take the part behind “#” away from it.
addPlugins([
  {
    handlerWillRespond: async ({ request, response }) =>
      request.destination === "worker" ? new Response(response.body, { status: response.status, headers: response.headers }) : response,
  },
]);
precacheAndRoute(BUILD_FILES);
cleanupOutdatedCaches();

const isPage = (response: Response) => response.ok && (response.headers.get("content-type") ?? "").includes("text/html");

/** The page says that it is an older one, and from when. */
async function marked(response: Response): Promise<Response> {
  const read = new Date(response.headers.get("date") ?? Date.now()).toISOString();
  const html = (await response.text()).replace("<html ", `<html data-kept="${read}" `);
  return new Response(html, { status: response.status, headers: response.headers });
}

const pages = new NetworkFirst({
  cacheName: KEPT_PAGES,
  networkTimeoutSeconds: SLOW_AFTER_S,
  matchOptions: { ignoreVary: true, ignoreSearch: true },
  plugins: [
    {
      cacheWillUpdate: async ({ response }) => (isPage(response) ? response : null),
      cachedResponseWillBeUsed: async ({ cachedResponse }) => (cachedResponse ? marked(cachedResponse) : null),
      // A server whose database is away answers, but not with the page: the one that was kept is better.
      fetchDidSucceed: async ({ response }) => {
        if (response.status >= 500) throw new Error(`answered ${response.status}`);
        return response;
      },
    },
  ],
});
registerRoute(({ request, url }) => request.mode === "navigate" && isKeptPath(url.pathname), pages);

/** An address of an earlier version names no workshop; without the server it is the page of its name that this device keeps. */
registerRoute(
  ({ request, url }) => request.mode === "navigate" && isOlderPath(url.pathname),
  async ({ request, url }) => {
    try {
      return await fetch(request);
    } catch (error) {
      const kept = await (await caches.open(KEPT_PAGES)).keys();
      const page = kept.find((request) => new URL(request.url).pathname.endsWith(url.pathname));
      if (!page) throw error;
      return Response.redirect(page.url);
    }
  },
);

/** Reads a page in the background, so that it is there when it is needed. */
async function keep(path: string): Promise<void> {
  const response = await fetch(path, { headers: { accept: "text/html" } }).catch(() => null);
  if (response && isPage(response) && !response.redirected) await (await caches.open(KEPT_PAGES)).put(path, response);
}

/** Reads anew all pages that the worker of an older build kept: they ask for files that are gone. One that cannot be read now stays as it is. */
async function keepAnew(): Promise<void> {
  const cache = await caches.open(KEPT_PAGES);
  const paths = (await cache.keys()).map((request) => new URL(request.url).pathname);
  await Promise.all(
    paths.map(async (path) => {
      const response = await fetch(path, { headers: { accept: "text/html" }, cache: "no-store" }).catch(() => null);
      if (!response || response.status >= 500) return;
      if (isPage(response) && !response.redirected) await cache.put(path, response);
      else await cache.delete(path);
    }),
  );
}

self.addEventListener("install", () => void self.skipWaiting());
self.addEventListener("activate", (event) => event.waitUntil(keepAnew().then(() => self.clients.claim())));
self.addEventListener("message", (event) => {
  const told = event.data as Told;
  if (told.is === "forget") event.waitUntil(caches.delete(KEPT_PAGES));
  if (told.is === "keep") event.waitUntil(Promise.all(told.paths.filter(isKeptPath).map(keep)));
});
