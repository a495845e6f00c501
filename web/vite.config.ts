import tailwindcss from "@tailwindcss/vite";
import react from "@vitejs/plugin-react";
import { VitePWA } from "vite-plugin-pwa";
import { defineConfig } from "vitest/config";

type Modules = { getModuleInfo(id: string): { importers: readonly string[] } | null };

/** Whether a module comes with another, and not only when it is asked for. */
function comesWith(entry: string, id: string, modules: Modules, seen = new Set<string>()): boolean {
  if (seen.has(id)) return false;
  seen.add(id);
  const importers = modules.getModuleInfo(id)?.importers ?? [];
  return importers.some((i) => i.includes(entry) || comesWith(entry, i, modules, seen));
}

/** The first sentence, then the first screen, come in one file each: fewer to fetch, and smaller together. */
const PARTS = (["first", "main"] as const).map((entry, i) => ({
  name: (id: string, modules: Modules) => (comesWith(`/src/${entry}.ts`, id, modules) ? `with-${entry}` : null),
  debugName: entry,
  priority: 2 - i,
}));

export default defineConfig({
  plugins: [
    react(),
    tailwindcss(),
    VitePWA({
      registerType: "autoUpdate",
      injectRegister: "script-defer",
      manifest: {
        name: "All Coats",
        short_name: "All Coats",
        description: "Plans, computes and records the coats of a boat",
        display: "standalone",
        start_url: "/",
        background_color: "#f4f1ea",
        theme_color: "#f4f1ea",
        icons: [{ src: "/icon.svg", sizes: "any", type: "image/svg+xml", purpose: "any" }],
      },
      workbox: {
        clientsClaim: true,
        skipWaiting: true,
        globPatterns: ["**/*.{js,css,html,svg,woff2}"],
        navigateFallback: "/index.html",
        navigateFallbackDenylist: [/^\/api\//, /^\/healthz/, /^\/login/, /^\/pair/, /^\/authority/],
        runtimeCaching: [
          {
            // The core goes along once it was fetched; another version has another name.
            urlPattern: ({ url }) => url.pathname.endsWith(".wasm"),
            handler: "CacheFirst",
            options: { cacheName: "core", expiration: { maxEntries: 2 } },
          },
          {
            // What was seen last stays readable without a signal.
            urlPattern: ({ url, request }) =>
              request.method === "GET" &&
              url.pathname.startsWith("/api/") &&
              !/backup|users|audit|who|changes|pieces|\/file$|values$/.test(url.pathname),
            handler: "NetworkFirst",
            options: {
              cacheName: "seen",
              networkTimeoutSeconds: 6,
              expiration: { maxEntries: 400 },
              cacheableResponse: { statuses: [200] },
              plugins: [
                {
                  // What the page holds still stands: what is kept is as new.
                  fetchDidSucceed: async ({ request, response }) => {
                    if (response.status !== 304) return response;
                    const seen = await caches.open("seen");
                    const kept = await seen.match(request, { ignoreVary: true });
                    if (kept) {
                      const headers = new Headers(kept.headers);
                      headers.set("X-Kept-At", String(Date.now()));
                      headers.set("X-Program-Time", response.headers.get("X-Program-Time") ?? "");
                      await seen.put(request, new Response(await kept.blob(), { status: 200, headers }));
                    }
                    return response;
                  },
                  // When it was kept, by this device: clocks run on from then (src/api/programTime.ts).
                  cacheWillUpdate: async ({ response }) => {
                    if (response.status !== 200) return null;
                    const headers = new Headers(response.headers);
                    headers.set("X-Kept-At", String(Date.now()));
                    return new Response(response.body, { status: 200, headers });
                  },
                },
              ],
            },
          },
        ],
      },
    }),
  ],
  test: { setupFiles: ["src/testSetup.ts"] },
  build: {
    outDir: "dist",
    manifest: "parts.json",
    assetsInlineLimit: 0,
    chunkSizeWarningLimit: 700,
    rolldownOptions: { output: { codeSplitting: { groups: PARTS } } },
  },
  server: { proxy: { "/api": "http://127.0.0.1:8080", "/healthz": "http://127.0.0.1:8080" } },
});
