import { fileURLToPath } from "node:url";
import { gzipSync } from "node:zlib";
import tailwindcss from "@tailwindcss/vite";
import react from "@vitejs/plugin-react";
import type { Plugin } from "vite";
import { VitePWA } from "vite-plugin-pwa";
import { defineConfig } from "vitest/config";

/** Kilobytes of compressed JavaScript that a view may load before it can be used; a build over it fails. */
const BUDGETS = { "views/floor/Floor.tsx": 200 };

/** What most views share goes in one file: each file of its own is a round trip on a slow line. Menus and plots do not. */
const SHARED = /src\/(data|score|views\/[^/]+$|parts\/(?!Menu|Sheet|Figure|pictures|ReadByKey|Progress))/;

/** Reports what the first load of a view weighs: the shell, the view, and all they import. */
function budget(): Plugin {
  return {
    name: "budget",
    writeBundle(_, bundle) {
      const chunks = Object.values(bundle).filter((each) => each.type === "chunk");
      const entry = chunks.find((each) => each.isEntry);
      for (const [view, most] of Object.entries(BUDGETS)) {
        const first = chunks.find((each) => each.facadeModuleId?.endsWith(view));
        if (!entry || !first) return this.error(`There is no chunk of ${view} to weigh.`);
        const loaded = new Set([entry.fileName, first.fileName]);
        for (const name of loaded) {
          const chunk = bundle[name];
          if (chunk?.type === "chunk") for (const imported of chunk.imports) loaded.add(imported);
        }
        const weights = chunks
          .filter((each) => loaded.has(each.fileName))
          .map((each) => gzipSync(each.code).length / 1000);
        const kilobytes = weights.reduce((sum, each) => sum + each, 0);
        const told = `${view} first loads ${kilobytes.toFixed(0)} kB of JavaScript, gzip; ${most} kB at most.`;
        if (kilobytes > most) this.error(told);
        this.info(told);
      }
    },
  };
}

export default defineConfig({
  plugins: [
    react(),
    tailwindcss(),
    budget(),
    VitePWA({
      registerType: "autoUpdate",
      injectRegister: "script-defer",
      manifest: false,
      workbox: {
        globPatterns: ["**/*.{js,css,html,svg,woff2,webmanifest}"],
        navigateFallback: "/index.html",
        navigateFallbackDenylist: [/^\/api\//],
        clientsClaim: true,
        skipWaiting: true,
      },
    }),
  ],
  build: {
    manifest: true,
    rolldownOptions: {
      output: { codeSplitting: { groups: [{ name: "shared", test: SHARED, minShareCount: 2 }] } },
    },
  },
  resolve: { alias: { "@": fileURLToPath(new URL("./src", import.meta.url)) } },
  server: { proxy: { "/api": "http://127.0.0.1:8000" } },
  // Some tests go through hundreds of cases: a busy machine takes its time for them.
  test: { testTimeout: 60_000 },
});
