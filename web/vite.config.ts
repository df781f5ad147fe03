import { createHash } from "node:crypto";
import { readFileSync } from "node:fs";
import react from "@vitejs/plugin-react";
import type { Plugin } from "vite";
import { defineConfig } from "vitest/config";

/** Writes sw.js: the bay's service worker, with the names of the files it keeps. */
function serviceWorker(): Plugin {
  return {
    name: "service-worker",
    apply: "build",
    generateBundle(_options, bundle) {
      const files = Object.keys(bundle)
        .filter((name) => name.startsWith("assets/"))
        .map((name) => `/${name}`)
        .sort();
      const version = createHash("sha256").update(files.join()).digest("hex").slice(0, 12);
      const source = readFileSync("sw.js", "utf8")
        .replace("__FILES__", JSON.stringify(files))
        .replace("__VERSION__", JSON.stringify(version));
      this.emitFile({ type: "asset", fileName: "sw.js", source });
    },
  };
}

export default defineConfig({
  plugins: [react(), serviceWorker()],
  build: { target: "es2022", sourcemap: false, assetsInlineLimit: 0 },
  server: { proxy: { "/api": "http://127.0.0.1:4080" } },
  // Nothing here waits for anything: a test that takes long runs on a machine that has much to do.
  test: { include: ["src/**/*.test.ts"], testTimeout: 120_000 },
});
