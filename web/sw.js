// Lets the bay card open with no connection: keeps the program's own files, and nothing of anybody's. The build puts in
// the names of the files and a version of them (vite.config.ts).
const KEPT = `nimble-${__VERSION__}`;
const PAGE = "/bay";

self.addEventListener("install", (event) => {
  event.waitUntil(
    caches
      .open(KEPT)
      .then((cache) => cache.addAll([PAGE, ...__FILES__]))
      .then(() => self.skipWaiting()),
  );
});

self.addEventListener("activate", (event) => {
  event.waitUntil(
    caches
      .keys()
      .then((names) => Promise.all(old(names).map((name) => caches.delete(name))))
      .then(() => self.clients.claim()),
  );
});

/** Those of builds before the last: a card that is open was loaded by the last one, and goes on needing its files. */
function old(names) {
  const before = names.filter((name) => name.startsWith("nimble-") && name !== KEPT);
  return before.slice(0, -1);
}

self.addEventListener("fetch", (event) => {
  const { request } = event;
  const path = new URL(request.url).pathname;
  if (request.method !== "GET" || new URL(request.url).origin !== self.location.origin) return;
  if (request.mode === "navigate" && path.startsWith("/bay")) event.respondWith(page(request));
  else if (path.startsWith("/assets/")) event.respondWith(file(request));
});

/** The newest page when the server is there; the kept one when it is not. */
async function page(request) {
  try {
    return await fetch(request);
  } catch {
    return (await caches.match(PAGE)) ?? Response.error();
  }
}

async function file(request) {
  return (await caches.match(request)) ?? fetch(request);
}
