// Asks for what the first screen shows while the program's parts are still on their way: src/api/held.ts takes it up.
(() => {
  const [, boats, id, page] = location.pathname.split("/");
  const boat = boats === "boats" && page === "today" ? id : "";
  const asks = ["/api/meta", "/api/boats", "/api/places", ...(boat ? [`/api/boats/${boat}/today`] : [])];
  window.early = new Map(asks.map((path) => [new URL(path, location.href).href, fetch(path).catch(() => undefined)]));
})();
